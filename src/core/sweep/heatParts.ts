import type { HeatPart } from "./shape";
import { Matrix } from "ml-matrix";
import { mean, solveNormal, type Interval } from "@/core/stats";
import type { Channel } from "@/core/trace";

/** A warming of two parts, with all of its kind that fit about as well. */
export interface TwoParts {
  startC: number;
  parts: [HeatPart, HeatPart];
  squares: number;
  /** Where it may settle, by every pair of time constants that chance explains. */
  settled: Interval;
}

/**
 * Time constants tried, as shares of the run: from a fortieth to four times, close enough that no pair falls
 * between two of them.
 */
const rungs = 17;
const ladder = Array.from({ length: rungs }, (_, k) => (1 / 40) * (40 * 4) ** (k / (rungs - 1)));
/** The slow part is at least so much slower. */
const apart = 2.4;
/** Watts that vary less than this share are taken for constant. */
const steadyWatts = 0.04;

/**
 * What a source of heat has brought at every reading, for a part with time constant τ: 1 − e^(−t/τ) under a
 * constant load, the load filtered by τ over its mean where watts were logged and vary.
 */
export function broughtBy(tau: number, seconds: Float64Array, load: Float64Array | null): Float64Array {
  const made = new Float64Array(seconds.length);
  let held = 0;
  for (let i = 0; i < made.length; i++) {
    const step = i === 0 ? seconds[0] : seconds[i] - seconds[i - 1];
    const left = Math.exp(-step / tau);
    held = held * left + (load ? load[i] : 1) * (1 - left);
    made[i] = held;
  }
  return made;
}

/**
 * Mean watts from each instant to the next, straight between readings; those before the first reading are the
 * first.
 */
function meansBetween(
  { times, values }: Pick<Channel, "times" | "values">,
  instants: Float64Array,
): Float64Array {
  let from = 0,
    next = 0;
  const at = (ms: number) => {
    const [before, after] = [Math.max(0, next - 1), Math.min(next, times.length - 1)];
    const wide = times[after] - times[before];
    const share = wide > 0 ? Math.max(0, Math.min(1, (ms - times[before]) / wide)) : 0;
    return values[before] + share * (values[after] - values[before]);
  };
  return instants.map((to) => {
    let sum = 0,
      start = from;
    for (; next < times.length && times[next] < to; next++) {
      if (times[next] <= start) continue;
      sum += ((at(start) + values[next]) / 2) * (times[next] - start);
      start = times[next];
    }
    sum += ((at(start) + at(to)) / 2) * (to - start);
    const mean = to > from ? sum / (to - from) : at(to);
    from = to;
    return mean;
  });
}

/**
 * The load between readings over the whole run's mean, so that a warming under a changing load is told from one
 * that settles.
 * @param watts as logged
 * @param instants of the readings, ms; @param endMs end of the run
 * @returns means over the spans that end at every instant; null where the load hardly varies
 */
export function loadOf(
  watts: Pick<Channel, "times" | "values">,
  instants: Float64Array,
  endMs: number,
): Float64Array | null {
  const means = meansBetween(watts, instants);
  const [whole] = meansBetween(watts, Float64Array.of(endMs));
  const widths = instants.map((at, i) => at - (i === 0 ? 0 : instants[i - 1]));
  const squares = means.reduce((sum, each, i) => sum + widths[i] * (each - whole) ** 2, 0);
  const spread = Math.sqrt(squares / instants[instants.length - 1]);
  return whole > 0 && spread > steadyWatts * whole ? means.map((each) => each / whole) : null;
}

/**
 * Two time constants fitted to a warming, by least squares for every pair on a ladder; parts of opposite signs
 * are left out.
 *
 * @param seconds ascending; @param celsius as long; @param load from `loadOf`, as long; null for a constant
 *   load
 * @param allowed squares up to which a pair is explained by chance, given the least
 * @returns null where no pair fits
 */
export function fitTwoParts(
  seconds: Float64Array,
  celsius: Float64Array,
  load: Float64Array | null,
  allowed: (least: number) => number,
): TwoParts | null {
  const span = seconds[seconds.length - 1];
  const centre = mean(celsius);
  // One of all; what a part brings, and what was held already and leaves with it, by rung; what was read.
  const columns = new Matrix([
    new Float64Array(seconds.length).fill(1),
    ...ladder.map((share) => broughtBy(share * span, seconds, load)),
    ...ladder.map((share) => seconds.map((at) => 1 - Math.exp(-at / (share * span)))),
    celsius.map((value) => value - centre),
  ]);
  const products = columns.mmul(columns.transpose());
  const read = columns.rows - 1;
  const found: (Omit<TwoParts, "settled"> & { settledC: number; unit: number })[] = [];
  ladder.forEach((fast, i) =>
    ladder.forEach((slow, k) => {
      if (slow < apart * fast) return;
      // Under a constant load what was held can't be told from what is brought, and needs no column.
      const own = [0, 1 + i, 1 + k, ...(load ? [1 + rungs + k] : [])];
      const moments = products.selection(own, [read]);
      const solved = solveNormal(products.selection(own, own), moments);
      if (!solved) return;
      const { covariance } = solved;
      const coefficients = solved.coefficients.to1DArray();
      const squares = Math.max(
        0,
        products.get(read, read) - coefficients.reduce((sum, each, at) => sum + each * moments.get(at, 0), 0),
      );
      const [start = 0, first = 0, second = 0, held = 0] = coefficients;
      if (first * (second + held) < 0) return;
      found.push({
        startC: centre + start,
        parts: [
          { riseC: first, settleSeconds: fast * span },
          { riseC: second + held, settleSeconds: slow * span },
        ],
        squares,
        settledC: coefficients.reduce((sum, each) => sum + each, centre),
        // Settled, all parts are in: the variance of their sum.
        unit: Math.sqrt(Math.max(0, covariance.sum())),
      });
    }),
  );
  if (found.length === 0) return null;
  const best = found.reduce((a, b) => (b.squares < a.squares ? b : a));
  const most = allowed(best.squares);
  // What a pair leaves of the squares that chance explains, its parts may still move by.
  const ends = found
    .filter(({ squares }) => squares <= most)
    .map(({ settledC, unit, squares }) => ({ settledC, half: unit * Math.sqrt(most - squares) }));
  return {
    startC: best.startC,
    parts: best.parts,
    squares: best.squares,
    settled: {
      low: Math.min(...ends.map(({ settledC, half }) => settledC - half)),
      high: Math.max(...ends.map(({ settledC, half }) => settledC + half)),
    },
  };
}
