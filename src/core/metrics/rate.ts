import type { Lows } from "./shape";
import { quantile } from "@/core/stats";
import type { Floats } from "@/core/trace";

/** Σ of frame times in ms. */
export function total(frameTimes: Floats): number {
  let sum = 0;
  for (let i = 0; i < frameTimes.length; i++) sum += frameTimes[i];
  return sum;
}

/**
 * Frames shown per second of running time: 1000·N/Σ. Not the mean of instantaneous rates, which overstates.
 * @param frameTimes ms, all > 0; length N ≥ 1
 * @example averageFps(Float64Array.of(16, 50)) // → 30.303
 */
export function averageFps(frameTimes: Floats): number {
  return (1000 * frameTimes.length) / total(frameTimes);
}

/** Time-weighted mean of readings; both length N ≥ 1. */
export function averageRate(durations: Float64Array, rates: Float64Array): number {
  let frames = 0,
    time = 0;
  for (let i = 0; i < rates.length; i++) {
    frames += rates[i] * durations[i];
    time += durations[i];
  }
  return frames / time;
}

/** Speed in % of the title's own rate. @example speedPercent(51, 60) // → 85 */
export function speedPercent(fps: number, nativeFps: number): number {
  return (100 * fps) / nativeFps;
}

/**
 * The three schools of "1 % low".
 *
 * - `percentile`: the rate at the (1 − x) quantile of frame time;
 * - `worstMean`: the rate of the ⌈xN⌉ longest frames together;
 * - `worstTime`: the rate of the frame at which the longest frames have filled x of the running time.
 *
 * @param sorted ascending frame times, ms; length N ≥ 1
 * @param time   their sum, ms
 */
export function lows(sorted: Floats, time: number): Lows {
  const n = sorted.length;
  const percentile = (x: number) => 1000 / quantile(sorted, 1 - x);
  const worstMean = (x: number) => {
    const k = Math.max(1, Math.ceil(x * n - 1e-9));
    let sum = 0;
    for (let i = n - k; i < n; i++) sum += sorted[i];
    return (1000 * k) / sum;
  };
  const worstTime = (x: number) => {
    let covered = 0,
      i = n;
    while (i > 0 && covered < x * time) covered += sorted[--i];
    return 1000 / sorted[Math.min(i, n - 1)];
  };
  const pair = (low: (x: number) => number) => ({ one: low(0.01), tenth: low(0.001) });
  return { percentile: pair(percentile), worstMean: pair(worstMean), worstTime: pair(worstTime) };
}

/** Rates of stretches of at least `blockMs`, one after another, fps; what is left at the end is no stretch. */
export function blockRates(frameTimes: Floats, blockMs: number): Float64Array {
  const rates: number[] = [];
  let frames = 0,
    ms = 0;
  for (const frameMs of frameTimes) {
    frames++;
    ms += frameMs;
    if (ms < blockMs) continue;
    rates.push((1000 * frames) / ms);
    frames = ms = 0;
  }
  return Float64Array.from(rates);
}
