import type { RateCandidate, RateDecision, Overdriven } from "./shape";
import {
  averageFps,
  averageRate,
  defaultMeasuring,
  leastFullSpeed,
  windowRates,
  type MeasuringRules,
  type Segment,
} from "@/core/metrics";
import { quantile, seeded } from "@/core/stats";
import type { Floats, Trace } from "@/core/trace";
import { said } from "./codes";
import type { Said } from "@/core/said";
import { heldBlocks, replay, type Pipelining } from "./replay";

export interface RateInput {
  nativeFps: number;
  tied: boolean;
  refreshHz: number;
  /** Rates that patches give, where the title has any. */
  patches?: { name: string; fps: number | null; sideEffects: string }[];
  limiterCountsDouble?: boolean;
  rules?: MeasuringRules;
  /** SD of log average fps from run to run on this rig. */
  runSpread?: number;
}

/** Nothing below this is offered, fps. */
const leastCap = 15;
/** Windows that must hold, and how sure a fresh run must be of it to be recommended. */
const heldEnough = 0.99,
  chanceEnough = 0.9;
/**
 * A fresh run is faster or slower than this one by the rig's spread, twice over, for this one was too: places
 * of five runs that stand for all, in SDs.
 */
const runsAlike = [-1.28, -0.52, 0, 0.52, 1.28];
/** Blocks that a run is drawn anew from, ms, and draws of each. */
const blockMs = 5000,
  draws = 200;
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

type Held = Pick<RateCandidate, "held" | "heldStrict" | "heldLow" | "heldHigh" | "chance">;

/** Readings of a counter can't be replayed: their windows stand as they are. */
const fromReadings = (held: number): Held => ({
  held,
  heldStrict: held,
  heldLow: held,
  heldHigh: held,
  chance: held >= heldEnough ? 1 : 0,
});

/**
 * What would hold behind a cap: the free run's frames replayed by both ways of working, the less patient one
 * counted; once as they were, and as runs that the rig's spread makes faster or slower, each drawn anew from
 * its blocks.
 */
function behindCap(
  workMs: Floats,
  capFps: number,
  refreshHz: number,
  rules: MeasuringRules,
  spread: number,
): Held {
  const least = leastFullSpeed(capFps, rules);
  const random = seeded(1);
  const sum = (list: number[]) => list.reduce((total, each) => total + each, 0);
  const blocksOf = (slower: number, working: Pipelining) =>
    heldBlocks(
      replay(slower === 1 ? workMs : workMs.map((ms) => ms * slower), capFps, refreshHz, working),
      least,
      rules.windowMs,
      blockMs,
    );
  const shareOf = ({ held, all }: { held: number[]; all: number[] }) =>
    all.length > 0 ? sum(held) / sum(all) : 1000 / capFps >= sum([...workMs]) / workMs.length ? 1 : 0;
  const runs = runsAlike.map((z) =>
    (["one ahead", "strict"] as const).map((working) => blocksOf(Math.exp(Math.SQRT2 * spread * z), working)),
  );
  const [ahead, strict] = runs[runsAlike.indexOf(0)].map(shareOf);
  const shares: number[] = [];
  for (const ways of runs) {
    const worst = ways.reduce((a, b) => (shareOf(b) < shareOf(a) ? b : a));
    if (worst.all.length === 0) continue;
    for (let k = 0; k < draws; k++) {
      let held = 0,
        all = 0;
      for (let block = 0; block < worst.all.length; block++) {
        const drawn = random.whole(worst.all.length);
        held += worst.held[drawn];
        all += worst.all[drawn];
      }
      shares.push(held / all);
    }
  }
  const sorted = Float64Array.from(shares).sort();
  const held = Math.min(ahead, strict);
  return sorted.length === 0
    ? fromReadings(held)
    : {
        held,
        heldStrict: strict,
        heldLow: quantile(sorted, 0.05),
        heldHigh: quantile(sorted, 0.95),
        chance: shares.filter((share) => share >= heldEnough).length / shares.length,
      };
}

/**
 * Which rate to lock, from an uncapped trace: the highest that a fresh run should hold in 99 % of windows
 * behind the cap (90 % sure), on an even cadence of the display.
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
    runSpread = 0.02,
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
        ...(trace.form === "frames"
          ? behindCap(trace.frameTimes, each.capFps, refreshHz, rules, runSpread)
          : fromReadings(heldShare(trace, each.capFps, rules))),
        refreshes,
        even: isWhole(refreshes),
        slowMotion: tied && each.patch === null && each.capFps < nativeFps * 0.99,
        limiterValue: limiterValueFor(Math.round(each.capFps * 100) / 100, limiterCountsDouble),
      };
    });
  const free: RateCandidate = {
    capFps: null,
    why: "free",
    ...fromReadings(heldShare(trace, nativeFps, rules)),
    refreshes: null,
    even: false,
    slowMotion: false,
    patch: null,
    limiterValue: null,
  };
  const least = capped.at(-1);
  const candidates: RateCandidate[] = [...capped, free];

  const isAllowed = (each: RateCandidate) =>
    each.capFps !== null &&
    !each.slowMotion &&
    each.patch === null &&
    each.held >= heldEnough &&
    each.chance >= chanceEnough;
  let recommended = candidates.findIndex((each) => isAllowed(each) && each.even);
  if (recommended < 0) recommended = candidates.findIndex(isAllowed);
  let sentence: Said;
  if (recommended >= 0) {
    const { capFps: fps, held, heldLow, chance, why, even, refreshes } = capped[recommended];
    sentence =
      why === "native"
        ? said("rate.native", { fps, held, heldLow, chance })
        : said("rate.lock", {
            fps,
            held,
            heldLow,
            chance,
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

/**
 * Overdriving the emulated machine's own clock lifts low spots at the price of speeding up what was fine: shown
 * scene by scene, averaged over visits.
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
