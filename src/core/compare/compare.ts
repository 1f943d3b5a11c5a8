import { type MeasuringRules, defaultMeasuring } from "@/core/metrics";
import { mean, tQuantile, tTwoSided } from "@/core/stats";
import type { Trace } from "@/core/trace";
import { said, type Said } from "@/core/words";
import { decide, furtherRuns, type Decision } from "./decide";
import { fitRuns, mixedWithOrder, type RunsFit } from "./fitRuns";
import { figureNames, measureRun, type Figure, type MeasuredRun } from "./measuredRun";
import { assumedNoise, pooledSpread, type NoiseFloor } from "./noise";
import { fitRounds } from "./rounds";

export interface CompareOptions {
  targetFps: number;
  rules?: MeasuringRules;
  /** The k-th run of each side belongs to round k; for runs whose places in the order aren't known. */
  rounds?: boolean;
  /** Smallest difference worth having, %. */
  marginPercent?: number;
  noise?: NoiseFloor;
  seed?: number;
  /** Of every run, for what its own frames leave open. */
  resamples?: number;
  /** Told 0…1; a comparison is cancelled by throwing from it. */
  onProgress?: (share: number) => void;
}

export interface ArmFigures {
  runs: number;
  averageFps: number;
}

/** B over A. Ratios and differences with their 95 % intervals; null where a side's form, or one run a side, can't say. */
export interface Comparison {
  arms: { a: ArmFigures; b: ArmFigures };
  averageFps: { ratio: number; low: number; high: number };
  worstTimeLow: { ratio: number; low: number; high: number } | null;
  fullSpeedTime: { difference: number; low: number; high: number } | null;
  hitchesPerMinute: { difference: number; low: number; high: number } | null;
  decision: Decision;
  /** Why it can't be called, whatever its interval; null where it can. */
  barred: Said | null;
  /** Further runs a side that should settle it; 0 where it is settled. */
  moreRunsPerSide: number;
  /** Chance that so many settle it, 0…1; 1 where it is settled. */
  chanceSettled: number;
  /** Two-sided p of the log ratio, for correcting many looks. */
  p: number;
  notes: Said[];
}

/** What runs under one cap are believed to differ by: little, and no surer than one repeat would make it. */
const heldNoise: NoiseFloor = { sd: 0.005, freedom: 1, betweenOnly: true };
/** Lows vary about twice as much from run to run as averages do (common practice). */
const floorFactor = { averageFps: 1, worstTimeLow: 2 } as const;
/** No device drifts, and no single pair of runs differs by chance, by so much. */
const huge = Math.log(1.5);
/** Share of an arm's place that the order explains from which order and change can't be told apart. */
const mixedFrom = 0.5;
/** Repeats from which a floor carries one run a side. */
const measuredFreedom = 6;

/** An effect of one arm over another. */
interface Contrast {
  estimate: number;
  low: number;
  high: number;
  /** Of the estimate. */
  error: number;
  freedom: number;
  /** Variance of one run, and what a difference takes of it. */
  variance: number;
  unit: number;
  p: number;
}

/** Runs of all arms, fitted for one figure. */
export interface FittedArms {
  fit: RunsFit;
  variance: number;
  freedom: number;
  borrowed: boolean;
  /** Known only up to this, however many runs: drift inside rounds of unknown order. */
  unknown: number;
}

/** All runs of a comparison, measured, with what is known of their order. */
export interface MeasuredArms {
  arms: MeasuredRun[][];
  places: number[][] | null;
  rounds: boolean;
  noise: NoiseFloor;
  underCap: boolean;
}

/**
 * Measures all runs once.
 * @param places where every run stood in the order, in the shape of `arms`; null where that isn't known
 */
export function measureArms(
  arms: Trace[][],
  places: number[][] | null,
  {
    targetFps,
    rules = defaultMeasuring,
    rounds = false,
    noise = assumedNoise,
    seed = 1,
    resamples,
    onProgress = () => {},
  }: CompareOptions,
): MeasuredArms {
  const count = arms.flat().length;
  let done = 0;
  const measured = arms.map((arm) =>
    arm.map((trace) => {
      const run = measureRun(trace, targetFps, rules, resamples, seed + done);
      onProgress(++done / count);
      return run;
    }),
  );
  const underCap = measured.flat().every(({ held }) => held);
  return { arms: measured, places, rounds, noise, underCap };
}

/** What a run's own frames say of its spread is worth so many repeats, for every run. */
const withinFreedom = 2;

