// How often sweeps answer right where the truth is known; seeds other than those the methods were set on.
import { decideRate, replay } from "@/core/advise";
import { summarise, tallyFigures, windowRates } from "@/core/metrics";
import { seeded, type Random } from "@/core/stats";
import {
  fitHeat,
  fitScaleLaw,
  isPaced,
  limitOutlook,
  memoryGrowth,
  powerSweep,
  type ScaleLevel,
} from "@/core/sweep";
import type { FrameTrace } from "@/core/trace";

const repeats = Number(process.env.REPEATS ?? 200);
const first = Number(process.env.SEED ?? 1_300_000);
const percent = (part: number, all: number) => (all === 0 ? "–" : `${((100 * part) / all).toFixed(1)} %`);
const each = (salt: number, action: (random: Random) => void) => {
  for (let k = 0; k < repeats; k++) action(seeded(first + salt).split(k));
};
const traceOf = (frameTimes: Float64Array): FrameTrace => ({
  form: "frames",
  frameTimes,
  channels: [],
  marks: [],
});
const yardstick = { nativeFps: 60, tied: false, targetFps: 60, refreshHz: 60 };
/** Work of a run's frames: AR(1) of spread `wobble`, now and then a long one. */
function work(random: Random, meanMs: number, seconds: number, wobble: number, tails = 0): Float64Array {
  const times: number[] = [];
  let state = random.normal();
  for (let ms = 0; ms < seconds * 1000; ms += times[times.length - 1] ?? 0) {
    state = 0.6 * state + 0.8 * random.normal();
    const long = random.uniform() < tails ? 1 + 1.2 * (1 - random.uniform()) ** (-1 / 2.5) : 1;
    times.push(meanMs * Math.exp(wobble * state) * long);
  }
  return Float64Array.from(times);
}

console.log("Resolution: five levels, two runs each, 2 % from run to run\n");
console.log(
  "| sweep | names a scale | of those, a fresh run holds it | not too low by more than a step |\n|---|---|---|---|",
);
const native = 320 * 240;
for (const [name, paced, tails, oneSloped] of [
  ["free-running", false, 0, false],
  ["free-running, heavy tails", false, 0.01, false],
  ["one sloped level only", false, 0, true],
  ["display-paced, loads not logged", true, 0, false],
] as const) {
  const counts = { named: 0, holds: 0, near: 0 };
  each(1, (random) => {
    const floor = oneSloped ? 12 : 5 + 4 * random.uniform();
    const perPixel = oneSloped ? 0 : 18 + 20 * random.uniform();
    const truth = (scale: number) =>
      oneSloped
        ? scale >= 5
          ? 12 + (4 + 8 * random.uniform())
          : 12
        : Math.max(floor, 2 + (perPixel * native * scale ** 2) / 1e6);
    const ladder = [1, 2, 3, 4, 5].map((scale) => ({ scale, ms: truth(scale) }));
    const run = (ms: number) => {
      const frames = work(random, ms * Math.exp(0.02 * random.normal()), 20, 0.06, tails);
      return summarise(traceOf(paced ? replay(frames, 60, 60, "one ahead") : frames), yardstick);
    };
    const levels = ladder.map(({ scale, ms }): ScaleLevel => {
      const runs = [run(ms), run(ms)];
      return {
        scale,
        pixels: native * scale ** 2,
        mediansMs: runs.map((made) => made.medianFrameTimeMs ?? NaN),
        p99sMs: runs.map((made) => made.p99FrameTimeMs ?? NaN),
        meansMs: runs.map(({ averageFps }) => 1000 / averageFps),
        paced: runs.some(isPaced),
      };
    });
    const law = fitScaleLaw(levels, { targetFps: 60, nativePixels: native, resamples: 200 });
    const largest = ladder.filter(({ ms }) => ms <= 1000 / 59.4).at(-1)?.scale ?? 0;
    if (law.largestScale === null) {
      if (largest <= 1) counts.near++;
      return;
    }
    counts.named++;
    const named = ladder.find(({ scale }) => scale === law.largestScale);
    const ms = named?.ms ?? (oneSloped ? Infinity : truth(law.largestScale));
    if (run(ms).averageFps >= 0.97 * 60) counts.holds++;
    if (law.largestScale >= largest - 1) counts.near++;
  });
  console.log(
    `| ${name} | ${counts.named} of ${repeats} | ${percent(counts.holds, counts.named)} | ${percent(counts.near, repeats)} |`,
  );
}

