import type { Channel, FrameTrace, Mark } from "@/core/trace";
import { pictureAt } from "./pictures";
import type { CaptureResult } from "./result";

type Timed = Pick<CaptureResult, "startsMs" | "frameTimes">;

/**
 * Moments of a capture as moments of its run, from which stretches that stand still are left out.
 * One inside such a stretch is the run's moment at which it was left out.
 */
export function runTime({ startsMs, frameTimes }: Timed): (captureMs: number) => number {
  const begins = new Float64Array(frameTimes.length + 1);
  for (let k = 0; k < frameTimes.length; k++) begins[k + 1] = begins[k] + frameTimes[k];
  return (ms) => {
    const at = pictureAt(startsMs, ms);
    return at < 0 ? 0 : begins[at] + Math.min(ms - startsMs[at], frameTimes[at]);
  };
}

/**
 * The trace of a capture's run: its frame times, its counter's readings beside them, and its marks, all in the
 * run's own time.
 */
export function keptTrace(result: Timed & Pick<CaptureResult, "counter">, marks: readonly Mark[]): FrameTrace {
  const at = runTime(result);
  const readings = result.counter?.readings ?? [];
  const rate: Channel = {
    role: "rate",
    times: Float64Array.from(readings, ({ atMs }) => at(atMs)),
    values: Float64Array.from(readings, ({ fps }) => fps),
  };
  return {
    form: "frames",
    frameTimes: result.frameTimes,
    channels: readings.length > 0 ? [rate] : [],
    marks: marks.map(({ label, startMs, endMs }) => ({ label, startMs: at(startMs), endMs: at(endMs) })),
  };
}
