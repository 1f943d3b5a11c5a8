import { seeded, type Random } from "@/core/stats";
import type { Trace } from "@/core/trace";
import { compareArms } from "@/core/compare/arms";
import { enoughChance } from "@/core/compare";
import type { NoiseFloor } from "@/core/compare/shape";

/** What a made-up run looks like. */
export const runShapes = [
  "autocorrelated",
  "slow waves",
  "heavy tails",
  "display-paced",
  "stalls under a cap",
  "counter",
] as const;
export type RunShape = (typeof runShapes)[number];

/** A known truth to hold the comparison against. */
export interface Truth {
  repeats: number;
  shape: RunShape;
  /** True ratio of the work's rate, B over A. */
  ratio: number;
  /** Who runs when, by arm: "ABBA", "AABBCC". */
  order: string;
  /** Whether the order is told, or only that it falls into rounds, or nothing. */
  told: "order" | "rounds" | "nothing";
  /** SD of log fps from run to run. */
  spread: number;
  /**
   * Share by which the rig has slowed down by the last run, and after how many runs of that it levels off;
   * Infinity for steadily.
   */
  drift: number;
  levelsOff: number;
  /** What is known of the rig; null without repeats. */
  noise: NoiseFloor | null;
  /** Seconds of a run, of arm A and of the others. */
  seconds: [number, number];
  seed: number;
}

/** The figures whose intervals are held against the truth. */
export const heldFigures = ["averageFps", "worstTimeLow", "fullSpeedTime", "hitchesPerMinute"] as const;
export type HeldFigure = (typeof heldFigures)[number];

export interface Honesty {
  /** Share of intervals that hold the truth, of those that are given; null where none is. */
  covered: Record<HeldFigure, number | null>;
  /** Share of afternoons in which some pair is called different. */
  called: number;
  /** Share in which B is called better than A, and in which it is called no different. */
  better: number;
  noDifference: number;
  undecided: number;
}

const targetFps = 50;

/** One run of about `seconds`, its work `meanMs` a frame. */
function runOf(shape: RunShape, random: Random, meanMs: number, seconds: number): Trace {
  const frames = (times: number[]): Trace => ({
    form: "frames",
    frameTimes: Float64Array.from(times),
    channels: [],
    marks: [],
  });
  /** AR(1) of unit variance. */
  const waves = (memory: number) => {
    let state = random.normal();
    return () => (state = memory * state + Math.sqrt(1 - memory ** 2) * random.normal());
  };
  const until = (next: () => number) => {
    const times: number[] = [];
    for (let ms = 0; ms < seconds * 1000; ms += times[times.length - 1] ?? 0) times.push(next());
    return times;
  };
  switch (shape) {
    case "autocorrelated": {
      const wave = waves(0.6);
      return frames(until(() => meanMs * Math.exp(0.08 * wave() - 0.0032)));
    }
    case "slow waves": {
      const wave = waves(0.99);
      return frames(until(() => meanMs * Math.exp(0.12 * wave() - 0.0072)));
    }
    case "heavy tails": {
      const wave = waves(0.5);
      return frames(
        until(() =>
          random.uniform() < 0.01
            ? meanMs * (1.5 + 1.2 * (1 - random.uniform()) ** (-1 / 2.5))
            : meanMs * Math.exp(0.06 * wave()),
        ),
      );
    }
    case "display-paced": {
      // The work lies about one refresh of 60 Hz: a frame takes one or two.
      const wave = waves(0.8);
      return frames(until(() => (1000 / 60) * Math.ceil((meanMs / 20) * Math.exp(0.06 * wave()))));
    }
    case "stalls under a cap":
      return frames(
        until(() =>
          random.uniform() < 1 / 1500
            ? 150 - 400 * Math.log(1 - random.uniform())
            : 20 + 0.02 * random.normal(),
        ),
      );
    case "counter": {
      const wave = waves(0.95);
      const rates = Float64Array.from(
        { length: Math.round(seconds) },
        () => (1000 / meanMs) * (1 + 0.06 * wave()),
      );
      return {
        form: "interval",
        durations: new Float64Array(rates.length).fill(1000),
        rates,
        channels: [],
        marks: [],
      };
    }
  }
}

const letters = "ABCDEFGH";

/** An afternoon's runs by arm, with their places. */
function afternoonOf({ shape, ratio, order, spread, drift, levelsOff, seconds }: Truth, random: Random) {
  const arms: Trace[][] = [],
    places: number[][] = [];
  const last = order.length - 1;
  [...order].forEach((letter, place) => {
    const arm = letters.indexOf(letter);
    const slowed =
      1 +
      drift *
        (levelsOff === Infinity
          ? place / Math.max(1, last)
          : (1 - Math.exp(-place / levelsOff)) / (1 - Math.exp(-last / levelsOff)));
    const meanMs = ((20 * slowed) / (arm === 1 ? ratio : 1)) * Math.exp(spread * random.normal());
    (arms[arm] ??= []).push(runOf(shape, random, meanMs, seconds[arm === 0 ? 0 : 1]));
    (places[arm] ??= []).push(place);
  });
  return { arms, places };
}

