import { foldedOver, screeningDesign, withSetting } from "@/core/advise";
import type { Setting, SettingValue } from "@/core/kit";
import { makeArm, type Draft, type PlanBase } from "../../drafting";
import { emptyPlan } from "../../shapes";

/** A setting's other value for a screening: its fastest, or the other side of a switch or choice. */
export function otherSide(setting: Setting, from: SettingValue): SettingValue | null {
  if (setting.fastest !== null && setting.fastest !== from) return setting.fastest;
  if (setting.type === "switch") return !from;
  if (setting.type === "choice") return setting.choices.find((choice) => choice !== from) ?? null;
  return setting.fastest === from && setting.default !== from ? setting.default : null;
}

/**
 * A Plackett–Burman design over some settings, folded over: a row an arm. @param keys of settings in the
 * catalogue, 2 … 23
 */
export function screeningPlan(
  { standing, catalogue }: Pick<PlanBase, "standing" | "catalogue">,
  keys: string[],
): Draft {
  const factors = keys.flatMap((key) => catalogue.find((setting) => setting.key === key) ?? []);
  const arms = foldedOver(screeningDesign(factors.length)).map((row, index) => {
    const settings = factors.reduce((made, setting, k) => {
      const other = otherSide(setting, standing.settings[setting.key] ?? setting.default);
      return (row[k] ?? -1) > 0 && other !== null ? withSetting(made, setting, other) : made;
    }, standing.settings);
    return makeArm(`row ${index + 1}`, "row", settings);
  });
  return {
    kind: "screen",
    name: `Screening of ${keys.length} switches`,
    rounds: 1,
    cold: false,
    plan: { ...emptyPlan, keys },
    arms,
  };
}
