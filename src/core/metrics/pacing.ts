import type { Pacing } from "./shape";
import { lag1 } from "@/core/stats";
import type { Floats } from "@/core/trace";

/** @param frameTimes ms; length N ≥ 1. @param refreshHz the display's refresh rate */
export function pacing(frameTimes: Floats, refreshHz: number): Pacing {
  // Frames longer than so many refreshes are counted together: no run's usual cadence is there.
  const counts = new Uint32Array(1024);
  let squares = 0;
  for (let i = 0; i < frameTimes.length; i++) {
    const refreshes = (frameTimes[i] * refreshHz) / 1000;
    const whole = Math.round(refreshes);
    squares += (refreshes - whole) ** 2;
    counts[Math.min(whole, counts.length - 1)]++;
  }
  const cadence = counts.reduce((best, frames, k) => (frames > counts[best] ? k : best), 0);
  return {
    cadenceShare: counts[cadence] / frameTimes.length,
    cadence,
    cadenceErrorRms: Math.sqrt(squares / frameTimes.length),
    lag1: lag1(frameTimes),
  };
}