console.log("\nHeat: time constant 60 to 260 s, 0.3 °C of noise that lasts\n");
console.log(
  "| warming, run for so many time constants | interval holds | “never” said | wrongly |\n|---|---|---|---|",
);
for (const kind of ["one part", "a fast and a slow part", "a load that varies"] as const)
  for (const reach of [0.5, 1, 2, 4]) {
    const counts = { held: 0, never: 0, wrong: 0 };
    each(2, (random) => {
      const [start, rise, tau] = [
        32 + 10 * random.uniform(),
        20 + 35 * random.uniform(),
        60 + 200 * random.uniform(),
      ];
      const fastShare = kind === "a fast and a slow part" ? 0.3 + 0.3 * random.uniform() : 0;
      const fast = tau / (5 + 5 * random.uniform());
      const phase = 6 * random.uniform();
      const n = 120,
        step = (reach * tau) / n;
      const times: number[] = [],
        celsius: number[] = [],
        watts: number[] = [];
      let [quick, slow, noise] = [0, 0, 0];
      for (let i = 1; i <= n; i++) {
        const load = kind === "a load that varies" ? 1 + 0.5 * Math.sin((i * step) / (0.7 * tau) + phase) : 1;
        quick = quick * Math.exp(-step / fast) + load * (1 - Math.exp(-step / fast));
        slow = slow * Math.exp(-step / tau) + load * (1 - Math.exp(-step / tau));
        noise = 0.6 * noise + 0.24 * random.normal();
        times.push(1000 * i * step);
        celsius.push(start + rise * (fastShare * quick + (1 - fastShare) * slow) + noise);
        watts.push(15 * load * (1 + 0.01 * random.normal()));
      }
      const fit = fitHeat(times, celsius, {
        times: Float64Array.from(times),
        values: Float64Array.from(watts),
      });
      if (!fit) return;
      const truth = start + (rise * watts.reduce((sum, w) => sum + w, 0)) / n / 15;
      if (fit.settledInterval.low <= truth && truth <= fit.settledInterval.high) counts.held++;
      const limit = start + rise * (0.8 + 0.4 * random.uniform());
      if (limitOutlook(fit, limit, reach * tau).state === "never") {
        counts.never++;
        if (truth > limit) counts.wrong++;
      }
    });
    console.log(`| ${kind}, ${reach} | ${percent(counts.held, repeats)} | ${counts.never} | ${counts.wrong} |`);
  }

console.log("\nPower, memory, tally\n\n| case | share |\n|---|---|");
{
  const counts = { least: 0, slower: 0, spot: 0 };
  each(3, (random) => {
    const run = (fps: number) => fps * Math.exp(0.02 * random.normal());
    const level = (mode: string, watts: number, fps: number) => ({
      mode,
      nominalWatts: watts,
      runs: [0, 1].map(() => ({ fps: run(fps), low: null, watts })),
    });
    const equal = powerSweep(
      [10, 15, 20, 25].map((watts) => level(`${watts} W`, watts, 45)),
      60,
    );
    if (equal.sweetSpot === 0) counts.least++;
    if (equal.slowerWithMore.length > 0) counts.slower++;
    const peaked = powerSweep([level("a", 15, 35), level("b", 20, 42), level("c", 30, 25)], 60);
    if (peaked.sweetSpot === 1) counts.spot++;
  });
  console.log(`| four equal power modes: the least watts win | ${percent(counts.least, repeats)} |`);
  console.log(`| four equal power modes: “more was slower” said | ${percent(counts.slower, repeats)} |`);
  console.log(`| 35, 42, 25 fps at 15, 20, 30 W: 20 W named | ${percent(counts.spot, repeats)} |`);
}
for (const [name, slope, step, memory] of [
  ["flat memory, readings that follow one another (0.9)", 0, 0, 0.9],
  ["flat memory, 0.97", 0, 0, 0.97],
  ["memory that rises once and stays", 0, 400, 0.5],
  ["memory that grows by 30 MB a minute", 30, 0, 0.9],
] as const) {
  let grows = 0;
  each(4, (random) => {
    let state = random.normal();
    const n = 600,
      at = 100 + random.whole(400);
    const times = Array.from({ length: n }, (_, i) => 1000 * (i + 1));
    const values = times.map((ms, i) => {
      state = memory * state + Math.sqrt(1 - memory ** 2) * random.normal();
      return 3000 + (slope * ms) / 60_000 + (i >= at ? step : 0) + 20 * state;
    });
    if (memoryGrowth(times, values, 8000)?.grows) grows++;
  });
  console.log(`| ${name}: growth said | ${percent(grows, repeats)} |`);
}
for (const minutes of [3, 10, 25])
  for (const settling of [1, 3, 5]) {
    const counts = { grows: 0, early: 0 };
    each(6, (random) => {
      const times = Array.from({ length: 60 * minutes }, (_, i) => 1000 * (i + 1));
      const made = memoryGrowth(
        times,
        times.map((ms) => 2500 + 600 * (1 - Math.exp(-ms / 60_000 / settling)) + 5 * random.normal()),
        8000,
      );
      if (made?.grows) counts.grows++;
      if (made?.early) counts.early++;
    });
    console.log(
      `| a cache that fills, two thirds after ${settling} min, watched for ${minutes}: growth said | ${percent(counts.grows, repeats)} (too early to tell in ${percent(counts.early, repeats)}) |`,
    );
  }
