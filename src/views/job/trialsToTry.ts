import { allFastest, type Suggestion } from "@/core/advise";
import type { Holding } from "@/core/job";
import type { Setting } from "@/core/kit";
import type { Standing } from "@/core/profile";
import { comparePlan, descendPlan, type Draft } from "@/core/trial";
import type { HouseRules } from "@/core/verdict";
import { valueWords } from "@/core/words";

/** The trial of a lever that was suggested: against what holds, two rounds; by eye one look each. */
export function trialOfLever(lever: Suggestion["lever"], holds: Holding, byEye: boolean): Draft {
  return comparePlan(
    { standing: holds },
    {
      name: `${lever.label} ${valueWords(lever.to)}`,
      settings: lever.settings,
      conditions: lever.conditions,
      buildId: null,
      rounds: byEye ? 1 : 2,
      cold: false,
    },
    holds.conditions,
  );
}

/** The trial that everything at its fastest begins with. */
export const descentFrom = (standing: Standing, catalogue: Setting[], rules: HouseRules): Draft =>
  descendPlan({ standing }, allFastest(catalogue, standing.settings, rules));
