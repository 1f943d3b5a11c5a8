import {
  averageRate,
  defaultMeasuring,
  fullSpeedOfReadings,
  isHeld,
  type MeasuringRules,
} from "@/core/metrics";
import { mean, quantile, seeded, studentT, type Random } from "@/core/stats";
import jstat from "jstat";
import type { Trace } from "@/core/trace";
import { said, type Said } from "@/core/words";
import { decide, furtherRuns, type Decision, type Effect } from "./decide";
import { assumedNoise, reckonedSpread, type NoiseFloor } from "./noise";
import { RunCells, type RunFigures } from "./runCells";

export interface CompareOptions {
  targetFps: number;
  rules?: MeasuringRules;
  /** The k-th run of each side belongs to round k. */
  rounds?: boolean;
  /** Smallest difference worth having, %. */
  marginPercent?: number;
  noise?: NoiseFloor;
  seed?: number;
  resamples?: number;
  /** Told 0…1; a comparison is cancelled by throwing from it. */
  onProgress?: (share: number) => void;
}

export interface ArmFigures {
  runs: number;
  averageFps: number;
}

/** B over A. Ratios and differences with their 95 % intervals; null where a side's form can't say. */
export interface Comparison {
  arms: { a: ArmFigures; b: ArmFigures };
  averageFps: { ratio: number; low: number; high: number };
  worstTimeLow: { ratio: number; low: number; high: number } | null;
  fullSpeedTime: { difference: number; low: number; high: number } | null;
  hitchesPerMinute: { difference: number; low: number; high: number } | null;
  decision: Decision;
  moreRunsPerSide: number;
  /** Two-sided p of the log ratio, for correcting many looks. */
  p: number;
  notes: Said[];
}

/** One run: its figures, and further figures of it under resampling. */
interface Source {
  /** Nearly every frame is as long as the usual one: a cap or the display holds it. */
  held: boolean;
  figures: RunFigures;
  resampled: (random: Random) => RunFigures;
  form: Trace["form"];
}

/** Runs of a counter's readings resample reading by reading, in blocks of three: a dip fills several. */
function readingsSource(
  durations: Float64Array,
  rates: Float64Array,
  target: number,
  rules: MeasuringRules,
): Source {
  const block = 3;
  const made = (d: Float64Array, r: Float64Array): RunFigures => ({
    averageFps: averageRate(d, r),
    worstTimeLow: null,
    fullSpeedTime: 100 * (fullSpeedOfReadings(d, r, target, rules).share ?? 0),
    hitchesPerMinute: null,
  });
  return {
    form: "interval",
    held: false,
    figures: made(durations, rates),
    resampled: (random) => {
      const d = new Float64Array(rates.length),
        r = new Float64Array(rates.length);
      for (let i = 0, at = 0; i < rates.length; i++, at++) {
        if (i === 0 || random.uniform() < 1 / block) at = random.whole(rates.length);
        d[i] = durations[at % rates.length];
        r[i] = rates[at % rates.length];
      }
      return made(d, r);
    },
  };
}

function sourceOf(trace: Trace, target: number, rules: MeasuringRules): Source {
  if (trace.form === "interval") return readingsSource(trace.durations, trace.rates, target, rules);
  const cells = new RunCells(trace.frameTimes, target, rules);
  return {
    form: "frames",
    held: isHeld(trace, null),
    figures: cells.figures(),
    resampled: (random) => cells.resampled(random),
  };
}

/** What runs under one cap differ by: next to nothing. */
const heldNoise: NoiseFloor = { sd: 0.002, freedom: 10, betweenOnly: true };

type Figure = keyof RunFigures;
const figures: Figure[] = ["averageFps", "worstTimeLow", "fullSpeedTime", "hitchesPerMinute"];
const isRatio = (figure: Figure) => figure === "averageFps" || figure === "worstTimeLow";
/** Lows vary about twice as much from run to run as averages do (common practice). */
const floorFactor: Partial<Record<Figure, number>> = { averageFps: 1, worstTimeLow: 2 };

/** Within-run replicates of every figure of every run: [figure][run][resample], in logs where ratios are wanted. */
function replicates(
  sources: Source[],
  count: number,
  random: Random,
  tell: () => void,
): Record<Figure, Float64Array[]> {
  const made = Object.fromEntries(
    figures.map((figure) => [figure, sources.map(() => new Float64Array(count))]),
  ) as Record<Figure, Float64Array[]>;
  sources.forEach((source, run) => {
    for (let k = 0; k < count; k++) {
      const drawn = source.resampled(random);
      for (const figure of figures) made[figure][run][k] = scaled(figure, drawn[figure]);
    }
    tell();
  });
  return made;
}

