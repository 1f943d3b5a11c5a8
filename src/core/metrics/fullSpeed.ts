import type { Dips } from "./shape";
import type { Floats } from "@/core/trace";
import { defaultMeasuring, type MeasuringRules } from "./rules";
import { unitOf } from "./looks";

export interface FullSpeed {
  /** 0…1, or null when the trace is shorter than one window. */
  share: number | null;
  dips: Dips | null;
  /** Every dip's place, ms from the start; at most 500. */
  stretches: { startMs: number; endMs: number; deepestFps: number }[];
}

const mostStretches = 500;

/** Joins weighted below/above judgements into a share and dips; shared by frames and readings. */
export class Stretches {
  private below = 0;
  private all = 0;
  private open: { startMs: number; endMs: number; deepestFps: number } | null = null;
  private count = 0;
  private longestMs = 0;
  private deepest = Infinity;
  readonly kept: FullSpeed["stretches"] = [];

  add(startMs: number, weight: number, fps: number, isBelow: boolean): void {
    this.all += weight;
    if (!isBelow) {
      this.close();
      return;
    }
    this.below += weight;
    this.open ??= { startMs, endMs: startMs, deepestFps: fps };
    this.open.endMs = startMs + weight;
    this.open.deepestFps = Math.min(this.open.deepestFps, fps);
  }

  private close(): void {
    if (!this.open) return;
    this.count++;
    this.longestMs = Math.max(this.longestMs, this.open.endMs - this.open.startMs);
    this.deepest = Math.min(this.deepest, this.open.deepestFps);
    if (this.kept.length < mostStretches) this.kept.push(this.open);
    this.open = null;
  }

  /** What it comes to so far, the open stretch left open. @returns null before the first judgement */
  soFar(): { share: number | null; dips: number } {
    return {
      share: this.all === 0 ? null : 1 - this.below / this.all,
      dips: this.count + (this.open ? 1 : 0),
    };
  }

  result(): FullSpeed {
    this.close();
    if (this.all === 0) return { share: null, dips: null, stretches: [] };
    return {
      share: 1 - this.below / this.all,
      dips: { count: this.count, longestMs: this.longestMs, deepestFps: this.count > 0 ? this.deepest : null },
      stretches: this.kept,
    };
  }
}

/**
 * The rate of the window that every frame opens, in fps; NaN where the window runs past the end.
 *
 * A window's rate counts the frames ended in it, the last one by the fraction that lies inside.
 * @param frameTimes ms, all > 0; length N
 * @returns length N
 */
export function windowRates(frameTimes: Floats, windowMs: number): Float64Array {
  const rates = new Float64Array(frameTimes.length).fill(NaN);
  eachWindow(frameTimes, windowMs, (rate, i) => (rates[i] = rate));
  return rates;
}

/**
 * Goes over the windows that frames open, as `windowRates` tells them, up to the last that ends within the
 * trace.
 */
export function eachWindow(
  frameTimes: Floats,
  windowMs: number,
  see: (rate: number, index: number, startMs: number) => void,
): void {
  const n = frameTimes.length;
  let start = 0,
    next = 0,
    end = 0;
  for (let i = 0; i < n; i++) {
    if (next < i) {
      next = i;
      end = start;
    }
    const stop = start + windowMs;
    // Ends are sums from the start of the trace, as starts are: they carry the same rounding.
    while (next < n && end + frameTimes[next] <= stop) end += frameTimes[next++];
    if (next === n && end < stop - 1e-6) break;
    const fraction = next < n ? (stop - end) / frameTimes[next] : 0;
    see(((next - i + fraction) * 1000) / windowMs, i, start);
    start += frameTimes[i];
  }
}

/** The least rate that counts as full speed. */
export const leastFullSpeed = (target: number, rules: MeasuringRules) => target * (1 - rules.tolerance) - 1e-9;

/**
 * Share of running time spent at full speed, and the dips below it.
 *
 * Every frame opens a window of `windowMs`; the window is at full speed when its rate is at least
 * `target · (1 − tolerance)`. Windows weigh by the frame that opens them, so slow stretches are not
 * under-counted for having fewer frames. Windows that run past the end are left out.
 * A dip's length is the running time of the frames that open its windows.
 *
 * @param frameTimes ms, all > 0; length N
 * @param target     frames per second
 */
export function fullSpeed(
  frameTimes: Floats,
  target: number,
  rules: MeasuringRules = defaultMeasuring,
): FullSpeed {
  const least = leastFullSpeed(target, rules);
  const found = new Stretches();
  eachWindow(frameTimes, rules.windowMs, (rate, index, startMs) =>
    found.add(startMs, frameTimes[index], rate, rate < least),
  );
  return found.result();
}

/**
 * The least reading that counts as full speed: one that lies within the counter's last digit of the target
 * can't be told from it. A steady 59.94 reads as 59 or 60.
 */
export const leastOfReadings = (unit: number, target: number, rules: MeasuringRules) =>
  Math.min(leastFullSpeed(target, rules), target - unit);

/**
 * The same for readings of a counter: each reading is judged as it stands, weighted by its time. A whole number that
 * lies within a unit of the target can't be told from it, and counts as full speed.
 */
export function fullSpeedOfReadings(
  durations: Float64Array,
  rates: Float64Array,
  target: number,
  rules: MeasuringRules = defaultMeasuring,
): FullSpeed {
  const least = leastOfReadings(unitOf(rates), target, rules);
  const found = new Stretches();
  let start = 0;
  for (let i = 0; i < rates.length; i++) {
    found.add(start, durations[i], rates[i], rates[i] < least);
    start += durations[i];
  }
  return found.result();
}
