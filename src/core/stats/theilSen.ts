import { medianOf } from "./quantile";
import { normalQuantile } from "./intervals";

/** A robust line through points, with the interval of its slope. */
export interface TheilSen {
  slope: number;
  intercept: number;
  low: number;
  high: number;
}

/**
 * Theil–Sen line: the median of all pairwise slopes; its interval from Kendall's distribution (Sen 1968).
 * Up to 29.3 % of the points may be wild without moving it far.
 *
 * @param x length n ≥ 2, not all equal; ties in x give no slope
 * @param y length n
 * @param effective how many of the points count as independent; fewer widen the interval (Hamed & Rao 1998,
 *   from memory)
 * @throws RangeError for fewer than two distinct x
 * @example theilSen([1, 2, 3], [2, 4, 6]).slope // → 2
 */
export function theilSen(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  level = 0.95,
  effective = x.length,
): TheilSen {
  const n = x.length;
  const slopes: number[] = [];
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++) if (x[j] !== x[i]) slopes.push((y[j] - y[i]) / (x[j] - x[i]));
  if (slopes.length === 0) throw new RangeError("a line needs two distinct places");
  const sorted = Float64Array.from(slopes).sort();
  const slope = medianOf(sorted);
  const reach =
    normalQuantile(0.5 + level / 2) *
    Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18) *
    Math.sqrt(n / Math.min(n, effective));
  const at = (rank: number) => sorted[Math.min(sorted.length - 1, Math.max(0, rank))];
  return {
    slope,
    intercept: medianOf(y) - slope * medianOf(x),
    low: at(Math.round((sorted.length - reach) / 2) - 1),
    high: at(Math.round((sorted.length + reach) / 2)),
  };
}
