import { said } from "./codes";
import type { Said } from "@/core/said";
import type { Conditions } from "./rigSchema";

export const strategies = ["climb", "descend", "screen"] as const;
export type Strategy = (typeof strategies)[number];

/** What a job is for: full speed, the best picture that holds, or the fewest watts. */
export const aims = ["speed", "picture", "battery"] as const;
export type Aim = (typeof aims)[number];

export const cacheStates = ["warm", "cold", "unknown"] as const;

/** Conditions that break a job's rules. */
export function conditionWarnings(
  conditions: Pick<Conditions, "pluggedIn" | "docked" | "cooler">,
  requires: { pluggedIn: boolean | null; docked: boolean | null; cooler: boolean | null },
): Said[] {
  return (["pluggedIn", "docked", "cooler"] as const).flatMap((condition) => {
    const is = conditions[condition];
    return requires[condition] === null || is === null || requires[condition] === is
      ? []
      : [said("conditions.against", { condition, is })];
  });
}
