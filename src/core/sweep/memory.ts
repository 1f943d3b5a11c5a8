import { theilSen, thinned } from "@/core/stats";

/** How memory grows, and when it meets the wall. */
export interface MemoryGrowth {
  mbPerMinute: number;
  low: number;
  high: number;
  /** From the start of the run, minutes; null when it doesn't grow beyond doubt. */
  minutesToLimit: number | null;
  minutesLow: number | null;
  minutesHigh: number | null;
  startMb: number;
  lastMb: number;
  grows: boolean;
}

/** Points the slope is read from: closer readings follow one another. */
const memoryPoints = 60;

/**
 * Theil–Sen slope of memory after warm-up with its Kendall interval, and the time until the limit.
 *
 * @param times ms, ascending; length M
 * @param megabytes length M
 * @param limitMb what the device can give; null where not known
 * @param warmUpMs left out at the start
 * @returns null for fewer than 8 readings after warm-up
 */
export function memoryGrowth(
  times: ArrayLike<number>,
  megabytes: ArrayLike<number>,
  limitMb: number | null,
  warmUpMs = 20_000,
): MemoryGrowth | null {
  const from = Array.from(times).findIndex((ms) => ms >= warmUpMs);
  if (from < 0 || times.length - from < 8) return null;
  const points = thinned(Array.from(times).slice(from), Array.from(megabytes).slice(from), memoryPoints);
  if (!(points.times[points.times.length - 1] > points.times[0])) return null;
  const line = theilSen(
    points.times.map((ms) => ms / 60_000),
    points.values,
  );
  const grows = line.low > 0;
  const at = (slope: number) =>
    limitMb === null || slope <= 0
      ? null
      : points.times[0] / 60_000 +
        Math.max(0, (limitMb - (line.intercept + (line.slope * points.times[0]) / 60_000)) / slope);
  return {
    mbPerMinute: line.slope,
    low: line.low,
    high: line.high,
    grows,
    startMb: line.intercept,
    lastMb: points.values[points.values.length - 1],
    minutesToLimit: grows ? at(line.slope) : null,
    minutesLow: grows ? at(line.high) : null,
    minutesHigh: grows ? at(line.low) : null,
  };
}

/** Minutes until the limit on a device with another amount of memory. @returns null when it doesn't grow */
export function minutesWith(
  { mbPerMinute, startMb, grows }: Pick<MemoryGrowth, "mbPerMinute" | "startMb" | "grows">,
  limitMb: number,
): number | null {
  return grows ? Math.max(0, (limitMb - startMb) / mbPerMinute) : null;
}
