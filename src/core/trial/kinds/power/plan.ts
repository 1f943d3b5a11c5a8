import { makeArm, type Draft, type PlanBase } from "../../drafting";
import { emptyPlan } from "../../shapes";

/** Where a device is used: in the hand, on a dock, at the mains. */
export const playedAt = {
  handheld: { docked: false, pluggedIn: false },
  docked: { docked: true, pluggedIn: true },
  "plugged in": { docked: false, pluggedIn: true },
} as const;
export type Place = keyof typeof playedAt;

/** Every chosen mode, in every chosen place; without places, as it lies now. */
export function powerPlan(
  { standing, spec }: Pick<PlanBase, "standing" | "spec">,
  modes: string[],
  rounds: number,
  elsewhereWatts: number | null,
  where: Place[] = [],
): Draft {
  const chosen = spec.powerModes.filter(({ name }) => modes.includes(name));
  const inMode = (name: string, powerMode: string, level: number | null, place: Place | null) =>
    makeArm(name, "level", standing.settings, {
      level,
      conditions: { powerMode, ...(place ? playedAt[place] : {}) },
    });
  return {
    kind: "power",
    name: where.length > 1 ? "Handheld, docked, plugged in" : "Which power mode",
    rounds,
    cold: false,
    plan: { ...emptyPlan, elsewhereWatts },
    arms: chosen.flatMap(({ name, watts }) =>
      where.length === 0
        ? [inMode(name, name, watts, null)]
        : where.map((place) => inMode(`${name}, ${place}`, name, watts, place)),
    ),
  };
}
