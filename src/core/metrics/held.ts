import { medianOf } from "@/core/stats";
import type { Floats, Trace } from "@/core/trace";

/** Share of frames that a cap or the display makes alike, and how alike they are. */
const heldShare = 0.97,
  heldWithin = 0.03;
/** From this speed on an engine runs at its own pace, %. */
const ownPacePercent = 99;

/** Whether nearly every value is as long as the usual one. @param usual their median, where that is known */
export function areAlike(values: Floats, usual = medianOf(values)): boolean {
  let alike = 0;
  for (let i = 0; i < values.length; i++) if (Math.abs(values[i] - usual) <= heldWithin * usual) alike++;
  return alike >= heldShare * values.length;
}

/**
 * Whether a run is held by a cap or the display: its frames are all alike, or the engine reports its own pace.
 * Held runs show no spread; they would make a rig look quieter than it is.
 *
 * @param reportedSpeedPercent mean of the engine's own report; null where it reports none, then the frames tell
 * @param usualMs median frame time, where that is known
 */
export function isHeld(trace: Trace, reportedSpeedPercent: number | null, usualMs?: number): boolean {
  if (reportedSpeedPercent !== null) return reportedSpeedPercent >= ownPacePercent;
  return trace.form === "frames" && areAlike(trace.frameTimes, usualMs);
}
