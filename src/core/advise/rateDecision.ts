import {
  averageFps,
  averageRate,
  defaultMeasuring,
  leastFullSpeed,
  windowRates,
  type MeasuringRules,
  type Segment,
} from "@/core/metrics";
import type { Trace } from "@/core/trace";
import { said, type Said } from "@/core/words";

export interface RateCandidate {
  /** fps; null runs free. */
  capFps: number | null;
  why: "native" | "divisor of the native rate" | "divisor of the refresh" | "patch" | "free";
  /** Share of one-second windows that would hold it, 0…1; for free, that hold the target. */
  held: number;
  /** Refreshes a frame lasts; whole numbers look even. */
  refreshes: number | null;
  even: boolean;
  /** Below the rate that a tied title's speed hangs on. */
  slowMotion: boolean;
  patch: { name: string; sideEffects: string } | null;
  /** What to write for a limiter: twice the rate where it counts double. */
  limiterValue: number | null;
}

export interface RateDecision {
  candidates: RateCandidate[];
  /** Index into candidates. */
  recommended: number;
  averageFps: number;
  sentence: Said;
}

export interface RateInput {
  nativeFps: number;
  tied: boolean;
  refreshHz: number;
  /** Rates that patches give, where the title has any. */
  patches?: { name: string; fps: number | null; sideEffects: string }[];
  limiterCountsDouble?: boolean;
  rules?: MeasuringRules;
}

/** Nothing below this is offered, fps. */
const leastCap = 15;
/** Windows that must hold. */
const heldEnough = 0.99;
const isWhole = (refreshes: number) => Math.abs(refreshes - Math.round(refreshes)) < 0.01;

/** @example limiterValueFor(60, true) // → 120 */
export const limiterValueFor = (capFps: number, countsDouble: boolean) => (countsDouble ? 2 * capFps : capFps);
/** @example limiterRate(240, true) // → 120 */
export const limiterRate = (value: number, countsDouble: boolean) => (countsDouble ? value / 2 : value);

/** Share of running time whose window holds a rate. */
function heldShare(trace: Trace, capFps: number, rules: MeasuringRules): number {
  const least = leastFullSpeed(capFps, rules);
  const steps = trace.form === "frames" ? trace.frameTimes : trace.durations;
  const rates = trace.form === "frames" ? windowRates(trace.frameTimes, rules.windowMs) : trace.rates;
  let holding = 0,
    all = 0;
  for (let i = 0; i < steps.length; i++) {
    if (rates[i] !== rates[i]) continue;
    all += steps[i];
    if (rates[i] >= least) holding += steps[i];
  }
  return all > 0 ? holding / all : averageFps(Float64Array.from(steps)) >= least ? 1 : 0;
}

/**
 * Which rate to lock, from an uncapped trace: the highest that at least 99 % of windows hold, on an even cadence of the display.
 *
 * A tied title is never capped below its own rate: that is slow motion. Where nothing holds, it says so.
 *
 * @param trace uncapped, at least one window long
 */
