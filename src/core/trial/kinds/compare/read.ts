import type { CompareReading } from "./shape";
import { compareArms } from "@/core/compare";
import type { Trace } from "@/core/trace";
import { targetFpsOf, type TrialFacts, type Traces } from "../../facts";
import { pairEffects } from "./pairs";

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
