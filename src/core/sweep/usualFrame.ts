import type { Summary } from "@/core/metrics";

/** Frames this near to whole refreshes are paced by the display. */
const pacedError = 0.12;

/** Whether a run's frames follow the display's refreshes, so that its median jumps from one whole number of them to the next. */
export const isPaced = ({ pacing }: Pick<Summary, "pacing">) =>
  pacing !== null && pacing.cadenceErrorRms < pacedError;

/** A run's usual frame time for a law over pixels: its median, or its mean where the display paces it; ms. */
export const usualFrameMs = (summary: Pick<Summary, "pacing" | "averageFps" | "medianFrameTimeMs">) =>
  summary.medianFrameTimeMs === null
    ? null
    : isPaced(summary)
      ? 1000 / summary.averageFps
      : summary.medianFrameTimeMs;
