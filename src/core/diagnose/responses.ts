import type { Evidence } from "./causes";

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

/** Share of a run's frame that goes with pixels, from the two ends of the scales tried; null where they don't differ. */
export function pixelShareOf(response: ScaleResponse): number | null {
  const { least, most } = endsOf(response);
  if (most.pixels <= least.pixels * 1.05) return null;
  const perPixel = Math.max(0, (most.medianMs - least.medianMs) / (most.pixels - least.pixels));
  return Math.min(1, (perPixel * response.pixels) / response.medianMs);
}

/**
 * What a change of scale says: dropping to native and still short means it isn't the pixels; else the share of the frame
 * that goes with pixels tells.
 */
export function scaleEvidence(response: ScaleResponse): Evidence[] {
  const share = pixelShareOf(response);
  if (share === null) return [];
  const { least, most } = endsOf(response);
  const allowed = 1000 / response.targetFps;
  if (least.isNative && least.medianMs > allowed * 1.02) {
    const words = `Even at native resolution a frame takes ${least.medianMs.toFixed(1)} ms of the ${allowed.toFixed(1)} allowed: not the pixels.`;
    return [
      { cause: "graphics", weight: -3.5, words },
      { cause: "processor", weight: 1.2, words },
    ];
  }
  const across = `${least.medianMs.toFixed(1)} ms at ${(least.pixels / 1e6).toFixed(2)} Mpx, ${most.medianMs.toFixed(1)} ms at ${(most.pixels / 1e6).toFixed(2)} Mpx`;
  if (share < 0.12) return [{ cause: "graphics", weight: -3, words: `Pixels hardly matter: ${across}.` }];
  return [
    {
      cause: "graphics",
      weight: share >= 0.45 ? 3.5 : 0.8,
      words: `About ${(100 * share).toFixed(0)} % of the frame goes with pixels: ${across}.`,
    },
  ];
}

/** Differences smaller than this are the rig's own spread. */
const clear = 0.04;

/** What a changed condition says. */
export function conditionEvidence({ what, name, ratio }: ConditionResponse): Evidence[] {
  const change = `${ratio >= 1 ? "+" : "−"}${Math.abs(100 * (ratio - 1)).toFixed(0)} %`;
  if (what === "more watts" && ratio < 1 - clear)
    return [{ cause: "power split", weight: 2, words: `More power made it slower: ${change} in ${name}.` }];
  if (what === "less watts" && ratio > 1 + clear)
    return [{ cause: "power split", weight: 4, words: `Less power makes it faster: ${change} in ${name}.` }];
  if (what === "forced clocks" && ratio > 1.15)
    return [{ cause: "governor", weight: 3, words: `Clocks set to ${name} give ${change}.` }];
  if (what === "cooler" && ratio > 1 + clear)
    return [{ cause: "heat", weight: 3, words: `A cooler gives ${change}.` }];
  if (what === "cap lifted" && ratio > 1 + clear)
    return [{ cause: "cap or sync", weight: 3.5, words: `With the cap lifted it runs ${change}.` }];
  return [];
}
