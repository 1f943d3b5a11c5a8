import { defaultMeasuring, type MeasuringRules } from "@/core/metrics";
import { mean } from "@/core/stats";
import type { Trace } from "@/core/trace";
import { contrastOf, fitRuns, type Contrast, type RunsFit } from "./fitRuns";
import { figureNames, measureRun, type FigureName, type MeasuredRun } from "./measuredRun";
import { assumedNoise } from "./noise";
import { placesByRounds } from "./places";
import type { NoiseFloor } from "./shape";
import { anySpreads, believedSpreads, withFrames } from "./spreads";

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
/** Runs of all arms, fitted for one figure. */
export interface FittedArms {
  fit: RunsFit;
  /** Whether the spread leans on what is believed of the rig more than on these runs. */
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

/** What is believed of lows is worth no more repeats. */
const lowFreedom = 4;

/** Degrees of freedom from which runs speak for themselves. */
const ownFreedom = 4;

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
  const orders = places ? [places] : rounds ? placesByRounds(values[0]?.length ?? 0) : [];
  if (figure === "averageFps" || figure === "worstTimeLow") {
    // A cap holds the average, not the worst frames.
    const floor = underCap && figure === "averageFps" ? heldNoise : noise;
    const stretched = { ...floor, sd: floor.sd * floorFactor[figure] };
    // How a low varies inside a run is hardly known from it: rare stalls make it.
    const prior =
      figure === "averageFps"
        ? withFrames(stretched, within, arms.flat().length)
        : { sd: Math.hypot(stretched.sd, Math.sqrt(within)), freedom: Math.min(lowFreedom, floor.freedom) };
    const fit = fitRuns(values, orders, believedSpreads(prior));
    return { fit, bounds, borrowed: fit.freedom < Math.max(ownFreedom, floor.freedom) };
  }
  // Nothing is known beforehand of how these vary: the runs tell, and no interval is narrower than one frame or
  // window makes it.
  const count = values.flat().length;
  if (count - values.length < 1) return null;
  const range = Math.max(...values.flat()) - Math.min(...values.flat());
  return { fit: fitRuns(values, orders, anySpreads(within, range)), bounds, borrowed: false };
}

/** How far off the effect of arm b over arm a may lie by what saw their runs. */
export const boundOf = ({ bounds }: FittedArms, a: number, b: number) => (bounds[a] ?? 0) + (bounds[b] ?? 0);

/** The effect of arm b over arm a. */
export const effectOf = (fitted: FittedArms, a: number, b: number): Contrast =>
  contrastOf(fitted.fit, a, b, boundOf(fitted, a, b));

/** Every figure of all arms, fitted. */
export const fitAll = (measured: MeasuredArms) =>
  Object.fromEntries(figureNames.map((figure) => [figure, fitFigure(measured, figure)])) as Record<
    FigureName,
    FittedArms | null
  >;
