// Twelve made-up problems, some afternoons each: how often following the first suggestion ends at full speed
// (or at "out of reach" where it is), and in how many runs, against any order.
import { atRandom, bySuggestion, scoreAdvice } from "@/testing/afternoons";

const afternoons = Number(process.env.AFTERNOONS ?? 8);
const seed = Number(process.env.SEED ?? 800_000);
const followed = scoreAdvice(bySuggestion, afternoons, seed);
const any = scoreAdvice(atRandom, afternoons, seed);
const runs = (mean: number | null) => mean?.toFixed(1) ?? "–";
console.log("| problem | by suggestion | runs | in any order | runs |\n|---|---|---|---|---|");
followed.forEach(({ name, right, runs: mean }, at) =>
  console.log(
    `| ${name} | ${right} of ${afternoons} | ${runs(mean)} | ${any[at]?.right} of ${afternoons} | ${runs(any[at]?.runs ?? null)} |`,
  ),
);
const total = (list: typeof followed) => list.reduce((sum, { right }) => sum + right, 0);
const spent = (list: typeof followed) =>
  list.reduce((sum, { right, runs: mean }) => sum + right * (mean ?? 0), 0) / total(list);
const all = afternoons * followed.length;
console.log(
  `| all | ${total(followed)} of ${all} (${((100 * total(followed)) / all).toFixed(0)} %) | ${spent(followed).toFixed(1)} | ${total(any)} of ${all} (${((100 * total(any)) / all).toFixed(0)} %) | ${spent(any).toFixed(1)} |`,
);
console.log(
  `\nRuns by suggestion over runs in any order: ${((100 * spent(followed)) / spent(any)).toFixed(0)} %`,
);