/** The spread of one run before the runs at hand speak: the rig's, with what the frames leave open; freedom after Satterthwaite (1946). */
function believed(between: number, within: number, { freedom, betweenOnly }: NoiseFloor, runs: number) {
  const ofFrames = withinFreedom * runs;
  if (betweenOnly)
    return {
      sd: Math.sqrt(between + within),
      freedom: (between + within) ** 2 / (between ** 2 / freedom + within ** 2 / ofFrames),
    };
  return within > between
    ? { sd: Math.sqrt(within), freedom: Math.min(freedom, ofFrames) }
    : { sd: Math.sqrt(between), freedom };
}

/** Fits one figure of all arms; null where a run's form can't say, or nothing tells how runs vary. */
export function fitFigure(
  { arms, places, rounds, noise, underCap }: MeasuredArms,
  figure: Figure,
): FittedArms | null {
  const values = arms.map((arm) => arm.map((run) => run.values[figure]));
  const isWhole = (list: (number | null)[][]): list is number[][] =>
    list.flat().every((value) => value !== null);
  if (!isWhole(values)) return null;
  const within = mean(arms.flat().map((run) => run.within[figure]));
  const byRounds = rounds && places === null;
  const fit = byRounds ? fitRounds(values) : fitRuns(values, places);
  const unknown = byRounds ? fitRounds(values).unknown : 0;
  if (figure === "averageFps" || figure === "worstTimeLow") {
    // A cap holds the average, not the worst frames.
    const floor = underCap && figure === "averageFps" ? heldNoise : noise;
    const between = (floor.sd * floorFactor[figure]) ** 2;
    const prior =
      figure === "averageFps"
        ? believed(between, within, floor, arms.flat().length)
        : { sd: Math.sqrt(between + within), freedom: floor.freedom };
    return { fit, unknown, ...pooledSpread(fit.squares, fit.freedom, prior) };
  }
  // Nothing is known beforehand of how these vary: the runs tell, and no interval is narrower than one frame or window makes it.
  if (fit.freedom < 1) return null;
  const variance = Math.max(fit.squares / fit.freedom, within);
  return { fit, unknown, variance, freedom: fit.freedom, borrowed: false };
}

/** The effect of arm b over arm a. */
export function contrastOf({ fit, variance, freedom, unknown }: FittedArms, a: number, b: number): Contrast {
  const [levelA = NaN, levelB = NaN] = [fit.levels[a], fit.levels[b]];
  const estimate = levelB - levelA;
  const unit = fit.unit(a, b);
  const error = Math.sqrt(variance * unit);
  const half = tQuantile(0.975, freedom) * error + unknown;
  const beyond = Math.max(0, Math.abs(estimate) - unknown);
  return {
    estimate,
    low: estimate - half,
    high: estimate + half,
    error,
    freedom,
    variance,
    unit,
    p: error > 0 ? tTwoSided(beyond / error, freedom) : beyond > 0 ? 0 : 1,
  };
}

/** Why a difference can't be called, whatever its interval: one run a side, or an order that can't be told from the change. */
function whyNot({ arms, places, noise, underCap }: MeasuredArms, a: number, b: number): Said | null {
  const [runsA, runsB] = [arms[a]?.length ?? 0, arms[b]?.length ?? 0];
  if (runsA === 1 && runsB === 1)
    return noise.freedom < measuredFreedom || underCap ? said("compare.oneRun") : null;
  if (places === null) return null;
  const mixed = mixedWithOrder(places[a] ?? [], places[b] ?? []);
  return mixed > mixedFrom ? said("compare.orderMixed") : null;
}

/** What can't be: a share of time lies in 0…100, and neither side loses more hitches than it has. */
function possible(figure: Figure, levels: [a: number, b: number], half: number) {
  const most = figure === "fullSpeedTime" ? 100 : Infinity;
  const top = (level: number) => Math.min(most, Math.max(0, level) + half);
  return { low: -top(levels[0]), high: top(levels[1]) };
}

