import { defaultMeasuring, type MeasuringRules } from "@/core/metrics";
import { mean, tQuantile, tTwoSided } from "@/core/stats";
import type { Trace } from "@/core/trace";
import { fitRuns, type RunsFit } from "./fitRuns";
import { figureNames, measureRun, type FigureName, type MeasuredRun } from "./measuredRun";
import { assumedNoise, pooledSpread } from "./noise";
import type { NoiseFloor } from "./shape";
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

/** What runs under one cap are believed to differ by: little, and no surer than one repeat would make it. */
const heldNoise: NoiseFloor = { sd: 0.005, freedom: 1, betweenOnly: true };
/** Lows vary about twice as much from run to run as averages do (common practice). */
const floorFactor = { averageFps: 1, worstTimeLow: 2 } as const;
/** An effect of one arm over another. */
interface Contrast {
  estimate: number;
  low: number;
  high: number;
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
  /** How far off every arm's level may lie by what saw its runs. */
  bounds: number[];
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

/**
 * The spread of one run before the runs at hand speak: the rig's, with what the frames leave open; freedom
 * after Satterthwaite (1946).
 */
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
  figure: FigureName,
): FittedArms | null {
  const values = arms.map((arm) => arm.map((run) => run.values[figure]));
  const isWhole = (list: (number | null)[][]): list is number[][] =>
    list.flat().every((value) => value !== null);
  if (!isWhole(values)) return null;
  const within = mean(arms.flat().map((run) => run.within[figure]));
  const bounds = arms.map((arm) => mean(arm.map((run) => run.bound[figure])));
  const byRounds = rounds && places === null;
  const fit = byRounds ? fitRounds(values) : fitRuns(values, places);
  if (figure === "averageFps" || figure === "worstTimeLow") {
    // A cap holds the average, not the worst frames.
    const floor = underCap && figure === "averageFps" ? heldNoise : noise;
    const between = (floor.sd * floorFactor[figure]) ** 2;
    const prior =
      figure === "averageFps"
        ? believed(between, within, floor, arms.flat().length)
        : { sd: Math.sqrt(between + within), freedom: floor.freedom };
    return { fit, bounds, ...pooledSpread(fit.squares, fit.freedom, prior) };
  }
  // Nothing is known beforehand of how these vary: the runs tell, and no interval is narrower than one frame or
  // window makes it.
  if (fit.freedom < 1) return null;
  const variance = Math.max(fit.squares / fit.freedom, within);
  return { fit, variance, freedom: fit.freedom, borrowed: false, bounds };
}

/** The effect of arm b over arm a. */
export function contrastOf({ fit, variance, freedom, bounds }: FittedArms, a: number, b: number): Contrast {
  const unknown = fit.unknown + (bounds[a] ?? 0) + (bounds[b] ?? 0);
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
    freedom,
    variance,
    unit,
    p: error > 0 ? tTwoSided(beyond / error, freedom) : beyond > 0 ? 0 : 1,
  };
}

/** Every figure of all arms, fitted. */
export const fitAll = (measured: MeasuredArms) =>
  Object.fromEntries(figureNames.map((figure) => [figure, fitFigure(measured, figure)])) as Record<
    FigureName,
    FittedArms | null
  >;
