import { normalBelow, normalDensity, normalQuantile } from "./intervals";

/** One of several normal distributions, with how likely it is. */
export interface MixturePart {
  weight: number;
  at: number;
  /** Over 0. */
  sd: number;
}

/** Steps in which a quantile is looked for, and how near it is to be found, as a share of the mixture's spread. */
const mostSteps = 60,
  nearEnough = 1e-10;

/**
 * A mixture of normal distributions.
 *
 * @param parts at least one; weights in any unit
 * @returns its share below a value, and its quantiles
 * @example normalMixture([{ weight: 1, at: 0, sd: 1 }]).quantile(0.975) // → 1.959964
 */
export function normalMixture(parts: MixturePart[]): {
  below: (x: number) => number;
  quantile: (share: number) => number;
} {
  const whole = parts.reduce((sum, { weight }) => sum + weight, 0);
  const below = (x: number) =>
    parts.reduce((sum, { weight, at, sd }) => sum + weight * normalBelow((x - at) / sd), 0) / whole;
  const density = (x: number) =>
    parts.reduce((sum, { weight, at, sd }) => sum + (weight / sd) * normalDensity((x - at) / sd), 0) / whole;
  const middle = parts.reduce((sum, { weight, at }) => sum + weight * at, 0) / whole;
  const spread = Math.sqrt(
    parts.reduce((sum, { weight, at, sd }) => sum + weight * (sd ** 2 + (at - middle) ** 2), 0) / whole,
  );
  /** Newton's method, kept inside what is known to hold the quantile, halved where it would leave it. */
  const quantile = (share: number) => {
    let low = middle - 40 * spread,
      high = middle + 40 * spread,
      at = middle + spread * normalQuantile(share);
    for (let k = 0; k < mostSteps; k++) {
      const off = below(at) - share;
      if (off > 0) high = at;
      else low = at;
      const newton = at - off / Math.max(density(at), 1e-300);
      const next = newton > low && newton < high ? newton : (low + high) / 2;
      const moved = Math.abs(next - at);
      at = next;
      if (moved < nearEnough * spread) break;
    }
    return at;
  };
  return { below, quantile };
}
