import { lag1, mean, meanInterval, standardDeviation, wilson, type Interval } from "@/core/stats";

/** What a hand tally supports; everything from it is marked "by eye". */
export interface TallyFigures {
  readings: number;
  mean: number;
  /** 95 % t interval of the mean; null with one reading. */
  interval: Interval | null;
  min: number;
  max: number;
  /** Readings that count as independent. */
  effective: number;
  /** Share of readings at or above target, with its Wilson interval. */
  atTarget: { share: number } & Interval;
}

/**
 * Figures of numbers read off a screen at moments chosen without looking.
 * Readings inside one dip follow one another; the effective number is taken from their lag-1 autocorrelation.
 *
 * @param readings fps, length n ≥ 1, in the order read
 * @throws RangeError without readings
 */
export function tallyFigures(readings: number[], targetFps: number, tolerance = 0.01): TallyFigures {
  if (readings.length === 0) throw new RangeError("a tally needs a reading");
  const centre = mean(readings);
  const { low, high, effective } = meanInterval(
    readings,
    centre,
    readings.length > 1 ? standardDeviation(readings) : 0,
    lag1(readings),
  );
  const hits = readings.filter((reading) => reading >= targetFps * (1 - tolerance)).length;
  const share = hits / readings.length;
  return {
    readings: readings.length,
    mean: centre,
    interval: readings.length > 1 ? { low, high } : null,
    min: Math.min(...readings),
    max: Math.max(...readings),
    effective,
    atTarget: { share, ...wilson(share * effective, effective) },
  };
}
