// The agent as one file without dependencies, for any Node from 18 on.
import { createHash } from "node:crypto";
import { mkdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { build } from "esbuild";
import { root } from "./run.mjs";

/**
 * Bundles the agent.
 * @param to the file that is written
 * @returns its length in bytes and its SHA-256 in hexadecimal
 */
export async function bundleAgent(to) {
  mkdirSync(dirname(to), { recursive: true });
  await build({
    entryPoints: [join(root, "src", "agent", "main.ts")],
    outfile: to,
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node18",
    minify: true,
    mainFields: ["module", "main"],
    legalComments: "none",
    // Parsers of config files that ask for Node's own parts in the older way.
    banner: {
      js: 'import { createRequire as asking } from "node:module"; const require = asking(import.meta.url);',
    },
    tsconfig: join(root, "tsconfig.json"),
    logLevel: "error",
  });
  const bytes = readFileSync(to);
  return { bytes: bytes.length, sha256: createHash("sha256").update(bytes).digest("hex") };
}
