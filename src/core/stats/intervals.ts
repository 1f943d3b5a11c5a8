import type { Interval } from "./shape";
import jstat from "jstat";

/** Quantile of Student's t with `freedom` degrees of freedom. @example tQuantile(0.975, 9) // → 2.262157 */
export function tQuantile(p: number, freedom: number): number {
  return jstat.studentt.inv(p, freedom);
}

/** Two-sided tail of Student's t: how often chance alone makes |t| at least so large. @example tTwoSided(2.262157, 9) // → 0.05 */
export function tTwoSided(t: number, freedom: number): number {
  return 2 * (1 - jstat.studentt.cdf(Math.abs(t), freedom));
}

/** Upper tail of the F distribution: how often chance alone makes a ratio of variances at least so large. */
export function fTail(ratio: number, d1: number, d2: number): number {
  return 1 - jstat.centralF.cdf(ratio, d1, d2);
}

/** Share of the standard normal below z. @example normalBelow(1.959964) // → 0.975 */
export function normalBelow(z: number): number {
  return jstat.normal.cdf(z, 0, 1);
}

/** Density of the standard normal at z. @example normalDensity(0) // → 0.398942 */
export const normalDensity = (z: number): number => Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);

/** Quantile of the standard normal. @example normalQuantile(0.975) // → 1.959964 */
export function normalQuantile(p: number): number {
  return jstat.normal.inv(p, 0, 1);
}

/**
 * Wilson score interval (Wilson 1927) of a share.
 * @param hits 0…n; may be fractional where n is an effective size
 */
export function wilson(hits: number, n: number, level = 0.95): Interval {
  const z = normalQuantile(0.5 + level / 2);
  const share = hits / n;
  const middle = share + (z * z) / (2 * n);
  const half = z * Math.sqrt((share * (1 - share)) / n + (z * z) / (4 * n * n));
  const whole = 1 + (z * z) / n;
  return { low: Math.max(0, (middle - half) / whole), high: Math.min(1, (middle + half) / whole) };
}

/**
 * Exact interval of a Poisson count (Garwood 1936), by quantiles of the gamma distribution.
 * @example garwood(5) // → { low: 1.6235, high: 11.6683 }
 */
export function garwood(count: number, level = 0.95): Interval {
  const tail = (1 - level) / 2;
  return {
    low: count === 0 ? 0 : jstat.gamma.inv(tail, count, 1),
    high: jstat.gamma.inv(1 - tail, count + 1, 1),
  };
}

/**
 * Quantile of the beta distribution: what is known of a share after `a − 1` hits and `b − 1` misses from an
 * even start.
 */
export function betaQuantile(p: number, a: number, b: number): number {
  return jstat.beta.inv(p, a, b);
}

/** Upper one-sided bound of a Poisson count. @example poissonUpper(0) // → 2.9957 */
export function poissonUpper(count: number, level = 0.95): number {
  return jstat.gamma.inv(level, count + 1, 1);
}

/**
 * How many of n readings count as independent: n·(1 − r)/(1 + r), r the lag-1 autocorrelation, 0 ≤ r < 1
 * (common practice for an AR(1) series).
 */
export const effectiveNumber = (n: number, r: number): number => (n * (1 - r)) / (1 + r);

/** Lag-1 of few values brought back from its bias, about −(1 + 4r)/n (Marriott & Pope 1954, Kendall 1954). */
export const unbiasedLag1 = (r: number, n: number): number => r + (1 + 4 * r) / n;

/**
 * Mean with its t interval, for readings that may follow one another closely.
 * The interval uses the effective number of readings n·(1 − r)/(1 + r), r the lag-1
 * autocorrelation where positive (common practice for an AR(1) series).
 */
export function meanInterval(
  values: ArrayLike<number>,
  mean: number,
  sd: number,
  r: number | null,
  level = 0.95,
): Interval & { effective: number } {
  const n = values.length;
  const dependence = Math.max(0, Math.min(0.99, r ?? 0));
  const effective = Math.max(Math.min(2, n), effectiveNumber(n, dependence));
  // Readings that follow one another show less than their spread: the mean moves with them.
  const spread = sd * Math.sqrt((effective / Math.max(1, effective - 1)) * ((n - 1) / n));
  const half =
    n < 2 ? Infinity : (tQuantile(0.5 + level / 2, Math.max(1, effective - 1)) * spread) / Math.sqrt(effective);
  return { low: mean - half, high: mean + half, effective };
}
