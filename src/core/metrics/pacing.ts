import { lag1 } from "@/core/stats";

/** How evenly frames fall on a display's refreshes. */
export interface Pacing {
  /** Share of frames that last the commonest whole number of refreshes, 0…1. */
  cadenceShare: number;
  /** That number of refreshes. */
  cadence: number;
  /** RMS distance of frames from whole numbers of refreshes, in refreshes. */
  cadenceErrorRms: number;
  /** Lag-1 autocorrelation of frame times; near −1 when long and short frames take turns. */
  lag1: number | null;
}

/** @param frameTimes ms; length N ≥ 1. @param refreshHz the display's refresh rate */
export function pacing(frameTimes: Float64Array, refreshHz: number): Pacing {
  const counts = new Map<number, number>();
  let squares = 0;
  for (let i = 0; i < frameTimes.length; i++) {
    const refreshes = (frameTimes[i] * refreshHz) / 1000;
    const whole = Math.round(refreshes);
    squares += (refreshes - whole) ** 2;
    counts.set(whole, (counts.get(whole) ?? 0) + 1);
  }
  const [cadence, frames] = [...counts].reduce((best, entry) => (entry[1] > best[1] ? entry : best));
  return { cadenceShare: frames / frameTimes.length, cadence, cadenceErrorRms: Math.sqrt(squares / frameTimes.length), lag1: lag1(frameTimes) };
}