const scaled = (figure: Figure, value: number | null) =>
  value === null ? NaN : isRatio(figure) ? Math.log(value) : value;

/** Values from which an interval's ends are read. */
const drawsWanted = 8000;

function squaresAbout(values: number[]): number {
  const centre = mean(values);
  return values.reduce((sum, value) => sum + (value - centre) ** 2, 0);
}

/**
 * Compares two arms of runs: B over A.
 *
 * Within a run, blocks are resampled (stationary bootstrap, automatic block length). Between runs the spread enters
 * as a Student t draw with the variance that the runs show, pooled with the rig's noise floor by degrees of freedom:
 * resampling three or four runs themselves understates it by (n − 1)/n and takes no account of its own uncertainty.
 * With rounds, the log ratio inside each round takes the place of the run.
 *
 * @throws RangeError for an arm without runs, or rounds of unequal length
 */
export function compare(
  a: Trace[],
  b: Trace[],
  {
    targetFps,
    rules = defaultMeasuring,
    rounds = false,
    marginPercent = 2,
    noise = assumedNoise,
    seed = 1,
    resamples = 2000,
    onProgress = () => {},
  }: CompareOptions,
): Comparison {
  if (a.length === 0 || b.length === 0) throw new RangeError("each side needs a run");
  if (rounds && a.length !== b.length)
    throw new RangeError("rounds need as many runs on one side as on the other");
  const random = seeded(seed);
  let done = 0;
  const tell = () => onProgress(++done / (a.length + b.length));
  const [sourcesA, sourcesB] = [a, b].map((arm) => arm.map((trace) => sourceOf(trace, targetFps, rules)));
  const within = {
    a: replicates(sourcesA, resamples, random.split(1), tell),
    b: replicates(sourcesB, resamples, random.split(2), tell),
  };
  const notes: Said[] = [];
  const between = random.split(3);
  const underCap = [...sourcesA, ...sourcesB].every(({ held }) => held);
  const floorNoise = underCap ? heldNoise : noise;

  const effectOf = (figure: Figure): (Effect & { variance: number; freedom: number; p: number }) | null => {
    const of = (sources: Source[]) => sources.map((source) => scaled(figure, source.figures[figure]));
    const valuesA = of(sourcesA),
      valuesB = of(sourcesB);
    if ([...valuesA, ...valuesB].some((value) => !Number.isFinite(value))) return null;
    const factor = floorFactor[figure];
    let estimate = mean(valuesB) - mean(valuesA);
    // What each run's own frames leave open is in the replicates already; only the rest is added.
    const withinVariance = mean(
      [...within.a[figure], ...within.b[figure]].map((values) => squaresAbout([...values]) / resamples),
    );
    let squares: number, freedom: number, unit: number, perRun: number;
    if (rounds) {
      const pairs = valuesA.map((value, k) => valuesB[k] - value);
      const fit = roundsFit(pairs);
      ({ estimate, squares, freedom } = fit);
      unit = 2;
      perRun = fit.weight;
    } else {
      squares = squaresAbout(valuesA) + squaresAbout(valuesB);
      freedom = valuesA.length + valuesB.length - 2;
      unit = 1;
      perRun = 1 / valuesA.length + 1 / valuesB.length;
    }
    const own = floorNoise.betweenOnly ? withinVariance : 0;
    const floor =
      factor === undefined
        ? null
        : { sd: Math.sqrt(unit * ((floorNoise.sd * factor) ** 2 + own)), freedom: floorNoise.freedom };
    const spread = floor
      ? reckonedSpread(squares, freedom, floor)
      : {
          variance: freedom > 0 ? squares / freedom : 0,
          freedom: Math.max(1, freedom),
          borrowed: freedom === 0,
        };
    const added = Math.max(0, spread.variance - unit * withinVariance) * perRun;
    // Several draws of the spread, each with its mirror image, for every resample: the ends of the interval rest on thousands of values.
    const pairs = Math.ceil(drawsWanted / resamples / 2);
    const deviations = new Float64Array(resamples * 2 * pairs);
    for (let k = 0; k < resamples; k++) {
      let drawn = 0;
      valuesA.forEach((value, run) => (drawn -= (within.a[figure][run][k] - value) / valuesA.length));
      valuesB.forEach((value, run) => (drawn += (within.b[figure][run][k] - value) / valuesB.length));
      for (let draw = 0; draw < pairs; draw++) {
        const t = Math.sqrt(added) * studentT(between, spread.freedom);
        deviations[2 * (k * pairs + draw)] = drawn + t;
        deviations[2 * (k * pairs + draw) + 1] = drawn - t;
      }
    }
    deviations.sort();
    // The basic interval would mirror the skew; percentiles about the estimate, centred on their median, keep it.
    const centre = quantile(deviations, 0.5);
    const low = estimate + quantile(deviations, 0.025) - centre,
      high = estimate + quantile(deviations, 0.975) - centre;
    const t = estimate / Math.sqrt(Math.max(1e-12, spread.variance * perRun));
    return {
      estimate,
      low,
      high,
      variance: spread.variance / unit,
      freedom: spread.freedom,
      p: 2 * (1 - jstat.studentt.cdf(Math.abs(t), spread.freedom)),
    };
  };

  // eslint-disable-next-line @typescript-eslint/no-non-null-assertion -- runs with an average are all that is compared
  const average = effectOf("averageFps")!;
  const ratio = ({ estimate, low, high }: Effect) => ({
    ratio: Math.exp(estimate),
    low: Math.exp(low),
    high: Math.exp(high),
  });
  const ratioOf = (effect: Effect | null) => effect && ratio(effect);
  const differenceOf = (effect: Effect | null) =>
    effect && { difference: effect.estimate, low: effect.low, high: effect.high };
  const margin = Math.log(1 + marginPercent / 100);
  const decision = decide(average, margin);
  const runs = Math.min(a.length, b.length);
  if (underCap) notes.push(said("compare.underCap"));
  else if (runs < 3) notes.push(said("compare.borrowedSpread", { sd: noise.sd }));
  if (rounds) {
    const alone = compareSpread(sourcesA, sourcesB);
    const paired = Math.sqrt(average.variance * 2);
    if (alone > 0) notes.push(said("compare.byRounds", { paired, alone }));
  }
  if ([...sourcesA, ...sourcesB].some(({ form }) => form === "interval")) notes.push(said("compare.readings"));
  const more =
    decision === "undecided"
      ? furtherRuns(average.estimate, margin, average.variance, runs, average.freedom)
      : 0;
  if (more === null) notes.push(said("compare.nearMargin"));
  const arm = (sources: Source[]): ArmFigures => ({
    runs: sources.length,
    averageFps: Math.exp(mean(sources.map(({ figures: own }) => Math.log(own.averageFps)))),
  });
  return {
    arms: { a: arm(sourcesA), b: arm(sourcesB) },
    averageFps: ratio(average),
    worstTimeLow: ratioOf(effectOf("worstTimeLow")),
    fullSpeedTime: differenceOf(effectOf("fullSpeedTime")),
    hitchesPerMinute: differenceOf(effectOf("hitchesPerMinute")),
    decision,
    moreRunsPerSide: more ?? 40,
    p: average.p,
    notes,
  };
}