export function decideRate(
  trace: Trace,
  {
    nativeFps,
    tied,
    refreshHz,
    patches = [],
    limiterCountsDouble = false,
    rules = defaultMeasuring,
  }: RateInput,
): RateDecision {
  const caps = new Map<string, Pick<RateCandidate, "why" | "patch"> & { capFps: number }>();
  const offer = (capFps: number, why: RateCandidate["why"], patch: RateCandidate["patch"] = null) => {
    const key = `${patch?.name ?? ""} ${capFps.toFixed(1)}`;
    if (capFps >= leastCap - 1e-9 && capFps <= refreshHz * 1.01 && !caps.has(key))
      caps.set(key, { capFps, why, patch });
  };
  offer(nativeFps, "native");
  for (let k = 2; nativeFps / k >= leastCap; k++) offer(nativeFps / k, "divisor of the native rate");
  for (let k = 1; refreshHz / k >= leastCap; k++)
    if (refreshHz / k < nativeFps * 0.99) offer(refreshHz / k, "divisor of the refresh");
  for (const { name, fps, sideEffects } of patches)
    if (fps !== null) offer(fps, "patch", { name, sideEffects });
  const average =
    trace.form === "frames" ? averageFps(trace.frameTimes) : averageRate(trace.durations, trace.rates);
  const capped = [...caps.values()]
    .sort((a, b) => b.capFps - a.capFps)
    .map((each) => {
      const refreshes = refreshHz / each.capFps;
      return {
        ...each,
        held: heldShare(trace, each.capFps, rules),
        refreshes,
        even: isWhole(refreshes),
        slowMotion: tied && each.patch === null && each.capFps < nativeFps * 0.99,
        limiterValue: limiterValueFor(Math.round(each.capFps * 100) / 100, limiterCountsDouble),
      };
    });
  const free: RateCandidate = {
    capFps: null,
    why: "free",
    held: heldShare(trace, nativeFps, rules),
    refreshes: null,
    even: false,
    slowMotion: false,
    patch: null,
    limiterValue: null,
  };
  const least = capped.at(-1);
  const candidates: RateCandidate[] = [...capped, free];

  const fits = (each: RateCandidate) =>
    each.capFps !== null && !each.slowMotion && each.patch === null && each.held >= heldEnough;
  let recommended = candidates.findIndex((each) => fits(each) && each.even);
  if (recommended < 0) recommended = candidates.findIndex(fits);
  let sentence: Said;
  if (recommended >= 0) {
    const { capFps: fps, held, why, even, refreshes } = capped[recommended];
    sentence =
      why === "native"
        ? said("rate.native", { fps, held })
        : said("rate.lock", {
            fps,
            held,
            refreshes: even ? Math.round(refreshes ?? 0) : null,
            average,
            freeHeld: free.held,
            nativeFps,
          });
  } else if (tied) {
    recommended = candidates.findIndex(({ why }) => why === "native");
    sentence = said("rate.tied", { nativeFps, held: candidates[recommended].held });
  } else {
    recommended = candidates.length - 1;
    const leastFps = least?.capFps ?? nativeFps;
    sentence = said("rate.free", { leastFps, average });
  }
  return { candidates, recommended, averageFps: average, sentence };
}

/** What overdriving the emulated clock did, scene by scene. */
export interface Overdriven {
  label: string;
  before: number;
  after: number;
  /** `lifted` was slow and gained; `sped up` was fine and now runs too fast; `no change` within 2 %. */
  effect: "lifted" | "sped up" | "no change" | "slower";
}

/**
 * Overdriving the emulated machine's own clock lifts low spots at the price of speeding up what was fine: shown scene by scene, averaged over visits.
 * @param before scenes at the usual clock; @param after the same overdriven
 */
export function overdriveByScene(
  before: Pick<Segment, "label" | "averageFps">[],
  after: Pick<Segment, "label" | "averageFps">[],
  nativeFps: number,
): Overdriven[] {
  const meanFor = (segments: typeof before, label: string) => {
    const own = segments.filter((segment) => segment.label === label);
    return own.length === 0 ? null : own.reduce((sum, segment) => sum + segment.averageFps, 0) / own.length;
  };
  return [...new Set(before.map(({ label }) => label))].flatMap((label) => {
    const was = meanFor(before, label),
      is = meanFor(after, label);
    if (was === null || is === null) return [];
    const ratio = is / was;
    const effect: Overdriven["effect"] =
      ratio < 0.98 ? "slower" : ratio <= 1.02 ? "no change" : was >= 0.98 * nativeFps ? "sped up" : "lifted";
    return [{ label, before: was, after: is, effect }];
  });
}

/** The arm that caps at the recommended rate; null where no cap is recommended or no arm has it. */
export function recommendedArm(
  { candidates, recommended }: Pick<RateDecision, "candidates" | "recommended">,
  arms: { level: number | null }[],
): number | null {
  const cap = candidates[recommended].capFps;
  const arm = arms.findIndex(({ level }) => level === cap);
  return cap === null || arm < 0 ? null : arm;
}
