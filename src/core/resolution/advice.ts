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

const times = (n: number) => (n >= 10 ? n.toFixed(0) : n.toFixed(1)).replace(/\.0$/, "");

/** One sentence: which scale to try first, and why. */
export function scaleSentence(plan: ScalePlan, aim: PictureAim = "balanced"): string {
  const scale = scaleFor(plan, aim);
  const row = plan.scales[scale - 1];
  const lines = Math.round(row.linesShown);
  const next = plan.scales[scale];
  const cost = `at ${times(row.costOfNative)} times the pixels of ×1`;
  if (plan.usefulScale === null)
    return `Try ×${scale} first (${row.width}×${row.height}): even the largest scale listed stays under the ${lines} lines the display gives it, ${cost}.`;
  if (scale === plan.usefulScale) {
    const exact = Math.round(row.pastScreen * lines) === 0;
    return `Try ×${scale} first (${row.width}×${row.height}): ${exact ? `it meets the ${lines} lines it is shown at exactly` : `it is the least that fills the ${lines} lines it is shown at`}, ${cost}${next ? `; ×${next.scale} is past the screen and buys only smoothing` : ""}.`;
  }
  return `Try ×${scale} first (${row.width}×${row.height}): it lies within the ${lines} lines it is shown at, ${cost}; ×${plan.usefulScale} would fill them for ${times(plan.scales[plan.usefulScale - 1].costOfNative / row.costOfNative)} times as much.`;
}
