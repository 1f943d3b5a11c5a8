import { valueWords } from "@/core/kit";
import type { Draft } from "./drafting";
import type { Planned } from "./shape";
import { comparePlan } from "./kinds/compare/plan";
import { movedBy } from "./kinds/screen/keep";

/** A trial of its own for one lead of a screening: that switch against what was in force, by two rounds. */
export const leadPlan = (trial: Planned, key: string, label: string): Draft => {
  const moved = movedBy(trial, key);
  return comparePlan(
    { standing: { settings: trial.before.settings, conditions: {} } },
    {
      name: `${label} ${valueWords(moved[key])}, alone`,
      settings: { ...trial.before.settings, ...moved },
      conditions: {},
      buildId: null,
      rounds: 2,
      cold: false,
    },
    {},
  );
};
