// How comparisons do on rigs that wander, step, warm up or don't drift, with the floor of other titles, and with
// arms of unequal spread; beside the paired test and Welch's on the same runs.
//   npm run bench -- rigs        REPEATS (300), SEED (1100000) and ONLY (drift, floor, power) may be set
import { compareArms, noiseFloor, rigNoise, type NoiseFloor } from "@/core/compare";
import { mean, medianOf, seeded, tQuantile, varianceOf, type Random } from "@/core/stats";
import type { IntervalTrace } from "@/core/trace";

const repeats = Number(process.env.REPEATS ?? 300);
const seed = Number(process.env.SEED ?? 1_100_000);
const only = process.env.ONLY;

/** What a rig does by itself: a log rate for every run of an afternoon. */
type Rig = (random: Random, runs: number) => number[];
const over = (runs: number, shape: (at: number) => number) =>
  Array.from({ length: runs }, (_, at) => shape(at));
const still: Rig = (_, runs) => over(runs, () => 0);
const walks =
  (step: number): Rig =>
  (random, runs) => {
    let level = 0;
    return over(runs, () => (level += step * random.normal()));
  };
const steps =
  (size: number): Rig =>
  (random, runs) => {
    const after = 1 + random.whole(runs - 1);
    return over(runs, (at) => (at >= after ? size : 0));
  };
const warms =
  (size: number, settling: number): Rig =>
  (_, runs) =>
    over(runs, (at) => (-size * (1 - Math.exp(-at / settling))) / (1 - Math.exp(-(runs - 1) / settling)));
const slows =
  (size: number): Rig =>
  (_, runs) =>
    over(runs, (at) => (size * at) / (runs - 1));
const waves =
  (size: number, period: number): Rig =>
  (random, runs) => {
    const phase = 2 * Math.PI * random.uniform();
    return over(runs, (at) => size * Math.sin(phase + (2 * Math.PI * at) / period));
  };
const together =
  (...rigs: Rig[]): Rig =>
  (random, runs) => {
    const all = rigs.map((rig) => rig(random, runs));
    return over(runs, (at) => all.reduce((sum, own) => sum + (own[at] ?? 0), 0));
  };

/** A minute of a counter whose own readings say little of how runs differ. */
function readings(fps: number, random: Random): IntervalTrace {
  return {
    form: "interval",
    durations: new Float64Array(60).fill(1000),
    rates: Float64Array.from({ length: 60 }, () => fps * (1 + 0.01 * random.normal())),
    channels: [],
    marks: [],
  };
}

interface Question {
  order: string;
  rig: Rig;
  /** SD of log rate from run to run, of each arm. */
  spread: [a: number, b: number];
  gain: number;
  told?: "order" | "rounds" | "nothing";
  noise?: (random: Random) => NoiseFloor;
}

/** Half widths of the paired test's and Welch's (1947) 95 % interval; Infinity where a side has too few runs. */
function classical([a = [], b = []]: number[][]) {
  const enough = a.length > 1 && b.length > 1;
  const [va, vb] = enough ? [varianceOf(a) / a.length, varianceOf(b) / b.length] : [0, 0];
  const freedom = (va + vb) ** 2 / (va ** 2 / (a.length - 1) + vb ** 2 / (b.length - 1));
  const differences = a.map((value, round) => (b[round] ?? NaN) - value);
  return {
    difference: mean(b) - mean(a),
    welch: enough ? tQuantile(0.975, freedom) * Math.sqrt(va + vb) : Infinity,
    paired:
      enough && a.length === b.length
        ? tQuantile(0.975, a.length - 1) * Math.sqrt(varianceOf(differences) / a.length)
        : Infinity,
  };
}

