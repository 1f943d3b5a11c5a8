import { saying } from "@/core/said";

/** Sentences that this folder says, by their codes, with the figures in each; core/words puts them into words. */
export interface CaptureCodes {
  "capture.measured": { captureFps: number; low: number; high: number };
  "capture.ceiling": { averageFps: number };
  "capture.unsure": { unsure: number; of: number };
  "capture.clock": { speed: number; low: number; high: number };
  "capture.counter": { shown: number; averageFps: number };
}

export const said = saying<CaptureCodes>();
