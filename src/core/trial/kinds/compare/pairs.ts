import type { ArmsOutcome } from "@/core/compare";
import type { PairEffect } from "../../shape";

/** The pairs of a comparison as a trial keeps them. */
export function pairEffects({ pairs }: ArmsOutcome): PairEffect[] {
  return pairs.map(({ a, b, by, p, decision, comparison }) => ({
    a,
    b,
    by,
    p,
    decision,
    ...comparison.averageFps,
    worstTimeLow: comparison.worstTimeLow,
    fullSpeedTime: comparison.fullSpeedTime,
    hitchesPerMinute: comparison.hitchesPerMinute,
    barred: comparison.barred,
    moreRunsPerSide: comparison.moreRunsPerSide,
    chanceSettled: comparison.chanceSettled,
    steps: comparison.steps,
  }));
}