/**
 * The mean log ratio of rounds run in turn (A B, B A, …), by least squares on a level and on who went first.
 *
 * A rig that slows down steadily makes whoever goes second look worse, by turns; that is told apart from spread.
 * @returns the level, the squares left with their degrees of freedom, and the level's variance as a share of one round's
 */
function roundsFit(pairs: number[]): { estimate: number; squares: number; freedom: number; weight: number } {
  const n = pairs.length;
  const level = mean(pairs);
  if (n < 3) return { estimate: level, squares: 0, freedom: 0, weight: 1 / n };
  const first = pairs.map((_, k) => (k % 2 === 0 ? 1 : -1));
  const firstMean = mean(first);
  const spread = first.reduce((sum, o) => sum + (o - firstMean) ** 2, 0);
  const slope = pairs.reduce((sum, pair, k) => sum + (first[k] - firstMean) * (pair - level), 0) / spread;
  const estimate = level - slope * firstMean;
  const squares = pairs.reduce((sum, pair, k) => sum + (pair - estimate - slope * first[k]) ** 2, 0);
  return { estimate, squares, freedom: n - 2, weight: 1 / n + firstMean ** 2 / spread };
}

/** Spread of a difference of two runs taken without regard to rounds, as SD of log fps. */
function compareSpread(a: Source[], b: Source[]): number {
  const freedom = a.length + b.length - 2;
  if (freedom <= 0) return 0;
  const logs = (sources: Source[]) => sources.map(({ figures: own }) => Math.log(own.averageFps));
  return Math.sqrt((2 * (squaresAbout(logs(a)) + squaresAbout(logs(b)))) / freedom);
}
