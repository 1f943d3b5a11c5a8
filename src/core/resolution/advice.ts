import { said } from "./codes";
import type { Said } from "@/core/said";
import type { ScalePlan } from "./scales";

/** What a tuner is after when choosing a scale. */
export const pictureAims = ["sharp", "balanced", "smooth"] as const;
export type PictureAim = (typeof pictureAims)[number];

/**
 * The scale to try first: the useful one when sharp, one under it when balanced (or the useful one where it
 * costs less than the display's own pixels), the last that lies within the display when smooth.
 */
export function scaleFor({ scales, usefulScale }: ScalePlan, aim: PictureAim): number {
  const useful = usefulScale ?? scales[scales.length - 1].scale;
  if (aim === "sharp") return useful;
  const within = Math.max(
    1,
    ...scales.filter(({ isWithin, scale }) => isWithin && scale <= useful).map(({ scale }) => scale),
  );
  if (aim === "smooth") return Math.max(1, Math.min(within, useful - 1));
  return scales[useful - 1].displayShare <= 1.25 ? useful : within;
}

/** Which scale to try first, and why. */
export function scaleAdvice(plan: ScalePlan, aim: PictureAim = "balanced"): Said {
  const scale = scaleFor(plan, aim);
  const { width, height, linesShown, costOfNative: cost, pastScreen } = plan.scales[scale - 1];
  const lines = Math.round(linesShown);
  const of = { scale, width, height, cost, lines };
  if (plan.usefulScale === null) return said("scale.underAll", of);
  if (scale === plan.usefulScale) {
    const next = scale < plan.scales.length ? scale + 1 : null;
    return Math.round(pastScreen * lines) === 0
      ? said("scale.exact", { ...of, next })
      : said("scale.fills", { ...of, next });
  }
  const useful = plan.scales[plan.usefulScale - 1];
  return said("scale.within", {
    ...of,
    useful: useful.scale,
    usefulCost: useful.costOfNative / cost,
  });
}
