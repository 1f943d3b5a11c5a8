import { compareArms, type ArmsOutcome } from "@/core/compare";
import type { Trace } from "@/core/trace";
import type { Said } from "@/core/words";
import { targetFpsOf, type TrialFacts, type Traces } from "../../facts";
import type { PairEffect } from "../../outcome";

export interface CompareReading {
  kind: "compare";
  pairs: PairEffect[];
  best: number[];
  notes: Said[];
}

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
  }));
}

/** Every pair of arms compared; null until every arm has a run. */
export function read(facts: TrialFacts, traces: Traces): CompareReading | null {
  const { trial, runs, nativeFps, rules, noise } = facts;
  const byArm = trial.arms.map((_, arm) =>
    runs.filter((run) => run.arm === arm).flatMap(({ id }): Trace | Trace[] => traces.get(id) ?? []),
  );
  if (byArm.some((own) => own.length === 0)) return null;
  const compared = compareArms(byArm, {
    targetFps: targetFpsOf(facts),
    nativeFps,
    rules: rules.measuring,
    marginPercent: rules.marginPercent,
    // Runs come in the order they were made.
    places: trial.arms.map((_, arm) => runs.flatMap((run, place) => (run.arm === arm ? [place] : []))),
    noise,
  });
  const ownNotes = compared.pairs[0]?.comparison.notes ?? [];
  return {
    kind: "compare",
    pairs: pairEffects(compared),
    best: compared.best,
    notes: [...compared.notes, ...ownNotes],
  };
}
