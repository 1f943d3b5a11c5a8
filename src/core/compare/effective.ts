import type { Summary } from "@/core/metrics";
import type { IntervalTrace, Trace } from "@/core/trace";

/**
 * A run as the engine's own report of speed tells it: readings of native rate × speed.
 *
 * Where an engine shows old frames at the display's pace, its frames say nothing of the title; two such runs
 * are compared by what the engine reports.
 *
 * @returns null when the run logged no speed, or only once
 */
export function bySpeed(trace: Trace, nativeFps: number): IntervalTrace | null {
  const speed = trace.channels.find(({ role }) => role === "speed");
  if (!speed || speed.times.length < 2) return null;
  const durations = speed.times.map((ms, i) => Math.max(1e-6, ms - (i === 0 ? 0 : speed.times[i - 1])));
  return {
    form: "interval",
    durations,
    rates: speed.values.map((percent) => (nativeFps * percent) / 100),
    channels: [],
    marks: [],
  };
}

/**
 * Arms as they are to be compared: by the engine's speed where every run of every arm reports one, else by
 * their frames.
 */
export function comparable(
  arms: Trace[][],
  nativeFps: number,
): { arms: Trace[][]; by: "frames" | "engine speed" } {
  const reported = arms.map((arm) => arm.map((trace) => bySpeed(trace, nativeFps)));
  const isWhole = (list: (IntervalTrace | null)[][]): list is IntervalTrace[][] =>
    list.flat().every((trace) => trace !== null);
  return isWhole(reported) ? { arms: reported, by: "engine speed" } : { arms, by: "frames" };
}

/**
 * A run's rate as it counts in comparisons: by the engine's own report where there is one, else by its frames;
 * fps.
 */
export function effectiveFps(
  { reportedSpeedPercent, averageFps }: Pick<Summary, "reportedSpeedPercent" | "averageFps">,
  nativeFps: number,
): number {
  return reportedSpeedPercent === null ? averageFps : (nativeFps * reportedSpeedPercent) / 100;
}