function asked({ order, rig, spread, gain, told = "order", noise }: Question) {
  const truth = Math.log(1 + gain);
  let called = 0,
    held = 0,
    welch = 0,
    paired = 0;
  const halves = new Float64Array(repeats),
    best = new Float64Array(repeats);
  for (let k = 0; k < repeats; k++) {
    const random = seeded(seed + 7919 * k);
    const level = rig(random, order.length);
    const logs: number[][] = [[], []],
      places: number[][] = [[], []];
    [...order].forEach((letter, place) => {
      const arm = letter === "A" ? 0 : 1;
      logs[arm]?.push(Math.log(40) + (level[place] ?? 0) + arm * truth + spread[arm] * random.normal());
      places[arm]?.push(place);
    });
    const traces = logs.map((own) => own.map((log) => readings(Math.exp(log), random)));
    const floor = noise?.(random);
    const [pair] = compareArms(traces, {
      targetFps: 60,
      nativeFps: 60,
      places: told === "order" ? places : null,
      rounds: told === "rounds",
      seed: k,
      resamples: 20,
      ...(floor && { noise: floor }),
    }).pairs;
    if (!pair) throw new RangeError("an afternoon has two arms");
    const { low, high } = pair.comparison.averageFps;
    if (pair.decision === "better" || pair.decision === "worse") called++;
    if (low <= 1 + gain && high >= 1 + gain) held++;
    halves[k] = Math.log(high / low) / 2;
    const usual = classical(logs);
    best[k] = Math.min(usual.welch, usual.paired);
    if (Math.abs(usual.difference) > usual.welch) welch++;
    if (Math.abs(usual.difference) > usual.paired) paired++;
  }
  const share = (n: number) => n / repeats;
  return {
    called: share(called),
    held: share(held),
    welch: share(welch),
    paired: share(paired),
    half: medianOf(halves),
    best: medianOf(best),
  };
}

/** What is believed of a rig from so many groups of repeats of titles that spread so much. */
const learnt =
  (groups: number, runs: number, sd: number) =>
  (random: Random): NoiseFloor =>
    rigNoise(
      noiseFloor(
        Array.from({ length: groups }, () =>
          Array.from({ length: runs }, () => 40 * Math.exp(sd * random.normal())),
        ),
      ),
    ).noise;

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
const rigs: [name: string, rig: Rig][] = [
  ["doesn't drift", still],
  ["wanders by 1 % a run", walks(0.01)],
  ["wanders by 3 %", walks(0.03)],
  ["wanders by 6 %", walks(0.06)],
  ["one step of 10 %", steps(0.1)],
  ["warms up, 8 %", warms(0.08, 2)],
  ["warms up, 15 %", warms(0.15, 1)],
  ["slows down, 15 %", slows(-0.15)],
  ["waves of ±5 %, six runs long", waves(0.05, 6)],
  ["waves of ±5 %, twelve runs long", waves(0.05, 12)],
  ["wanders, warms up and steps", together(walks(0.02), warms(0.08, 2), steps(0.05))],
];
console.log(`${repeats} afternoons a row, seed ${seed}`);
if (!only || only === "drift")
  for (const order of ["ABABABABABAB", "ABBAABBA", "ABBA"]) {
    console.log(
      `\n| ${order}, runs spread by 2 % about what the rig does | equal arms called | paired, Welch | +5 % found | paired, Welch | interval holds the truth | half width | the better test's |\n|---|---|---|---|---|---|---|---|`,
    );
    for (const [name, rig] of rigs) {
      const equal = asked({ order, rig, spread: [0.02, 0.02], gain: 0 });
      const faster = asked({ order, rig, spread: [0.02, 0.02], gain: 0.05 });
      console.log(
        `| ${name} | ${percent(equal.called)} | ${percent(equal.paired)}, ${percent(equal.welch)} | ${percent(faster.called)} | ${percent(faster.paired)}, ${percent(faster.welch)} | ${percent((equal.held + faster.held) / 2)} | ${percent(equal.half)} | ${percent(equal.best)} |`,
      );
    }
  }
