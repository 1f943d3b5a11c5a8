import {
  lag1,
  mean,
  meanInterval,
  poissonUpper,
  standardDeviation,
  unbiasedLag1,
  wilson,
  type Interval,
} from "@/core/stats";

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
  /**
   * How many times further apart to read, for readings to count whole; 1 where they do. Absent from older
   * tallies.
   */
  furtherApart?: number;
  /** Share of readings at or above target, with its Wilson interval. */
  atTarget: { share: number } & Interval;
}

/** A number read off a screen is rounded by so much, fps. */
const rounded = 0.5;
/** How deep a dip usually is, as a share of the cap; ours. */
const usualDip = 0.2;

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
  const n = readings.length;
  const raw = lag1(readings);
  const follow = raw === null ? null : unbiasedLag1(raw, n);
  const { low, high, effective } = meanInterval(
    readings,
    centre,
    n > 1 ? standardDeviation(readings) : 0,
    follow,
  );
  const most = Math.max(...readings);
  const below = readings.filter((reading) => most - reading > 2 * rounded);
  // At a cap all dips lie on one side, and few looks miss most of them: their share may be as large as a
  // Poisson count allows.
  const isCapped = 3 * below.length <= n;
  const depth = Math.max(usualDip * most, below.length > 0 ? most - mean(below) : 0);
  const unseenShare = Math.min(1, poissonUpper((below.length * effective) / n, 0.975) / effective);
  const interval = {
    low: Math.max(0, Math.min(low, centre - rounded, isCapped ? most - unseenShare * depth : Infinity)),
    high: Math.max(centre + rounded, isCapped ? Math.min(high, most + rounded) : high),
  };
  const hits = readings.filter((reading) => reading >= targetFps * (1 - tolerance)).length;
  const share = hits / readings.length;
  return {
    readings: readings.length,
    mean: centre,
    interval: readings.length > 1 ? interval : null,
    min: Math.min(...readings),
    max: Math.max(...readings),
    effective,
    furtherApart: Math.max(1, Math.round(n / effective)),
    atTarget: { share, ...wilson(share * effective, effective) },
  };
}
