// Writes what a caller needs to know of every endpoint, without schemas, from the contract.
//   tsx scripts/endpoints.ts [--print]
import { writeFileSync } from "node:fs";
import { endpointsFile } from "@/contract/endpointsFile";

if (process.argv[2] === "--print") process.stdout.write(endpointsFile());
else writeFileSync("src/contract/endpoints.ts", endpointsFile());
