import type { Yardstick, Summary } from "./shape";
import { mean, quantile, theilSen, thinned } from "@/core/stats";
import { durationOf, type Floats, type Trace } from "@/core/trace";
import { fullSpeed, fullSpeedOfReadings } from "./fullSpeed";
import { isHeld } from "./held";
import { freezeCount, hitches } from "./hitches";
import { pacing } from "./pacing";
import { averageFps, averageRate, lows, speedPercent } from "./rate";
import { defaultMeasuring, type MeasuringRules } from "./rules";
import { scenesOf } from "./scenes";
import { segmentsOf, segmentsOfReadings } from "./segments";
import { regularSpikes } from "./spikes";
import { warmUp } from "./warmUp";
import { areWhole, lookedAverage } from "./looks";

/** Raised whenever a figure here changes its meaning; kept summaries of an older version are made anew. */
export const methodVersion = 6;

/** Points of speed by which counter and engine may differ before it is said. */
export const counterTolerance = 3;

/** Mean of a channel over time (each reading holds until the next), with its ends. */
function channelFigures(times: Float64Array, values: Float64Array, endMs: number) {
  let weighted = 0,
    weight = 0,
    min = Infinity,
    max = -Infinity;
  for (let i = 0; i < values.length; i++) {
    const held = Math.max(0, (i + 1 < times.length ? times[i + 1] : endMs) - times[i]);
    weighted += values[i] * held;
    weight += held;
    min = Math.min(min, values[i]);
    max = Math.max(max, values[i]);
  }
  return {
    mean: weight > 0 ? weighted / weight : mean(values),
    min,
    max,
    last: values[values.length - 1],
    perMinute: slopeOf(times, values, endMs),
  };
}

/** Points a slope is read from. */
const slopePoints = 60;

/** Theil–Sen slope per minute after the first tenth of the run; null for too few readings. */
function slopeOf(times: Float64Array, values: Float64Array, endMs: number): number | null {
  const from = times.findIndex((ms) => ms >= endMs / 10);
  if (from < 0 || times.length - from < 5) return null;
  const points = thinned(times.subarray(from), values.subarray(from), slopePoints);
  return points.times[points.times.length - 1] > points.times[0]
    ? 60_000 * theilSen(points.times, points.values).slope
    : null;
}

/** What one sort of one copy serves: the copy is let go of before anything else is made. */
const rankedFigures = (frameTimes: Floats, durationMs: number) => {
  const sorted = frameTimes.slice().sort();
  return {
    medianFrameTimeMs: quantile(sorted, 0.5),
    p95FrameTimeMs: quantile(sorted, 0.95),
    p99FrameTimeMs: quantile(sorted, 0.99),
    maxFrameTimeMs: sorted[sorted.length - 1],
    lows: lows(sorted, durationMs),
  };
};

/** Of a counter's readings. */
const unranked = {
  medianFrameTimeMs: null,
  p95FrameTimeMs: null,
  p99FrameTimeMs: null,
  maxFrameTimeMs: null,
  lows: null,
};

/**
 * Every metric of methods 2 and 3 for one trace.
 *
 * One sort of one copy serves all order statistics; everything else is a single pass.
 * @throws RangeError for a trace without frames
 */
export function summarise(
  trace: Trace,
  yardstick: Yardstick,
  rules: MeasuringRules = defaultMeasuring,
): Summary {
  const whole = summariseWhole(trace, yardstick, rules);
  const scenes = scenesOf(trace, yardstick, (part, against) => summariseWhole(part, against, rules));
  return scenes.length > 0 ? { ...whole, scenes } : whole;
}

function summariseWhole(trace: Trace, yardstick: Yardstick, rules: MeasuringRules): Summary {
  const frames = trace.form === "frames" ? trace.frameTimes.length : trace.rates.length;
  if (frames === 0) throw new RangeError("a trace without frames has no figures");
  const durationMs = durationOf(trace);
  const channels: Summary["channels"] = {};
  for (const { role, times, values } of trace.channels)
    if (values.length > 0) channels[role] = channelFigures(times, values, durationMs);

  const average =
    trace.form === "frames" ? averageFps(trace.frameTimes) : averageRate(trace.durations, trace.rates);
  const counted = yardstick.tied ? speedPercent(average, yardstick.nativeFps) : 100;
  const reported = channels.speed?.mean ?? null;
  const ranked = trace.form === "frames" ? rankedFigures(trace.frameTimes, durationMs) : unranked;
  const common = {
    version: methodVersion,
    held: isHeld(trace, reported, ranked.medianFrameTimeMs ?? undefined),
    frames,
    durationMs,
    averageFps: average,
    speedPercent: counted,
    reportedSpeedPercent: reported,
    counterDisagrees: reported !== null && yardstick.tied && Math.abs(reported - counted) > counterTolerance,
    targetFps: yardstick.targetFps,
    tied: yardstick.tied,
    channels,
  };
  if (trace.form === "interval") {
    const speed = fullSpeedOfReadings(trace.durations, trace.rates, yardstick.targetFps, rules);
    return {
      form: "interval",
      ...common,
      looked: {
        ...lookedAverage(trace.durations, trace.rates, average, yardstick.targetFps),
        whole: areWhole(trace.rates),
      },
      ...ranked,
      fullSpeedTimePercent: percent(speed.share),
      dips: speed.dips,
      hitches: null,
      freezes: null,
      pacing: null,
      coldScenes: null,
      segments: segmentsOfReadings(trace, durationMs),
    };
  }
  const speed = fullSpeed(trace.frameTimes, yardstick.targetFps, rules);
  const found = hitches(trace.frameTimes, rules);
  const minutes = durationMs / 60_000;
  const visits = trace.marks.length > 0 ? warmUp(trace, rules) : [];
  return {
    form: "frames",
    ...common,
    ...ranked,
    fullSpeedTimePercent: percent(speed.share),
    dips: speed.dips,
    hitches: {
      count: found.length,
      perMinute: found.length / minutes,
      lostMsPerMinute: found.reduce((sum, hitch) => sum + hitch.lostMs, 0) / minutes,
    },
    freezes: freezeCount(trace.frameTimes, rules),
    spikes: regularSpikes(trace.frameTimes, rules),
    pacing: pacing(trace.frameTimes, yardstick.refreshHz),
    coldScenes:
      visits.length > 0
        ? { cold: visits.filter(({ coldCache }) => coldCache).length, revisited: visits.length }
        : null,
    segments: segmentsOf(trace, durationMs, found, yardstick.refreshHz),
  };
}

function percent(share: number | null): number | null {
  return share === null ? null : 100 * share;
}
