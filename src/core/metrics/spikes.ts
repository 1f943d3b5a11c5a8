import type { RegularSpikes } from "./shape";
import { medianOf } from "@/core/stats";
import type { Floats } from "@/core/trace";
import { hitches } from "./hitches";
import { defaultMeasuring, type MeasuringRules } from "./rules";

/** Frames that are looked through at most: what comes back shows in the first hour too. */
const mostFrames = 250_000;
/** A frame sticks out from so many times the usual jitter on, and from so much, ms. */
const overJitter = 6,
  leastExtraMs = 1;
/** Fewest spikes that make a rhythm, and periods that one may have, ms. */
const fewest = 6,
  leastPeriodMs = 150,
  mostPeriodMs = 30_000;
/** Share of the steps that must be even, how nearly, and share of the run's length that must have its spike. */
const evenShare = 0.8,
  evenWithin = 0.06,
  filled = 0.7;

/** Usual difference from one frame to the next, ms: the median, which no spike moves. */
function jitterOf(frameTimes: Floats): number {
  const step = Math.max(1, Math.floor(frameTimes.length / 5000));
  const apart: number[] = [];
  for (let i = 1; i < frameTimes.length; i += step) apart.push(Math.abs(frameTimes[i] - frameTimes[i - 1]));
  return apart.length > 0 ? medianOf(Float64Array.from(apart)) : 0;
}

/**
 * Spikes that come back regularly, whatever their size against the frame: 16 ms each second is one frame too many
 * 60 times a minute, and no hitch by size.
 *
 * @param frameTimes ms, all > 0; length N
 * @returns null where none do
 */
export function regularSpikes(
  frameTimes: Floats,
  rules: MeasuringRules = defaultMeasuring,
): RegularSpikes | null {
  const seen = frameTimes.length > mostFrames ? frameTimes.subarray(0, mostFrames) : frameTimes;
  if (seen.length < 10 * fewest) return null;
  const hitchExtraMs = Math.max(leastExtraMs, overJitter * jitterOf(seen));
  const found = hitches(seen, { ...rules, hitchFactor: 1, hitchExtraMs });
  // Of long frames in a row the first is the spike.
  const spikes = found.filter(({ index }, at) => index - (found[at - 1]?.index ?? -9) > 3);
  if (spikes.length < fewest) return null;
  const steps = spikes.slice(1).map(({ startMs }, at) => startMs - (spikes[at]?.startMs ?? 0));
  const periodMs = medianOf(Float64Array.from(steps));
  if (periodMs < leastPeriodMs || periodMs > mostPeriodMs) return null;
  const usualMs = medianOf(seen.slice(0, 5000));
  const near = Math.max(evenWithin * periodMs, 1.5 * usualMs);
  if (near > periodMs / 5) return null;
  // A spike that is missing leaves a step of two.
  const isEven = (step: number) => {
    const many = Math.max(1, Math.round(step / periodMs));
    return many <= 3 && Math.abs(step - many * periodMs) <= near;
  };
  const span = steps.reduce((sum, step) => sum + step, 0);
  const isRegular =
    steps.filter(isEven).length >= evenShare * steps.length && spikes.length >= (filled * span) / periodMs;
  if (!isRegular) return null;
  return {
    periodMs,
    extraMs: medianOf(Float64Array.from(spikes, ({ lostMs }) => lostMs)),
    count: spikes.length,
  };
}
