import { evidence } from "./sign";
import type { Evidence } from "./shape";

/** The same scene at other internal scales, everything else as it was: median frame time by rendered pixels. */
export interface ScaleResponse {
  /** Pixels and median of the run diagnosed. */
  pixels: number;
  medianMs: number;
  /** Other levels, any order; at least one differing in pixels. */
  others: { pixels: number; medianMs: number; isNative: boolean }[];
  isNative: boolean;
  targetFps: number;
}

/** The same settings with one condition changed: rate now over rate then. */
export interface ConditionResponse {
  what: "more watts" | "less watts" | "forced clocks" | "cooler" | "cap lifted";
  name: string;
  /** Rate under that condition over the rate of the run diagnosed. */
  ratio: number;
}

const endsOf = ({ pixels, medianMs, others, isNative }: ScaleResponse) => {
  const levels = [{ pixels, medianMs, isNative }, ...others];
  return {
    least: levels.reduce((a, b) => (b.pixels < a.pixels ? b : a)),
    most: levels.reduce((a, b) => (b.pixels > a.pixels ? b : a)),
  };
};

/**
 * Share of a run's frame that goes with pixels, from the two ends of the scales tried; null where they don't
 * differ.
 */
export function pixelShareOf(response: ScaleResponse): number | null {
  const { least, most } = endsOf(response);
  if (most.pixels <= least.pixels * 1.05) return null;
  const perPixel = Math.max(0, (most.medianMs - least.medianMs) / (most.pixels - least.pixels));
  return Math.min(1, (perPixel * response.pixels) / response.medianMs);
}

/** Shares of the frame under which pixels hardly matter, and from which they are what matters. */
const hardlyPixels = 0.12,
  mostlyPixels = 0.45;

/**
 * What a change of scale says: dropping to native and still short means it isn't the pixels; else the share of
 * the frame that goes with pixels tells.
 */
export function scaleEvidence(response: ScaleResponse): Evidence[] {
  const share = pixelShareOf(response);
  if (share === null) return [];
  const { least, most } = endsOf(response);
  const allowed = 1000 / response.targetFps;
  if (least.isNative && least.medianMs > allowed * 1.02) {
    const figures = { ms: least.medianMs, allowedMs: allowed };
    return [
      evidence("graphics", "sign.nativeStillSlow", figures, -3.5),
      evidence("processor", "sign.nativeStillSlow", figures),
    ];
  }
  const across = {
    leastMs: least.medianMs,
    leastPixels: least.pixels,
    mostMs: most.medianMs,
    mostPixels: most.pixels,
  };
  if (share < hardlyPixels) return [evidence("graphics", "sign.pixelsHardly", across)];
  return [
    evidence("graphics", "sign.pixels", { part: share, ...across }, share >= mostlyPixels ? undefined : 0.8),
  ];
}

/** Differences smaller than this are the rig's own spread. */
const clear = 0.04;

/** What a changed condition says. */
export function conditionEvidence({ what, name, ratio }: ConditionResponse): Evidence[] {
  if (what === "more watts" && ratio < 1 - clear)
    return [evidence("power split", "sign.moreSlower", { ratio, mode: name })];
  if (what === "less watts" && ratio > 1 + clear)
    return [evidence("power split", "sign.lessFaster", { ratio, mode: name })];
  if (what === "forced clocks" && ratio > 1.15)
    return [evidence("governor", "sign.forcedClocks", { ratio, option: name })];
  if (what === "cooler" && ratio > 1 + clear) return [evidence("heat", "sign.cooler", { ratio })];
  if (what === "cap lifted" && ratio > 1 + clear) return [evidence("cap or sync", "sign.capLifted", { ratio })];
  return [];
}
