// How a rig without history is judged by eye: a whole-number counter, one to four looks a side, taken in turn,
// over the written-down population of rigs and on rigs of one spread. Beside it Welch's test on the same data.
//   npm run bench -- eye        REPEATS (2000), SEED and READINGS of a look (4) may be set
import { compareArms, rigPopulation } from "@/core/compare";
import { tallyTrace } from "@/core/metrics";
import { seeded, tQuantile, varianceOf, mean, type Random } from "@/core/stats";

const repeats = Number(process.env.REPEATS ?? 2000);
const seed = Number(process.env.SEED ?? 900_000);
const targetFps = 60;
const orders = { 1: "AB", 2: "ABBA", 3: "ABBAAB", 4: "ABBAABBA" } as const;
/** A look: so many numbers read five seconds apart off a counter that cuts off; the scene itself varies by 3 %. */
const readingsOfALook = Number(process.env.READINGS ?? 4),
  withinSd = 0.03;

function look(fps: number, random: Random) {
  return tallyTrace(
    Array.from({ length: readingsOfALook }, (_, at) => ({
      fps: Math.floor(fps * Math.exp(withinSd * random.normal()) + random.uniform()),
      second: 5 * at,
      scene: "",
    })),
  );
}

/** Welch's (1947) test of two sides at 5 %, by its usual formula. */
function welch(a: number[], b: number[]): boolean {
  if (a.length < 2) return false;
  const [va, vb] = [varianceOf(a) / a.length, varianceOf(b) / b.length];
  if (va + vb === 0) return mean(a) !== mean(b);
  const freedom = (va + vb) ** 2 / (va ** 2 / (a.length - 1) + vb ** 2 / (b.length - 1));
  return Math.abs(mean(a) - mean(b)) > tQuantile(0.975, freedom) * Math.sqrt(va + vb);
}

type Sides = keyof typeof orders;

/** Share of afternoons in which the sides are called different, here and by Welch. */
function called(
  sides: Sides,
  ratio: number,
  spreadOf: (random: Random) => number,
): [here: number, welch: number] {
  let here = 0,
    there = 0;
  for (let k = 0; k < repeats; k++) {
    const random = seeded(seed + 10_007 * sides + k);
    const sd = spreadOf(random);
    const arms: ReturnType<typeof look>[][] = [[], []],
      places: number[][] = [[], []];
    [...orders[sides]].forEach((letter, place) => {
      const arm = letter === "A" ? 0 : 1;
      const fps = 40 * (arm === 0 ? 1 : ratio) * Math.exp(sd * random.normal());
      arms[arm]?.push(look(fps, random));
      places[arm]?.push(place);
    });
    const [pair] = compareArms(arms, { targetFps, nativeFps: targetFps, places, seed: k, resamples: 40 }).pairs;
    if (pair?.decision === "better" || pair?.decision === "worse") here++;
    const logs = arms.map((own) => own.map(({ rates }) => Math.log(mean(rates))));
    if (welch(logs[0] ?? [], logs[1] ?? [])) there++;
  }
  return [here / repeats, there / repeats];
}

const anyRig = (random: Random) => rigPopulation.medianSd * Math.exp(rigPopulation.logSd * random.normal());
const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
const row = (
  name: string,
  sides: Sides,
  ratio: number,
  spreadOf: (random: Random) => number,
  wanted: string,
) => {
  const [here, there] = called(sides, ratio, spreadOf);
  console.log(`| ${name} | ${sides} | ${percent(here)} | ${percent(there)} | ${wanted} |`);
};

console.log(`Looks of ${readingsOfALook} whole numbers, ${repeats} afternoons a row, seed ${seed}\n`);
console.log("| equal arms | looks a side | called different | Welch | wanted |\n|---|---|---|---|---|");
for (const sides of [1, 2, 3, 4] as const) row("any rig of the population", sides, 1, anyRig, "≤ 5 %");
for (const sd of [0.01, 0.025, 0.04])
  for (const sides of [1, 2, 3, 4] as const)
    row(`a rig of ${(100 * sd).toFixed(1)} %`, sides, 1, () => sd, "≤ 7 %");
console.log("\n| a true difference | looks a side | found | Welch | wanted |\n|---|---|---|---|---|");
for (const [ratio, sides, wanted] of [
  [1.25, 1, "≥ 90 %"],
  [1.15, 2, "≥ 90 %"],
  [1.1, 3, "≥ 80 %"],
  [1.1, 4, ""],
] as const)
  row(`+${(100 * (ratio - 1)).toFixed(0)} %, any rig`, sides, ratio, anyRig, wanted);
