import { leastSquares, mean } from "@/core/stats";

/** A linear fit of runs: a level for every arm, and what the rig did meanwhile by itself. */
export interface RunsFit {
  /** Level of every arm. */
  levels: number[];
  /** Variance of the difference of two arms' levels, as a share of one run's. */
  unit: (a: number, b: number) => number;
  /** What is left over, and its degrees of freedom. */
  squares: number;
  freedom: number;
  /** Terms for drift: none, steady (1), steady and levelling off (2). */
  terms: number;
  /** What the drift comes to from the first run to the last; 0 without terms. */
  drift: number;
  /** Levels are known only up to this, however many runs: drift inside rounds of unknown order. */
  unknown: number;
}

/** Degrees of freedom that must be left for a second term of drift, and for a first. */
const forTwo = 4,
  forOne = 2;

/** Places spread evenly over −1 … 1. */
function centred(places: number[]): number[] {
  const low = Math.min(...places),
    high = Math.max(...places);
  return places.map((at) => (high > low ? (2 * (at - low)) / (high - low) - 1 : 0));
}

/**
 * Least squares of runs' values on their arm and, where the order is known, on their place in it (t and t²): a
 * rig that slows down or warms up and levels off is told from the arms.
 *
 * @param values of every run, an arm each; every arm at least one
 * @param places where every run stood in the order, in the same shape; null where that isn't known
 */
export function fitRuns(values: number[][], places: number[][] | null): RunsFit {
  const y = values.flat();
  const arms = values.flatMap((own, arm) => own.map(() => arm));
  const spare = y.length - values.length;
  const wanted = places === null ? 0 : spare >= forTwo ? 2 : spare >= forOne ? 1 : 0;
  const at = places === null ? [] : centred(places.flat());
  for (let terms = wanted; terms >= 0; terms--) {
    const made = leastSquares(
      y.map((_, i) => [
        ...values.map((_own, arm) => (arms[i] === arm ? 1 : 0)),
        ...Array.from({ length: terms }, (_none, power) => at[i] ** (power + 1)),
      ]),
      y,
    );
    if (!made) continue;
    const { coefficients, covariance, squares, freedom } = made;
    const bend = coefficients.slice(values.length);
    const driftAt = (place: number) =>
      bend.reduce((sum, coefficient, power) => sum + coefficient * place ** (power + 1), 0);
    return {
      levels: coefficients.slice(0, values.length),
      unit: (a, b) => covariance.get(a, a) + covariance.get(b, b) - 2 * covariance.get(a, b),
      squares,
      freedom,
      terms,
      drift: terms > 0 ? driftAt(1) - driftAt(-1) : 0,
      unknown: 0,
    };
  }
  throw new RangeError("every arm needs a run");
}

/**
 * Share of an arm's place in the order that a straight line through the order explains: 1 for A then B, 0 for A
 * B B A.
 */
export function mixedWithOrder(placesA: number[], placesB: number[]): number {
  const places = [...placesA, ...placesB];
  const n = places.length;
  const centre = mean(places);
  const squares = places.reduce((sum, at) => sum + (at - centre) ** 2, 0);
  if (squares === 0) return 0;
  const apart = mean(placesB) - mean(placesA);
  return (apart ** 2 * ((placesA.length * placesB.length) / n)) / squares;
}
