// How often the comparison is right where the truth is known: 400 synthetic afternoons a row. Some minutes.
import { honesty, type Truth } from "@/core/compare";

const usual: Truth = {
  repeats: 400,
  ratio: 1,
  runsPerSide: 4,
  spread: 0.02,
  drift: 0,
  rounds: false,
  framesPerRun: 2400,
  resamples: 200,
  seed: 1000,
};
const rows: [string, Partial<Truth>][] = [
  ["identical arms, 2 % spread, 4 runs a side", {}],
  ["the same, other seeds", { seed: 30_000 }],
  ["a true 5 % gain", { ratio: 1.05, seed: 5000 }],
  ["the same, other seeds", { ratio: 1.05, seed: 55_000 }],
  ["a true 5 % gain, 15 % drift, by rounds", { ratio: 1.05, drift: 0.15, rounds: true, seed: 9000 }],
  ["identical arms, 15 % drift, by rounds", { drift: 0.15, rounds: true, seed: 13_000 }],
  ["identical arms, 4 % spread (floor assumed 2 %)", { spread: 0.04, seed: 17_000 }],
  ["identical arms, 1 run a side", { runsPerSide: 1, seed: 19_000 }],
];
console.log("| truth | intervals that hold it | better | worse | undecided |\n|---|---|---|---|---|");
for (const [name, truth] of rows) {
  const { covered, better, worse, undecided } = honesty({ ...usual, ...truth });
  const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
  console.log(
    `| ${name} | ${percent(covered)} | ${percent(better)} | ${percent(worse)} | ${percent(undecided)} |`,
  );
}
