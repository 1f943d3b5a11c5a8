// How often the cause built into a simulated run is the one named: forty cases a cause, on seeds the rules were not tuned on.
import { causes, scoreDiagnosis } from "@/core/diagnose";

const seed = Number(process.env.SEED ?? 600_000);
const { counts, right, cases } = scoreDiagnosis(Number(process.env.CASES ?? 40), seed);
console.log(
  `Diagnosis: ${right} of ${cases} right (${((100 * right) / cases).toFixed(1)} %; at least 85 % is wanted)\n`,
);
console.log(
  `| built in | ${[...causes, "none"].join(" | ")} |\n|---|${[...causes, "none"].map(() => "---").join("|")}|`,
);
for (const cause of causes)
  console.log(
    `| ${cause} | ${[...causes, "none" as const].map((said) => counts[cause][said] || "").join(" | ")} |`,
  );
