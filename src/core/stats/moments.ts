/** Arithmetic mean, summed about the first value so that large offsets lose no digits. Length N ≥ 1. */
export function mean(values: ArrayLike<number>): number {
  const base = values[0];
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i] - base;
  return base + sum / values.length;
}

/**
 * Sample standard deviation (divisor N − 1), two passes with the rounding correction of Chan, Golub & LeVeque
 * (1983).
 */
export function standardDeviation(values: ArrayLike<number>): number {
  const centre = mean(values);
  let squares = 0,
    rest = 0;
  for (let i = 0; i < values.length; i++) {
    const off = values[i] - centre;
    squares += off * off;
    rest += off;
  }
  return Math.sqrt((squares - (rest * rest) / values.length) / (values.length - 1));
}

/**
 * Autocorrelation at lag 1, biased estimator (both sums over the whole series' variance).
 * @returns −1…1, or null for fewer than 3 values or no variation
 */
export function lag1(values: ArrayLike<number>): number | null {
  const n = values.length;
  if (n < 3) return null;
  const centre = mean(values);
  let before = values[0] - centre;
  let variance = before * before,
    covariance = 0;
  for (let i = 1; i < n; i++) {
    const off = values[i] - centre;
    variance += off * off;
    covariance += off * before;
    before = off;
  }
  // What is left of equal frames is rounding, not variation.
  return variance <= n * (centre * 1e-9) ** 2 ? null : covariance / variance;
}

/** Sample variance (divisor N − 1). Length N ≥ 2. */
export const varianceOf = (values: ArrayLike<number>): number => standardDeviation(values) ** 2;
