import type { Summary } from "@/core/metrics";

/** Frames this near to whole refreshes are paced by the display. */
const pacedError = 0.12;

/**
 * Whether a run's frames follow the display's refreshes, so that its median jumps from one whole number of them
 * to the next.
 */
export const isPaced = ({ pacing }: Pick<Summary, "pacing">) =>
  pacing !== null && pacing.cadenceErrorRms < pacedError;

type Paced = Pick<Summary, "pacing" | "averageFps" | "medianFrameTimeMs" | "channels">;

/**
 * Time that the busier half works on a frame, where both loads were logged; ms. A reading of the whole
 * processor can hide a full core.
 */
function workMs({ averageFps, channels }: Pick<Paced, "averageFps" | "channels">): number | null {
  const { cpuBusiest, gpu } = channels;
  return cpuBusiest && gpu ? (Math.max(cpuBusiest.mean, gpu.mean) / 100) * (1000 / averageFps) : null;
}

/** Whether the display's pace hides the work of a run's frames: they follow it, and no loads were logged. */
export const hidesWork = (summary: Paced): boolean => isPaced(summary) && workMs(summary) === null;

/**
 * A run's usual frame time for a law over pixels, ms: its median; where the display paces it, the work behind
 * the frames if loads were logged, else its mean.
 */
export const usualFrameMs = (summary: Paced) =>
  summary.medianFrameTimeMs === null
    ? null
    : isPaced(summary)
      ? (workMs(summary) ?? 1000 / summary.averageFps)
      : summary.medianFrameTimeMs;