/**
 * The true effect of every figure: difference of means over many runs, by the truth's own generator, without
 * drift. Ratios are geometric means, as they are compared.
 */
function truthOf(truth: Truth, seed: number): Record<HeldFigure, number> {
  if (truth.ratio === 1 && truth.seconds[0] === truth.seconds[1])
    return { averageFps: 1, worstTimeLow: 1, fullSpeedTime: 0, hitchesPerMinute: 0 };
  const { arms } = afternoonOf(
    { ...truth, order: "AB".repeat(300), drift: 0, levelsOff: Infinity },
    seeded(seed),
  );
  const [pair] = compareArms(arms, { targetFps, nativeFps: targetFps, resamples: 20 }).pairs;
  if (!pair) throw new RangeError("an afternoon has two arms");
  const { averageFps, worstTimeLow, fullSpeedTime, hitchesPerMinute } = pair.comparison;
  return {
    averageFps: averageFps.ratio,
    worstTimeLow: worstTimeLow?.ratio ?? NaN,
    fullSpeedTime: fullSpeedTime?.difference ?? NaN,
    hitchesPerMinute: hitchesPerMinute?.difference ?? NaN,
  };
}

/** How often the comparison is right, over seeded synthetic afternoons with a known truth. */
export function honesty(truth: Truth): Honesty {
  const { repeats, told, noise, seed } = truth;
  const expected = truthOf(truth, seed - 1);
  const held = Object.fromEntries(heldFigures.map((figure) => [figure, { held: 0, given: 0 }])) as Record<
    HeldFigure,
    { held: number; given: number }
  >;
  const counted = { called: 0, better: 0, noDifference: 0, undecided: 0 };
  for (let repeat = 0; repeat < repeats; repeat++) {
    const { arms, places } = afternoonOf(truth, seeded(seed + repeat));
    const { pairs } = compareArms(arms, {
      targetFps,
      nativeFps: targetFps,
      rounds: told === "rounds",
      places: told === "order" ? places : null,
      seed: seed + repeat,
      resamples: 60,
      ...(noise ? { noise } : {}),
    });
    const [first] = pairs;
    if (!first) throw new RangeError("an afternoon has two arms");
    for (const figure of heldFigures) {
      const found = first.comparison[figure];
      if (!found) continue;
      held[figure].given++;
      if (found.low <= expected[figure] && found.high >= expected[figure]) held[figure].held++;
    }
    if (pairs.some(({ decision }) => decision === "better" || decision === "worse")) counted.called++;
    if (first.decision === "better") counted.better++;
    if (first.decision === "no difference") counted.noDifference++;
    if (first.decision === "undecided") counted.undecided++;
  }
  const share = (n: number) => n / repeats;
  return {
    covered: Object.fromEntries(
      heldFigures.map((figure) => [
        figure,
        held[figure].given > 0 ? held[figure].held / held[figure].given : null,
      ]),
    ) as Record<HeldFigure, number | null>,
    called: share(counted.called),
    better: share(counted.better),
    noDifference: share(counted.noDifference),
    undecided: share(counted.undecided),
  };
}

/**
 * Undecided afternoons in which a number of further runs is named (or not), with the mean chance said and how
 * many those settle.
 */
export interface Settling {
  cases: number;
  said: number;
  settled: number;
}

/** How often a named number of further runs settles what was undecided; true differences spread by 3 %. */
export function settling(truth: Truth): { named: Settling; hardly: Settling } {
  const empty = (): Settling => ({ cases: 0, said: 0, settled: 0 });
  const counts = { named: empty(), hardly: empty() };
  const sides = truth.order.length / 2;
  for (let repeat = 0; repeat < truth.repeats; repeat++) {
    const ratio = truth.ratio * Math.exp(0.03 * seeded(truth.seed + repeat).normal());
    // The first runs are the same however many follow.
    const made = (turns: number) =>
      afternoonOf({ ...truth, ratio, order: "AB".repeat(sides + turns) }, seeded(truth.seed + repeat)).arms;
    const options = {
      targetFps,
      nativeFps: targetFps,
      resamples: 20,
      ...(truth.noise ? { noise: truth.noise } : {}),
    };
    const [now] = compareArms(made(0), options).pairs;
    if (now?.decision !== "undecided") continue;
    const { moreRunsPerSide, chanceSettled } = now.comparison;
    const [later] = compareArms(made(moreRunsPerSide), options).pairs;
    const count = chanceSettled >= enoughChance ? counts.named : counts.hardly;
    count.cases++;
    count.said += chanceSettled;
    if (later?.decision !== "undecided") count.settled++;
  }
  return counts;
}
