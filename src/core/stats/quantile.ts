/**
 * Quantile of sorted values: Hyndman & Fan (1996) type 7, the linear interpolation of order
 * statistics that most statistics libraries default to.
 *
 * @param sorted ascending, length N ≥ 1
 * @param p      0…1
 * @throws RangeError for no values or p outside 0…1
 * @example quantile(Float64Array.of(1, 2, 3, 4), 0.5) // → 2.5
 */
export function quantile(sorted: ArrayLike<number>, p: number): number {
  if (sorted.length === 0 || !(p >= 0 && p <= 1))
    throw new RangeError("a quantile needs values and a share between 0 and 1");
  const at = p * (sorted.length - 1);
  const below = Math.floor(at);
  const above = Math.min(below + 1, sorted.length - 1);
  return sorted[below] + (at - below) * (sorted[above] - sorted[below]);
}

/** Median (type 7) of values in any order; they stay as they are. */
export function medianOf(values: ArrayLike<number>): number {
  return quantile(Float64Array.from(values).sort(), 0.5);
}
