// How often the cause built into a simulated run is the one named, and whether a chance said is a chance kept;
// on seeds that the signs were not set on.
import { causes } from "@/core/diagnose";
import { reliability, scoreDiagnosis, scorePairs } from "@/testing/labelledRuns";

const seed = Number(process.env.SEED ?? 900_000);
const each = Number(process.env.CASES ?? 40);
const percent = (part: number, all: number) => (all === 0 ? "–" : `${((100 * part) / all).toFixed(1)} %`);

const { counts, right, cases } = scoreDiagnosis(each, seed);
console.log(
  `Devices of the kind the signs were set on: ${right} of ${cases} right (${percent(right, cases)})\n`,
);
console.log(
  `| built in | ${[...causes, "none"].join(" | ")} |\n|---|${[...causes, "none"].map(() => "---").join("|")}|`,
);
for (const cause of causes)
  console.log(
    `| ${cause} | ${[...causes, "none" as const].map((said) => counts[cause][said] || "").join(" | ")} |`,
  );

console.log(
  "\nOther devices: wandering work, displays that pace, odd caps, unknown limits, another program's hitches",
);
console.log(
  "\n| columns missing | cases | likeliest cause right | 8 in 10 or surer, and wrong | not named |\n|---|---|---|---|---|",
);
const all = [0, 0.1, 0.2].map((missing, k) => ({
  missing,
  ...reliability(each, seed + 10_000 * (k + 1), missing),
}));
for (const made of all)
  console.log(
    `| ${percent(made.missing, 1)} | ${made.cases} | ${percent(made.firstRight, made.cases)} | ${percent(made.sureAndWrong, made.cases)} | ${percent(made.notNamed, made.cases)} |`,
  );
console.log("\n| chance said | cases | mean said | right |\n|---|---|---|---|");
for (let tenth = 0; tenth < 10; tenth++) {
  const own = all.flatMap(({ tenths }) => tenths[tenth] ?? []);
  const sum = (pick: (each: { cases: number; said: number; right: number }) => number) =>
    own.reduce((total, one) => total + pick(one), 0);
  const count = sum((one) => one.cases);
  if (count > 0)
    console.log(
      `| ${tenth / 10} to ${(tenth + 1) / 10} | ${count} | ${percent(
        sum((one) => one.said),
        count,
      )} | ${percent(
        sum((one) => one.right),
        count,
      )} |`,
    );
}

console.log("\nTwo causes at once, on such devices");
console.log(
  "\n| columns missing | cases | one of the two first | a third, 8 in 10 or surer |\n|---|---|---|---|",
);
for (const missing of [0, 0.2]) {
  const made = scorePairs(each, seed + 50_000, missing);
  console.log(
    `| ${percent(missing, 1)} | ${made.cases} | ${percent(made.oneOfBoth, made.cases)} | ${percent(made.sureOfAThird, made.cases)} |`,
  );
}
