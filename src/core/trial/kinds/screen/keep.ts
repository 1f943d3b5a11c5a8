import type { Settings } from "@/core/kit";
import type { Planned } from "../../shape";
import type { Outcome } from "../../shape";
import type { Arm } from "../../shapesSchema";

/**
 * Settings that hold once a screening's advice is kept: every switch that helps at its other value, with what
 * is linked to it, and all else as it was. A row that is kept against the advice is kept whole.
 */
export function whatHelps(
  { arms, before, plan }: Planned,
  kept: Arm,
  outcome: Pick<Outcome, "advice" | "effects"> | null,
): Settings {
  const { advice, effects = [] } = outcome ?? {};
  if (!advice || advice.arm === null || arms[advice.arm] !== kept) return kept.settings;
  const helping = effects.filter(({ matters, logGain }) => matters && logGain > 0);
  return helping.reduce(
    (made, { key }) => ({ ...made, ...movedBy({ arms, before, plan }, key) }),
    before.settings,
  );
}

/** What one switch of a screening moves: itself and what is linked to it, at their other values. */
export function movedBy(
  { arms, before, plan }: Pick<Planned, "arms" | "before" | "plan">,
  key: string,
): Settings {
  const changes = (arm: Arm, each: string) => arm.settings[each] !== before.settings[each];
  const rows = arms.filter((arm) => changes(arm, key));
  const [first] = rows;
  if (!first) return {};
  const linked = Object.keys(first.settings).filter(
    (other) => !plan.keys.includes(other) && rows.every((arm) => changes(arm, other)),
  );
  return Object.fromEntries(
    [key, ...linked].flatMap((each) => {
      const to = first.settings[each];
      return to === undefined ? [] : [[each, to] as const];
    }),
  );
}
