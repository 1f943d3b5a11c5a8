import { leastSquares, medianOf, normalMixture } from "@/core/stats";

/** Time constants that are tried between the shortest and the longest. */
const settlingsTried = 8;
/** The shortest as a share of the run, the longest as a share of it and in minutes: caches fill in minutes. */
const shortest = 0.05,
  longest = 1.5,
  longestMinutes = 10;
/** Residuals further out are brought in, in median deviations: spikes aren't the curve. */
const farOut = 4;

/**
 * What goes on growing beside what levels off: a line, or a line and a curve that fills up, of every length that
 * the run could show, weighed by how well each explains the readings.
 *
 * @param minutes of the readings, ascending; length n ≥ 8
 * @param values with the readings; length n
 * @param line a robust line through them
 * @param effective how many readings count as independent
 * @returns slope of what goes on, per minute, with its 95 % interval; null where the fits fail
 */
export function goingOn(
  minutes: Float64Array,
  values: Float64Array,
  line: { slope: number; intercept: number },
  effective: number,
): { slope: number; low: number; high: number } | null {
  const n = values.length;
  const off = values.map((value, i) => value - line.intercept - line.slope * minutes[i]);
  const reach = farOut * Math.max(medianOf(off.map(Math.abs)), 1e-6);
  const tamed = values.map((value, i) => value - off[i] + Math.max(-reach, Math.min(reach, off[i])));
  const first = minutes[0],
    length = minutes[n - 1] - first;
  const ratio = Math.max(longest, longestMinutes / length) / shortest;
  const settlings = Array.from(
    { length: settlingsTried },
    (_, at) => shortest * ratio ** (at / (settlingsTried - 1)),
  );
  const rowsOf = (settling: number | null) =>
    Array.from(minutes, (at) => [
      1,
      at - first,
      ...(settling === null ? [] : [1 - Math.exp(-(at - first) / (settling * length))]),
    ]);
  const fits = [null, ...settlings].flatMap((settling) => {
    const made = leastSquares(rowsOf(settling), tamed, 0);
    return made ? [{ settling, made }] : [];
  });
  const best = Math.min(...fits.map(({ made }) => made.squares));
  const variance = Math.max(best / Math.max(1, n - 3), 1e-9) * (n / effective);
  const parts = fits.map(({ settling, made: { coefficients, covariance, squares } }) => ({
    weight: (settling === null ? 0.5 : 0.5 / settlings.length) * Math.exp((best - squares) / (2 * variance)),
    at: coefficients[1] ?? 0,
    sd: Math.sqrt(variance * covariance.get(1, 1)),
  }));
  if (!(parts.reduce((sum, { weight }) => sum + weight, 0) > 0)) return null;
  const { quantile } = normalMixture(parts);
  return { slope: quantile(0.5), low: quantile(0.025), high: quantile(0.975) };
}
