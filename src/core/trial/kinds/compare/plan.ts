import type { Settings } from "@/core/kit";
import { makeArm, type Draft, type PlanBase } from "../../drafting";
import { emptyPlan } from "../../shapes";
import type { ArmConditions } from "../../shapesSchema";

/** A change against what is in force. */
export interface PlannedChange {
  name: string;
  settings: Settings;
  conditions: ArmConditions;
  buildId: string | null;
  rounds: number;
  cold: boolean;
}

/**
 * One change against what is in force.
 * @param from conditions as they are, for those that the change sets
 */
export function comparePlan(
  { standing }: Pick<PlanBase, "standing">,
  { name, settings, conditions, buildId, rounds, cold }: PlannedChange,
  from: ArmConditions,
): Draft {
  const held = Object.fromEntries(
    Object.keys(conditions).map((key) => [key, from[key as keyof ArmConditions]]),
  ) as ArmConditions;
  return {
    kind: "compare",
    name,
    rounds,
    cold,
    plan: emptyPlan,
    arms: [
      makeArm("as it is", "as it is", standing.settings, { conditions: held }),
      makeArm(name, "changed", settings, { conditions, buildId }),
    ],
  };
}

/** Everything at its fastest against what is in force. */
export function descendPlan({ standing }: Pick<PlanBase, "standing">, fastest: Settings): Draft {
  return {
    kind: "compare",
    name: "Everything at its fastest",
    rounds: 2,
    cold: false,
    plan: emptyPlan,
    arms: [makeArm("as it is", "as it is", standing.settings), makeArm("all fastest", "changed", fastest)],
  };
}
