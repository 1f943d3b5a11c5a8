import { makeArm, type Draft, type PlanBase } from "../../drafting";
import { emptyPlan } from "../../shapes";

/** One long run, or one bare and one with the cooler on. */
export function heatPlan(
  { standing, spec }: Pick<PlanBase, "standing" | "spec">,
  minutes: number,
  cooler: boolean,
): Draft {
  const arms =
    cooler && spec.cooling.coolerToHand
      ? [
          makeArm("bare", "level", standing.settings, { conditions: { cooler: false } }),
          makeArm("cooler on", "level", standing.settings, { conditions: { cooler: true } }),
        ]
      : [makeArm("as it is", "as it is", standing.settings)];
  return {
    kind: "heat",
    name: arms.length > 1 ? "With and without the cooler" : "Where heat settles",
    rounds: 1,
    cold: false,
    plan: { ...emptyPlan, minutes },
    arms,
  };
}