const row = (name: string, question: Question, wanted: string) => {
  const { called, held, welch } = asked(question);
  console.log(`| ${name} | ${percent(called)} | ${percent(welch)} | ${percent(held)} | ${wanted} |`);
};
const alike = (sd: number): [number, number] => [sd, sd];
if (!only || only === "floor") {
  console.log(
    "\n| equal arms | called different | Welch | interval holds it | wanted |\n|---|---|---|---|---|",
  );
  for (const [sd, wanted] of [
    [0.024, ["≤ 12 %", "≤ 8 %", "≤ 6 %"]],
    [0.04, ["≤ 30 %", "≤ 15 %", "≤ 8 %"]],
  ] as const)
    (["AB", "ABBA", "ABBAABBA"] as const).forEach((order, at) =>
      row(
        `floor of titles at 1.2 %, a title of ${percent(sd)}, ${order.length / 2} a side`,
        { order, rig: still, spread: alike(sd), gain: 0, noise: learnt(4, 3, 0.012) },
        wanted[at] ?? "",
      ),
    );
  for (const [name, spread] of [
    ["4 % and 1 %", [0.04, 0.01]],
    ["6 % and 1.5 %", [0.06, 0.015]],
  ] as const)
    row(
      `3 wide runs against 9 tight, ${name}`,
      { order: "ABBBABBBABBB", rig: still, spread: [...spread], gain: 0, told: "nothing" },
      "≤ 6 %",
    );
  row(
    "9 wide runs against 3 tight, 4 % and 1 %",
    { order: "ABBBABBBABBB", rig: still, spread: [0.01, 0.04], gain: 0, told: "nothing" },
    "≤ 6 %",
  );
  for (const size of [0.08, 0.15])
    for (const settling of [0.7, 1.5, 3])
      row(
        `A B B A, warms up by ${percent(size)}, two thirds after ${settling} runs, floor of 1 %`,
        { order: "ABBA", rig: warms(size, settling), spread: alike(0.01), gain: 0, noise: learnt(4, 3, 0.01) },
        size < 0.1 ? "≤ 6 %" : "≤ 8 %",
      );
  row(
    "A B B A, one step of 10 %, floor of 1 %",
    { order: "ABBA", rig: steps(0.1), spread: alike(0.01), gain: 0, noise: learnt(4, 3, 0.01) },
    "≤ 8 %",
  );
  row(
    "A B B A, one step of 10 %, floor of 2 %",
    { order: "ABBA", rig: steps(0.1), spread: alike(0.02), gain: 0, noise: learnt(4, 3, 0.02) },
    "≤ 8 %",
  );
  row(
    "A A B B, speeds up by 15 %, floor of 2 %",
    { order: "AABB", rig: slows(0.15), spread: alike(0.02), gain: 0, noise: learnt(4, 3, 0.02) },
    "≤ 6 %",
  );
}
if (!only || only === "power") {
  console.log("\n| a true difference | found | Welch | interval holds it | wanted |\n|---|---|---|---|---|");
  for (const told of ["order", "nothing", "rounds"] as const) {
    const usual = { order: "ABBAABBA", rig: still, spread: alike(0.02), gain: 0.05, told };
    const by = told === "order" ? "order told" : told === "rounds" ? "by rounds" : "no order told";
    row(
      `5 %, spread 2 %, 4 a side, floor of four groups of three, ${by}`,
      { ...usual, noise: learnt(4, 3, 0.02) },
      "≥ 88 %",
    );
    row(`floor of three runs, ${by}`, { ...usual, noise: learnt(1, 3, 0.02) }, "≥ 80 %");
    row(`nothing known, ${by}`, usual, "≥ Welch");
  }
  for (const sd of [0.02, 0.025, 0.03])
    row(
      `10 %, spread ${percent(sd)}, 2 a side, nothing known, order told`,
      { order: "ABBA", rig: still, spread: alike(sd), gain: 0.1 },
      "≥ Welch",
    );
}
