import { saying } from "@/core/said";

/** Sentences that this folder says, by their codes, with the figures in each; core/words puts them into words. */
export interface CompareCodes {
  "compare.underCap": undefined;
  "compare.borrowedSpread": { sd: number };
  "compare.assumedSpread": { sd: number };
  "compare.oneRun": undefined;
  "compare.orderMixed": undefined;
  "compare.ceiling": undefined;
  "compare.seen": { bound: number };
  "compare.noSpread": undefined;
  "compare.byOrder": { drift: number; spread: number; alone: number };
  "compare.byRounds": undefined;
  "compare.stepped": { after: number; size: number };
  "compare.readings": undefined;
  "compare.manyPairs": { pairs: number };
}

export const said = saying<CompareCodes>();
