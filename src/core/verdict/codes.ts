import type { Grade } from "./grades";
import { saying } from "@/core/said";

/** Sentences that this folder says, by their codes, with the figures in each; core/words puts them into words. */
export interface VerdictCodes {
  "verdict.counterDisagrees": { fps: number; speedPercent: number };
  "verdict.tooFast": { speedPercent: number };
  "verdict.tooShort": { seconds: number; wanted: number };
  "verdict.tooFewReadings": { readings: number; wanted: number };
  "verdict.justUnder": { slowestFps: number; wantedFps: number };
  "verdict.asWholeNumbersTell": undefined;
  "verdict.straddles": {
    worse: Grade;
    better: Grade;
    low: number;
    high: number;
  };
  "verdict.spikes": {
    periodMs: number;
    extraMs: number;
    count: number;
  };
  "verdict.fromReadings": undefined;
}

export const said = saying<VerdictCodes>();
