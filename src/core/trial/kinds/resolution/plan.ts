import { withSetting } from "@/core/advise";
import { settingFor, type Setting } from "@/core/kit";
import { makeArm, type Draft, type PlanBase } from "../../drafting";
import { emptyPlan } from "../../shapes";

/** Levels that a sweep begins with at most. */
const firstLevels = 5;

/** Scales worth sweeping: native up to one past what the display shows. */
export function usualScales(setting: Pick<Setting, "min" | "max" | "step">, useful: number | null): number[] {
  const step = setting.step ?? 1;
  const most = Math.min(setting.max ?? 8, (useful ?? 4) + 1),
    least = Math.max(1, setting.min ?? 1);
  const count = Math.max(1, Math.round((most - least) / step) + 1);
  const chosen = (k: number) =>
    least + step * (count <= firstLevels ? k : Math.round((k * (count - 1)) / (firstLevels - 1)));
  return [...new Set(Array.from({ length: Math.min(count, firstLevels) }, (_, k) => chosen(k)))];
}

/** The scale to begin with where one look says which is next: the useful one, else the largest that is likely. */
export function likelyScale(setting: Pick<Setting, "min" | "max" | "step">, useful: number | null): number {
  const scales = usualScales(setting, useful);
  return scales.findLast((scale) => useful === null || scale <= useful) ?? 1;
}

/**
 * A level an arm, the smallest first.
 * @param lifted whether the rate is let free meanwhile, where the engine can
 * @returns null where the engine has no setting for the scale
 */
export function resolutionPlan(
  { standing, catalogue }: Pick<PlanBase, "standing" | "catalogue">,
  levels: number[],
  rounds: number,
  lifted: boolean,
): Draft | null {
  const scale = settingFor(catalogue, "scale");
  if (!scale) return null;
  const hold = lifted ? settingFor(catalogue, "hold rate") : null;
  const during = hold ? { ...standing.settings, [hold.key]: false } : standing.settings;
  const ascending = [...levels].sort((a, b) => a - b);
  return {
    kind: "resolution",
    name: "Which scale",
    rounds,
    cold: false,
    plan: { ...emptyPlan, keys: [scale.key, ...scale.linked] },
    arms: ascending.map((level) => makeArm(`×${level}`, "level", withSetting(during, scale, level), { level })),
  };
}
