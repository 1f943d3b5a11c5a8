import type { ScreeningReading } from "./shape";
import { isMixed, screeningEffects, type Design } from "@/core/advise";
import { effectiveFps } from "@/core/compare";
import type { TrialFacts } from "../../facts";
import { labelIn } from "../../kind";

/**
 * Rows of the design that were run, as signs of its factors: + where a setting differs from what was in force.
 */
export function designOf({ trial }: Pick<TrialFacts, "trial">): Design {
  const { keys } = trial.plan;
  return trial.arms.map(({ settings }) =>
    keys.map((key) => (settings[key] === trial.before.settings[key] ? -1 : 1)),
  );
}

/** Main effects; null until half of the rows are in. */
export function read(facts: TrialFacts): ScreeningReading | null {
  const { trial, runs, noise, catalogue } = facts;
  const rates = trial.arms.map((_, arm) => {
    const own = runs.filter((run) => run.arm === arm);
    const logs = own.map(({ summary, yardstick }) => Math.log(effectiveFps(summary, yardstick.nativeFps)));
    return logs.length === 0 ? null : logs.reduce((sum, log) => sum + log, 0) / logs.length;
  });
  if (rates.filter((rate) => rate !== null).length * 2 < trial.arms.length) return null;
  const design = designOf(facts);
  const effects = screeningEffects(design, rates, noise).map((effect) => {
    const key = trial.plan.keys[effect.factor] ?? "";
    return { ...effect, key, label: labelIn(catalogue, key) };
  });
  return { kind: "screen", effects, mixed: isMixed(design, rates) };
}
