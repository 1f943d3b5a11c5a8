import { makeArm, type Draft, type PlanBase } from "../../drafting";
import { emptyPlan } from "../../shapes";

/** Clock options in their order, a step an arm. */
export function clocksPlan(
  { standing, spec }: Pick<PlanBase, "standing" | "spec">,
  options: string[],
  soakMinutes: number,
): Draft {
  const steps = spec.clockOptions.filter((option) => options.includes(option));
  return {
    kind: "clocks",
    name: "Clock ladder",
    rounds: 1,
    cold: false,
    plan: { ...emptyPlan, soakMinutes },
    arms: steps.map((option, step) =>
      makeArm(option, "level", standing.settings, { level: step + 1, conditions: { clocks: option } }),
    ),
  };
}
