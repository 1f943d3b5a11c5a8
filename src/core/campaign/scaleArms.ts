import type { PowerMode } from "@/core/kit";
import { mostCampaignArms, type CampaignArm } from "./plan";

/**
 * Arms of every scale in every mode, the one that somebody would rather have first: the largest scale before a
 * smaller one, and of one scale the mode with the least watts; modes without a budget stand behind the others,
 * as the rig lists them.
 * @param base what the arms have in common
 * @param key of the setting that is the scale
 * @param scales in any order; each counts once
 * @param modes none: as it is on the bench
 * @throws RangeError for more than twelve arms, or none
 */
export function scaleArms(
  base: Omit<CampaignArm, "name">,
  key: string,
  scales: readonly number[],
  modes: readonly Pick<PowerMode, "name" | "watts">[],
): CampaignArm[] {
  const levels = [...new Set(scales)].sort((a, b) => b - a);
  const quietFirst = [...modes].sort((a, b) => (a.watts ?? Infinity) - (b.watts ?? Infinity) || 0);
  const arms = levels.flatMap((scale) =>
    (quietFirst.length > 0 ? quietFirst : [null]).map((mode): CampaignArm => ({
      ...base,
      name: [`×${scale}`, mode?.name].filter(Boolean).join(", "),
      conditions: { ...base.conditions, ...(mode && { powerMode: mode.name }) },
      settings: { ...base.settings, [key]: scale },
    })),
  );
  if (arms.length === 0) throw new RangeError("Name a scale.");
  if (arms.length > mostCampaignArms)
    throw new RangeError(
      `${arms.length} arms are too many; ${mostCampaignArms} at most: name fewer scales or modes.`,
    );
  return arms;
}
