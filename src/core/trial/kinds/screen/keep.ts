import type { Settings } from "@/core/kit";
import type { Planned } from "../../facts";
import type { Outcome } from "../../outcome";
import type { Arm } from "../../shapes";

/**
 * Settings that hold once a screening's advice is kept: every switch that helps at its other value, with what is linked to it,
 * and all else as it was. A row that is kept against the advice is kept whole.
 */
export function whatHelps(
  { arms, before, plan }: Planned,
  kept: Arm,
  outcome: Pick<Outcome, "advice" | "effects"> | null,
): Settings {
  const { advice, effects = [] } = outcome ?? {};
  if (!advice || advice.arm === null || arms[advice.arm] !== kept) return kept.settings;
  const changes = (arm: Arm, key: string) => arm.settings[key] !== before.settings[key];
  const helping = effects.filter(({ matters, logGain }) => matters && logGain > 0);
  return helping.reduce((made, { key }) => {
    const rows = arms.filter((arm) => changes(arm, key));
    const [first] = rows;
    if (!first) return made;
    const linked = Object.keys(first.settings).filter(
      (other) => !plan.keys.includes(other) && rows.every((arm) => changes(arm, other)),
    );
    const moved = [key, ...linked].flatMap((each) => {
      const to = first.settings[each];
      return to === undefined ? [] : [[each, to] as const];
    });
    return { ...made, ...Object.fromEntries(moved) };
  }, before.settings);
}
