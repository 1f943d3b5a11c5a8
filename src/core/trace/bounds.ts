import { said } from "./codes";
import type { Said } from "@/core/said";
import { durationOf } from "./slice";
import type { Trace } from "./types";

/** Bounds of what a frame, and a run, can be; ours: from a microsecond to an hour, and a week in all. */
export const leastFrameMs = 1e-3,
  mostFrameMs = 3.6e6,
  mostRunMs = 7 * 24 * 3.6e6;

/**
 * What makes a trace none that can be kept: a frame or an interval, or all of them, outside the bounds. Null for
 * one that can.
 */
export function outOfBounds(trace: Trace): Said | null {
  const times = trace.form === "frames" ? trace.frameTimes : trace.durations;
  const what = trace.form === "frames" ? "Frame" : "Interval";
  // As it is kept: a number that is finite here may not be in half the bits.
  const at = times.findIndex((ms) => !(Math.fround(ms) >= Math.fround(leastFrameMs) && ms <= mostFrameMs));
  if (at >= 0) return said("refused.frame", { what, number: at + 1, ms: Number(times[at]?.toPrecision(4)) });
  if (durationOf(trace) > mostRunMs) return said("refused.week");
  if (trace.form === "interval" && !trace.rates.every((rate) => Number.isFinite(Math.fround(rate))))
    return said("refused.rate");
  const [wild] = trace.channels.filter(
    ({ times: moments, values }) =>
      ![moments, values].every((column) => column.every((value) => Number.isFinite(Math.fround(value)))),
  );
  return wild ? said("refused.reading", { role: wild.role }) : null;
}
