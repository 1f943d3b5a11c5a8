import {
  averageRate,
  blockRates,
  defaultMeasuring,
  fullSpeedOfReadings,
  isHeld,
  looksOf,
  unitOf,
  type MeasuringRules,
} from "@/core/metrics";
import { lag1, mean, seeded, varianceOf, type Random } from "@/core/stats";
import { durationOf, type Floats, type IntervalTrace, type Trace } from "@/core/trace";
import { RunCells, type RunFigures } from "./runCells";

export type FigureName = keyof RunFigures;
export const figureNames: FigureName[] = ["averageFps", "worstTimeLow", "fullSpeedTime", "hitchesPerMinute"];

/** One run as it is compared: its figures, and what its own frames leave open of them. */
export interface MeasuredRun {
  form: Trace["form"];
  /** Nearly every frame is as long as the usual one: a cap or the display holds it. */
  held: boolean;
  /** Every figure as it is compared, rates and lows in logs; null where the form can't say. */
  values: Record<FigureName, number | null>;
  /** Variance of every such value that the run's own frames leave open. */
  within: Record<FigureName, number>;
  /** How far off every such value may lie by what saw it, whatever is repeated; 0 for a log. */
  bound: Record<FigureName, number>;
  /** It may have been faster than what saw it. */
  ceiling: boolean;
}

interface Resampled {
  figures: RunFigures;
  resampled: (random: Random) => RunFigures;
}