for (const [name, n, memory, cap] of [
  ["10 readings far apart", 10, 0, 0],
  ["15 readings close together (0.6)", 15, 0.6, 0],
  ["30 readings close together (0.8)", 30, 0.8, 0],
  ["10 readings at a cap with dips", 10, 0, 60],
  ["20 readings at a cap with dips", 20, 0.4, 60],
] as const) {
  let held = 0;
  each(5, (random) => {
    let state = random.normal();
    const reading = () => {
      state = memory * state + Math.sqrt(1 - memory ** 2) * random.normal();
      return Math.round(cap > 0 ? (state > 1.2 ? cap * 0.75 : cap) : 48 + 5 * state);
    };
    const rates = Float64Array.from({ length: n }, reading);
    const { interval, atTarget } = tallyFigures({ rates, durations: rates.map(() => 5000) }, 60);
    // Dips that no look met are in no spread: what a tally at a cap claims is the share of looks at it.
    const [truth, claimed] = cap > 0 ? [1 - 0.1151, atTarget] : [48, interval];
    if (claimed && claimed.low <= truth && truth <= claimed.high) held++;
  });
  console.log(
    `| tally, ${name}: interval of ${cap > 0 ? "the share at target" : "the mean"} holds | ${percent(held, repeats)} |`,
  );
}

console.log("\nRate: 60 s free, then twenty fresh runs behind the recommended cap; hitches of 120 ms apart\n");
console.log(
  "| title, how its engine works, what is known of that | a cap recommended | fresh runs that hold it (99 % of windows) | refused, though one holds | a step lower than holds |\n|---|---|---|---|---|",
);
const caps = [60, 30, 20, 15];
/** Share of windows that hold a cap. */
function heldBehind(workMs: Float64Array, cap: number, working: "one ahead" | "strict") {
  const frames = replay(workMs, cap, 60, working);
  const rates = windowRates(frames, 1000);
  let [held, all] = [0, 0];
  frames.forEach((frame, i) => {
    const rate = rates[i] ?? NaN;
    if (Number.isNaN(rate)) return;
    all += frame;
    if (rate >= 0.99 * cap) held += frame;
  });
  return held / all;
}
const working = ["one ahead", "strict"] as const;
for (const [name, tails, wobble, hitchesAMinute] of [
  ["quiet", 0, 0.06, 0],
  ["quiet, two hitches a minute", 0, 0.06, 2],
  ["heavy tails", 0.004, 0.06, 0],
  ["wide wobble", 0, 0.15, 0],
] as const)
  for (const way of working)
    for (const isKnown of [true, false]) {
      const counts = { capped: 0, fresh: 0, held: 0, refused: 0, low: 0 };
      each(6, (random) => {
        const ms = 9 + 20 * random.uniform();
        const run = () => work(random, ms * Math.exp(0.02 * random.normal()), 60, wobble, tails);
        const hitched = run().map((frame) =>
          random.uniform() < (hitchesAMinute * frame) / 60_000 ? frame + 120 : frame,
        );
        const made = decideRate(traceOf(hitched), {
          nativeFps: 60,
          tied: false,
          refreshHz: 60,
          ...(isKnown && { working: way }),
        });
        const cap = made.candidates[made.recommended]?.capFps ?? null;
        const fresh = Array.from({ length: 20 }, run);
        const holds = (each: number) =>
          fresh.filter((frames) => heldBehind(frames, each, way) >= 0.99).length / fresh.length;
        const best = caps.find((each) => holds(each) >= 0.95);
        if (cap === null) {
          if (best !== undefined) counts.refused++;
          return;
        }
        counts.capped++;
        counts.fresh += fresh.length;
        counts.held += holds(cap) * fresh.length;
        if (best !== undefined && best > cap) counts.low++;
      });
      console.log(
        `| ${name}, ${way}, ${isKnown ? "known" : "not known"} | ${counts.capped} of ${repeats} | ${percent(counts.held, counts.fresh)} | ${percent(counts.refused, repeats)} | ${percent(counts.low, repeats)} |`,
      );
    }
