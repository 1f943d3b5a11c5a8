import type { TallyFigures } from "./shape";
import { wilson } from "@/core/stats";
import type { Channel, ChannelRole, IntervalTrace } from "@/core/trace";
import { leastOfReadings } from "./fullSpeed";
import { apartForOneLook, counterWindowMs, looksOf, lookedAverage, unitOf } from "./looks";
import { averageRate } from "./rate";
import { defaultMeasuring, type MeasuringRules } from "./rules";

/** A number read off a screen at a moment, with what was read beside it. */
export interface Read {
  fps: number;
  /** Since the first reading. */
  second: number;
  scene: string;
  /** Loads, watts, temperatures and the like, as a run's channels. */
  channels?: Partial<Record<ChannelRole, number>>;
}

/**
 * A tally as a trace. Moments were chosen without looking, so that every look counts alike: each stands for the
 * usual time between two. Readings typed faster than a counter changes are one look.
 *
 * @param readings length ≥ 1, in the order read
 */
export function tallyTrace(readings: Read[]): IntervalTrace {
  const n = readings.length;
  const gaps = readings.map(({ second, scene }, at) => {
    const before = readings[at - 1];
    if (!before) return 0;
    const gap = 1000 * Math.max(0, second - before.second);
    // Another scene is another look, however fast the hand.
    return scene === before.scene ? gap : Math.max(gap, counterWindowMs);
  });
  const looks = looksOf(
    gaps,
    readings.map(({ fps }) => fps),
  ).length;
  const span = gaps.reduce((sum, gap) => sum + gap, 0);
  const inALook = Math.ceil(n / looks);
  const each = inALook > 1 ? apartForOneLook / inALook : n > 1 ? span / (n - 1) : counterWindowMs;
  const trace: IntervalTrace = {
    form: "interval",
    durations: new Float64Array(n).fill(each),
    rates: Float64Array.from(readings, ({ fps }) => fps),
    channels: channelsOf(readings, each),
    marks: [],
  };
  // Readings that name one scene in a row are a mark.
  readings.forEach(({ scene }, at) => {
    const startMs = at * each,
      endMs = startMs + each;
    const last = trace.marks.at(-1);
    if (scene === "") return;
    if (last && last.label === scene && Math.abs(last.endMs - startMs) < 1e-6) last.endMs = endMs;
    else trace.marks.push({ label: scene, startMs, endMs });
  });
  return trace;
}

/** What was read beside the rate, each at its reading's moment. */
function channelsOf(readings: Read[], each: number): Channel[] {
  const roles = [...new Set(readings.flatMap(({ channels = {} }) => Object.keys(channels) as ChannelRole[]))];
  return roles.map((role) => {
    const told = readings.flatMap(({ channels }, at) => {
      const value = channels?.[role];
      return value === undefined ? [] : [{ at: at * each, value }];
    });
    return {
      role,
      times: Float64Array.from(told, ({ at }) => at),
      values: Float64Array.from(told, ({ value }) => value),
    };
  });
}

/**
 * Figures of numbers read off a screen at moments chosen without looking.
 *
 * @param trace of one reading at least
 * @throws RangeError without readings
 */
export function tallyFigures(
  { durations, rates }: Pick<IntervalTrace, "durations" | "rates">,
  targetFps: number,
  rules: MeasuringRules = defaultMeasuring,
): TallyFigures {
  const n = rates.length;
  if (n === 0) throw new RangeError("a tally needs a reading");
  const average = averageRate(durations, rates);
  const { looks, effective, interval } = lookedAverage(durations, rates, average, targetFps);
  const least = leastOfReadings(unitOf(rates), targetFps, rules);
  const share = rates.filter((rate) => rate >= least).length / n;
  return {
    readings: n,
    mean: average,
    interval: looks > 1 ? interval : null,
    min: Math.min(...rates),
    max: Math.max(...rates),
    effective,
    furtherApart: Math.max(1, Math.round(n / effective)),
    atTarget: { share, ...wilson(share * effective, effective) },
  };
}
