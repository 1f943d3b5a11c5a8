import { makeArm, type Draft, type PlanBase } from "../../drafting";
import { emptyPlan } from "../../shapes";

/** One long run with memory logged. */
export function memoryPlan({ standing }: Pick<PlanBase, "standing">, minutes: number): Draft {
  return {
    kind: "memory",
    name: "How long memory lasts",
    rounds: 1,
    cold: false,
    plan: { ...emptyPlan, minutes },
    arms: [makeArm("as it is", "as it is", standing.settings)],
  };
}