/** Readings of a counter resample reading by reading, in blocks: a dip fills several. */
function readings(
  durations: Float64Array,
  rates: Float64Array,
  target: number,
  rules: MeasuringRules,
): Resampled {
  const follow = Math.max(0, Math.min(0.98, lag1(rates) ?? 0));
  // Blocks as long as readings stay alike: the decay of an AR(1) series to a tenth.
  const block = Math.max(3, Math.min(rates.length / 3, Math.log(0.1) / Math.log(Math.max(1e-6, follow))));
  const made = (d: Float64Array, r: Float64Array): RunFigures => ({
    averageFps: averageRate(d, r),
    worstTimeLow: null,
    fullSpeedTime: 100 * (fullSpeedOfReadings(d, r, target, rules).share ?? 0),
    hitchesPerMinute: null,
  });
  return {
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

function cellsOf(frameTimes: Floats, target: number, rules: MeasuringRules): Resampled {
  const cells = new RunCells(frameTimes, target, rules);
  return { figures: cells.figures(), resampled: (random) => cells.resampled(random) };
}

const isRatio = (figure: FigureName) => figure === "averageFps" || figure === "worstTimeLow";

/** A figure as it is compared: ratios in logs. */
const compared = (figure: FigureName, value: number | null) =>
  value === null ? null : isRatio(figure) ? Math.log(value) : value;

/**
 * Least variance of a share of time, in points²: one window more or less. And of hitches a minute: one hitch
 * more or less.
 */
function leastVariance(figure: FigureName, minutes: number, windowMs: number): number {
  if (figure === "fullSpeedTime") return (100 * Math.min(1, windowMs / 60_000 / minutes)) ** 2 / 4;
  return figure === "hitchesPerMinute" ? 1 / minutes ** 2 : 0;
}

const noBound: MeasuredRun["bound"] = {
  averageFps: 0,
  worstTimeLow: 0,
  fullSpeedTime: 0,
  hitchesPerMinute: 0,
};

/**
 * What a video leaves open of a run: of its average what unsure and lost pictures could come to, of a low one
 * captured picture's time, and no low finer than two of them.
 */
function bySight(
  trace: Trace,
  values: MeasuredRun["values"],
): Pick<MeasuredRun, "values" | "bound" | "ceiling"> {
  const seen = trace.form === "frames" ? trace.seenBy : undefined;
  if (!seen) return { values, bound: noBound, ceiling: false };
  const [low, high] = seen.averageFpsInterval;
  const average = values.averageFps ?? 0;
  const averageFps =
    low > 0 && high > 0 ? Math.max(0, Math.log(high) - average, average - Math.log(low)) : Infinity;
  const worst = values.worstTimeLow === null ? null : 1 / Math.exp(values.worstTimeLow);
  const picture = 1 / seen.captureFps;
  const isFine = worst === null || worst < 1.999 * picture;
  return {
    values: { ...values, worstTimeLow: isFine ? null : values.worstTimeLow },
    bound: { ...noBound, averageFps, worstTimeLow: isFine ? 0 : -Math.log(1 - picture / worst) },
    ceiling: seen.ceiling,
  };
}

/** Fewest seconds from which slow wandering is read. */
const fewestSeconds = 8;

/**
 * Variance of the log average of a run whose seconds wander like an AR(1) series. Its lag-1 is brought back
 * from its bias (Marriott & Pope 1954, Kendall 1954: about −(1 + 3φ)/n), its variance from the loss of the
 * mean.
 * @returns 0 for runs too short to tell
 */
function slowVariance(trace: Trace): number {
  const seconds = trace.form === "interval" ? trace.rates : blockRates(trace.frameTimes, 1000);
  const n = seconds.length;
  const raw = n < fewestSeconds ? null : lag1(seconds);
  if (raw === null) return 0;
  const phi = Math.max(0, Math.min(0.97, raw + (1 + 3 * raw) / n));
  let sum = 1;
  for (let lag = 1, power = phi; lag < n && power > 1e-4; lag++, power *= phi) sum += 2 * (1 - lag / n) * power;
  const share = Math.min(0.8, sum / n);
  return ((share / (1 - share)) * varianceOf(seconds)) / mean(seconds) ** 2;
}

/** Readings under which what they leave open leans on how readings usually vary. */
const fewReadings = 8;
/** How readings of one scene vary from one second to another, worth so many of them; ours. */
const usualReadings = { sd: 0.025, freedom: 2 };

/**
 * Variance of the log average of a handful of readings: their own spread pooled with the usual one, and what a whole
 * number hides. One look shows no spread, which doesn't mean that it has none.
 */
function ofFewReadings({ durations, rates }: IntervalTrace): number {
  const looks = looksOf(durations, rates);
  const n = looks.length;
  const own = n > 1 ? ((n - 1) * varianceOf(looks)) / mean(looks) ** 2 : 0;
  const { sd, freedom } = usualReadings;
  const spread = (own + freedom * sd ** 2) / (n - 1 + freedom);
  return (spread + unitOf(rates) ** 2 / 12 / mean(looks) ** 2) / n;
}

/**
 * A run's figures with what its own frames leave open of them, by the stationary bootstrap (Politis & Romano
 * 1994).
 * @param resamples of the run; a hundred tell a variance to a seventh
 */
export function measureRun(
  trace: Trace,
  target: number,
  rules: MeasuringRules = defaultMeasuring,
  resamples = 120,
  seed = 1,
): MeasuredRun {
  const source =
    trace.form === "interval"
      ? readings(trace.durations, trace.rates, target, rules)
      : cellsOf(trace.frameTimes, target, rules);
  const random = seeded(seed);
  const drawn = Array.from({ length: resamples }, () => source.resampled(random));
  const minutes = durationOf(trace) / 60_000;
  const slow = slowVariance(trace);
  const values = {} as MeasuredRun["values"],
    within = {} as MeasuredRun["within"];
  for (const figure of figureNames) {
    values[figure] = compared(figure, source.figures[figure]);
    const all = drawn.map((each) => compared(figure, each[figure])).filter((value) => value !== null);
    within[figure] = all.length > 1 ? varianceOf(all) : 0;
  }
  if (trace.form === "interval" && trace.rates.length < fewReadings && mean(trace.rates) > 0)
    within.averageFps = Math.max(within.averageFps, ofFewReadings(trace));
  // Blocks of a run that wanders slowly are too short for it: what they leave out of the average they leave out
  // of the rest.
  const left = within.averageFps > 0 ? Math.max(1, slow / within.averageFps) : 1;
  for (const figure of figureNames)
    within[figure] = Math.max(leastVariance(figure, minutes, rules.windowMs), within[figure] * left);
  return { form: trace.form, held: isHeld(trace, null), within, ...bySight(trace, values) };
}
