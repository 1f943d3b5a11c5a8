import { goingOn } from "./levelling";
import type { MemoryGrowth } from "./shape";
import { effectiveNumber, lag1, mean, theilSen, thinned, unbiasedLag1, weightedLine } from "@/core/stats";

/** Points the slope is read from: closer readings follow one another. */
const memoryPoints = 60;
/** Points that say where memory is at the end. */
const lastPoints = 5;

/**
 * Theil–Sen slope of memory after warm-up with its Kendall interval, and the time until the limit.
 *
 * What rises may be a cache that fills: growth is said only where a part of it goes on beside every curve that
 * levels off within one and a half times the run; until the curve has shown its bend it is too early to tell.
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
  const minutes = points.times.map((ms) => ms / 60_000);
  const step = stepIn(minutes, points.values);
  const after = step?.at ?? 0;
  const [later, values] = [minutes.subarray(after), points.values.subarray(after)];
  const robust = slopeOf(later, values);
  const on = robust.low > 0 ? goingOn(later, values, robust, robust.effective) : null;
  const grows = robust.low > 0 && (on === null || on.low > 0);
  // Of what levels off only the part that goes on counts.
  const levelsOff = on !== null && (!grows || on.high < robust.low);
  const line = levelsOff ? { ...on, intercept: levelUnder(later, values, on.slope) } : robust;
  const rise = {
    megabytes: values[values.length - 1] - values[0],
    minutes: later[later.length - 1] - later[0],
  };
  const isEarly = levelsOff && !grows && on.high * rise.minutes > openShare * rise.megabytes;
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
    ...(isEarly && { early: rise }),
    ...(levelsOff && !isEarly && { levelled: rise }),
    step: step && { megabytes: step.megabytes, minutes: minutes[step.at] },
    startMb: line.intercept,
    lastMb: points.values[points.values.length - 1],
    minutesToLimit: grows ? at(line.slope) : null,
    minutesLow: grows ? at(line.high) : null,
    minutesHigh: grows ? at(line.low) : null,
  };
}

/** Share of a rise that may go on beside the curve's, under which it has levelled off. */
const openShare = 0.25;

/** Where a line of this slope through the last readings begins, at time 0. */
const levelUnder = (minutes: Float64Array, megabytes: Float64Array, slope: number) =>
  mean(megabytes.slice(-lastPoints)) - slope * mean(minutes.slice(-lastPoints));

/** A slope with an interval that counts readings which follow one another once. */
function slopeOf(minutes: Float64Array, megabytes: Float64Array) {
  const { slope, intercept } = theilSen(minutes, megabytes);
  const n = minutes.length;
  const raw = lag1(megabytes.map((value, i) => value - intercept - slope * minutes[i])) ?? 0;
  const follow = Math.max(0, Math.min(0.95, unbiasedLag1(raw, n)));
  const effective = Math.max(3, effectiveNumber(n, follow));
  return { ...theilSen(minutes, megabytes, 0.95, effective), effective };
}

/** Squares that one step must leave of those that a line leaves, and points on either side of it. */
const stepSaves = 0.5,
  stepSide = 6;

/**
 * A rise that happened once: two levels that leave far less over than a line does; null where a line does as
 * well.
 */
function stepIn(x: Float64Array, y: Float64Array): { at: number; megabytes: number } | null {
  const n = x.length;
  const line = weightedLine(x, y);
  const ofLine = y.reduce((sum, value, i) => sum + (value - line.intercept - line.slope * x[i]) ** 2, 0);
  const about = (values: Float64Array) => {
    const centre = mean(values);
    return { centre, squares: values.reduce((sum, value) => sum + (value - centre) ** 2, 0) };
  };
  let best: { at: number; megabytes: number; squares: number } | null = null;
  for (let at = stepSide; at <= n - stepSide; at++) {
    const [low, high] = [about(y.subarray(0, at)), about(y.subarray(at))];
    const squares = low.squares + high.squares;
    if (!best || squares < best.squares) best = { at, megabytes: high.centre - low.centre, squares };
  }
  return best && best.squares < stepSaves * ofLine && best.megabytes > 0 ? best : null;
}

/** Minutes until the limit on a device with another amount of memory. @returns null when it doesn't grow */
export function minutesWith(
  { mbPerMinute, startMb, grows }: Pick<MemoryGrowth, "mbPerMinute" | "startMb" | "grows">,
  limitMb: number,
): number | null {
  return grows ? Math.max(0, (limitMb - startMb) / mbPerMinute) : null;
}
