import { lag1, mean, meanInterval, standardDeviation, unbiasedLag1, type Interval } from "@/core/stats";

/**
 * A counter that shows whole numbers: the frames of its window are known to one, and the display rounds or cuts off.
 * A reading no more than this under a rate can't be told from it, fps. Source: docs/method.md, section 9.
 */
export const wholeUnit = 1;

/** Whether readings are whole numbers throughout, as a counter without decimals shows them. */
export const areWhole = (rates: ArrayLike<number>): boolean =>
  rates.length > 0 && Array.prototype.every.call(rates, (rate: number) => Number.isInteger(rate));

/**
 * The average rate that whole readings leave open, fps: 95 % by Student's t of the readings that count as
 * independent, and half a unit to each side, since it isn't known whether the display rounds or cuts off.
 * @param rates length ≥ 1, in the order read
 * @example wholeAverage([59, 60, 59, 60]) // → { low: 58.1, high: 60.9 }, rounded
 */
export function wholeAverage(rates: ArrayLike<number>): Interval {
  const readings = Array.from(rates);
  const centre = mean(readings);
  const raw = lag1(readings);
  const { low, high } =
    readings.length < 2
      ? { low: centre, high: centre }
      : meanInterval(
          readings,
          centre,
          standardDeviation(readings),
          raw === null ? null : unbiasedLag1(raw, readings.length),
        );
  return { low: Math.max(0, low - wholeUnit / 2), high: high + wholeUnit / 2 };
}
