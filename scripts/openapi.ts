// Prints the endpoints' description, or what a well-kept linter finds in it.   tsx scripts/openapi.ts [lint]
import { createConfig, lintFromString } from "@redocly/openapi-core";
import { openApi } from "@/contract";

const source = JSON.stringify(openApi(), null, 2);
if (process.argv[2] === "lint") {
  const config = await createConfig({ extends: ["recommended"] });
  const problems = await lintFromString({ source, config });
  for (const { severity, ruleId, message, location } of problems)
    console.log(`${severity} ${ruleId}: ${message} ${location[0]?.pointer ?? ""}`);
  process.exitCode = problems.length > 0 ? 1 : 0;
} else console.log(source);