/** One pair of measured arms, compared: b over a. */
export function comparePair(
  measured: MeasuredArms,
  fitted: Record<Figure, FittedArms | null>,
  a: number,
  b: number,
  { marginPercent = 2, seed = 1 }: Pick<CompareOptions, "marginPercent" | "seed">,
): Comparison {
  const { arms, places, noise, underCap } = measured;
  if (!fitted.averageFps) throw new RangeError("runs have an average");
  const average = contrastOf(fitted.averageFps, a, b);
  const ratioOf = (fit: FittedArms | null) => {
    if (!fit) return null;
    const { estimate, low, high } = contrastOf(fit, a, b);
    return { ratio: Math.exp(estimate), low: Math.exp(low), high: Math.exp(high) };
  };
  const differenceOf = (figure: "fullSpeedTime" | "hitchesPerMinute") => {
    const fit = fitted[figure];
    if (!fit) return null;
    const { estimate, low, high } = contrastOf(fit, a, b);
    const levelOf = (arm: number) => mean((arms[arm] ?? []).map((run) => run.values[figure] ?? 0));
    const bounds = possible(figure, [levelOf(a), levelOf(b)], (high - low) / 2);
    return { difference: estimate, low: Math.max(low, bounds.low), high: Math.min(high, bounds.high) };
  };
  const margin = Math.log(1 + marginPercent / 100);
  const found = decide(average, margin);
  const barred = Math.abs(average.estimate) < huge ? whyNot(measured, a, b) : null;
  const decision = barred ? "undecided" : found;
  const [runsA, runsB] = [arms[a]?.length ?? 0, arms[b]?.length ?? 0];
  const further =
    decision === "undecided"
      ? furtherRuns({ ...average, margin, least: barred ? 2 - Math.min(2, runsA, runsB) + 1 : 1, seed })
      : { more: 0, chance: 1 };
  const whole = { averageFps: ratioOf(fitted.averageFps) };
  const fullSpeedTime = differenceOf("fullSpeedTime");
  const notes: Said[] = [];
  if (barred) notes.push(barred);
  if (underCap) notes.push(said("compare.underCap"));
  else if (fitted.averageFps.borrowed)
    notes.push(
      noise.freedom < measuredFreedom
        ? said("compare.assumedSpread", { sd: noise.sd })
        : said("compare.borrowedSpread", { sd: noise.sd }),
    );
  if (fitted.averageFps.fit.terms > 0) {
    const alone = fitRuns(
      arms.map((arm) => arm.map((run) => run.values.averageFps ?? 0)),
      null,
    );
    notes.push(
      said("compare.byOrder", {
        drift: fitted.averageFps.fit.drift,
        spread: Math.sqrt(fitted.averageFps.fit.squares / Math.max(1, fitted.averageFps.fit.freedom)),
        alone: Math.sqrt(alone.squares / Math.max(1, alone.freedom)),
      }),
    );
  } else if (measured.rounds && places === null && runsA > 1)
    notes.push(said("compare.byRounds", { unknown: fitted.averageFps.unknown }));
  if (arms.flat().some(({ form }) => form === "interval")) notes.push(said("compare.readings"));
  else if (fullSpeedTime === null) notes.push(said("compare.noSpread"));
  const armOf = (arm: number): ArmFigures => {
    const own = arms[arm] ?? [];
    return { runs: own.length, averageFps: Math.exp(mean(own.map((run) => run.values.averageFps ?? NaN))) };
  };
  return {
    arms: { a: armOf(a), b: armOf(b) },
    averageFps: whole.averageFps ?? { ratio: NaN, low: NaN, high: NaN },
    worstTimeLow: ratioOf(fitted.worstTimeLow),
    fullSpeedTime,
    hitchesPerMinute: differenceOf("hitchesPerMinute"),
    decision,
    barred,
    moreRunsPerSide: further.more,
    chanceSettled: further.chance,
    p: barred ? 1 : average.p,
    notes,
  };
}

/** Every figure of all arms, fitted. */
export const fitAll = (measured: MeasuredArms) =>
  Object.fromEntries(figureNames.map((figure) => [figure, fitFigure(measured, figure)])) as Record<
    Figure,
    FittedArms | null
  >;

/**
 * Compares two arms of runs: B over A.
 *
 * The run is the unit. Values of runs are fitted by arm and, where their order is known, by steady and levelling-off drift;
 * what is left over, pooled with what is believed of the rig, is the spread, and Student's t with the freedom of both gives the interval.
 *
 * @param places where every run stood in the order, of each side; null where that isn't known
 * @throws RangeError for an arm without runs, or rounds of unequal length
 */
export function compare(
  a: Trace[],
  b: Trace[],
  options: CompareOptions & { places?: { a: number[]; b: number[] } | null },
): Comparison {
  if (a.length === 0 || b.length === 0) throw new RangeError("each side needs a run");
  if (options.rounds && a.length !== b.length)
    throw new RangeError("rounds need as many runs on one side as on the other");
  const { places } = options;
  const measured = measureArms([a, b], places ? [places.a, places.b] : null, options);
  return comparePair(measured, fitAll(measured), 0, 1, options);
}
