import { leastSquares, type Interval } from "@/core/stats";

/** One part of a warming: a chip warms in a minute, what it sits in in many. */
export interface HeatPart {
  riseC: number;
  settleSeconds: number;
}

/** A warming of two parts, with all of its kind that fit about as well. */
export interface TwoParts {
  startC: number;
  parts: [HeatPart, HeatPart];
  squares: number;
  /** Where it may settle, by every pair of time constants that chance explains. */
  settled: Interval;
}

/** Time constants tried, as shares of the run: from a fortieth to four times. */
const ladder = Array.from({ length: 9 }, (_, k) => (1 / 40) * (40 * 4) ** (k / 8));
/** The slow part is at least so much slower. */
const apart = 2.4;
/** Watts that vary less than this share are taken for constant. */
const steadyWatts = 0.04;

/**
 * What a source of heat has brought at every reading, for a part with time constant τ: 1 − e^(−t/τ) under a constant load,
 * the load filtered by τ over its mean where watts were logged and vary.
 */
function broughtBy(tau: number, seconds: Float64Array, load: Float64Array | null): Float64Array {
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

/** Watts over their mean where they vary, so that a warming under a changing load is told from one that settles. */
export function loadOf(watts: Float64Array | null): Float64Array | null {
  if (!watts) return null;
  const mean = watts.reduce((sum, each) => sum + each, 0) / watts.length;
  const spread = Math.sqrt(watts.reduce((sum, each) => sum + (each - mean) ** 2, 0) / watts.length);
  return mean > 0 && spread > steadyWatts * mean ? watts.map((each) => each / mean) : null;
}

/**
 * Two time constants fitted to a warming, by least squares for every pair on a ladder; parts of opposite signs are left out.
 *
 * @param seconds ascending; @param celsius as long; @param load from `loadOf`, as long; null for a constant load
 * @param allowed squares up to which a pair is explained by chance, given the least; @param error of one reading, inflated for readings that follow one another, times t
 * @returns null where no pair fits
 */
export function fitTwoParts(
  seconds: Float64Array,
  celsius: Float64Array,
  load: Float64Array | null,
  allowed: (least: number) => number,
  error: (squares: number) => number,
): TwoParts | null {
  const span = seconds[seconds.length - 1];
  const columns = ladder.map((share) => broughtBy(share * span, seconds, load));
  const found: (Omit<TwoParts, "settled"> & { settledC: number; unit: number })[] = [];
  ladder.forEach((fast, i) =>
    ladder.forEach((slow, k) => {
      if (slow < apart * fast) return;
      const made = leastSquares(
        Array.from(seconds, (at, row) => [
          1,
          columns[i][row],
          columns[k][row],
          // What the device held already when it began leaves with the slow part.
          ...(load ? [1 - Math.exp(-at / (slow * span))] : []),
        ]),
        celsius,
        0,
      );
      if (!made) return;
      const { coefficients, covariance, squares } = made;
      const [startC, first, second, held = 0] = coefficients;
      if (first * (second + held) < 0) return;
      found.push({
        startC,
        parts: [
          { riseC: first, settleSeconds: fast * span },
          { riseC: second + held, settleSeconds: slow * span },
        ],
        squares,
        settledC: coefficients.reduce((sum, each) => sum + each, 0),
        // Settled, all parts are in: the variance of their sum.
        unit: Math.sqrt(Math.max(0, covariance.sum())),
      });
    }),
  );
  if (found.length === 0) return null;
  const best = found.reduce((a, b) => (b.squares < a.squares ? b : a));
  const explained = found.filter(({ squares }) => squares <= allowed(best.squares));
  // A single part may explain more than any pair of the ladder: then no pair widens anything.
  const half = error(best.squares);
  return {
    startC: best.startC,
    parts: best.parts,
    squares: best.squares,
    settled: {
      low: Math.min(...explained.map(({ settledC, unit }) => settledC - half * unit)),
      high: Math.max(...explained.map(({ settledC, unit }) => settledC + half * unit)),
    },
  };
}
