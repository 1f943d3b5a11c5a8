import type { Step } from "@/core/compare";

/** Sentences that the server and pages say by themselves, with the figures in each. */
export interface WordsCodes {
  "caution.cool": { celsius: number };
  "compare.further": { steps: Step[] };
  "drift.caches": { warmOverCold: boolean };
  "refused.unread": { why: string };
  "remedy.chooseAgain": undefined;
}
