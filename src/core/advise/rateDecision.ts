import type { RateCandidate, RateDecision, Overdriven } from "./shape";
import {
  averageFps,
  averageRate,
  defaultMeasuring,
  hitches,
  leastFullSpeed,
  windowRates,
  type MeasuringRules,
  type Segment,
} from "@/core/metrics";
import { mean, quantile, seeded } from "@/core/stats";
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
  /** How the engine works behind a cap; left out where nobody knows. */
  working?: Pipelining;
  /** Runs of the same work behind a cap; they tell how the engine works. */
  capped?: { capFps: number; frameTimes: Floats }[];
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

type Held = Pick<RateCandidate, "held" | "heldStrict" | "heldLow" | "heldHigh" | "chance"> &
  Partial<Pick<RateCandidate, "heldWithHitches">>;

/** More hitches a minute than these are the title's own work, and count against a cap. */
const mostHitches = 4;

/** Frames of a run without its rare hitches, each made as long as its neighbours; and how many there were. */
function withoutHitches(
  frameTimes: Floats,
  rules: MeasuringRules,
): { calm: Floats; found: number; minutes: number } {
  const minutes = (frameTimes.length * mean(frameTimes)) / 60_000;
  const found = hitches(frameTimes, rules);
  if (found.length === 0 || found.length > mostHitches * minutes)
    return { calm: frameTimes, found: 0, minutes };
  const calm = Float64Array.from(frameTimes);
  for (const { index, frameMs, lostMs } of found) calm[index] = frameMs - lostMs;
  return { calm, found: found.length, minutes };
}

/**
 * How an engine works, by what it showed behind a cap: the way whose replay comes nearer to what was held.
 * @returns null where both ways would have shown as much
 */
function workingOf(
  workMs: Floats,
  capped: NonNullable<RateInput["capped"]>,
  refreshHz: number,
  rules: MeasuringRules,
): Pipelining | null {
  let [ahead, strict] = [0, 0];
  for (const { capFps, frameTimes } of capped) {
    const shareOf = (times: Floats) =>
      heldShare({ form: "frames", frameTimes: times, channels: [], marks: [] }, capFps, rules);
    const seen = shareOf(frameTimes);
    ahead += Math.abs(shareOf(replay(workMs, capFps, refreshHz, "one ahead")) - seen);
    strict += Math.abs(shareOf(replay(workMs, capFps, refreshHz, "strict")) - seen);
  }
  if (Math.abs(ahead - strict) < tellsApart) return null;
  return ahead < strict ? "one ahead" : "strict";
}
/** Difference of two replays' distance from what was seen that tells them apart, as a share of windows. */
const tellsApart = 0.02;

/** Readings of a counter can't be replayed: their windows stand as they are. */
const fromReadings = (held: number): Held => ({
  held,
  heldStrict: held,
  heldLow: held,
  heldHigh: held,
  chance: held >= heldEnough ? 1 : 0,
});

/**
 * What would hold behind a cap: the free run's frames replayed by both ways of working, the engine's own counted,
 * or working a frame ahead where nobody knows; once as they were, and as runs that the rig's spread makes faster
 * or slower, each drawn anew from its blocks.
 */
function behindCap(
  workMs: Floats,
  capFps: number,
  refreshHz: number,
  rules: MeasuringRules,
  spread: number,
  working: Pipelining | null,
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
  const counted = working ?? "one ahead";
  const strict = shareOf(blocksOf(1, "strict"));
  const held = counted === "strict" ? strict : shareOf(blocksOf(1, counted));
  const shares: number[] = [];
  for (const z of runsAlike) {
    const blocks = blocksOf(Math.exp(Math.SQRT2 * spread * z), counted);
    if (blocks.all.length === 0) continue;
    for (let k = 0; k < draws; k++) {
      let holding = 0,
        all = 0;
      for (let block = 0; block < blocks.all.length; block++) {
        const drawn = random.whole(blocks.all.length);
        holding += blocks.held[drawn];
        all += blocks.all[drawn];
      }
      shares.push(holding / all);
    }
  }
  const sorted = Float64Array.from(shares).sort();
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
 * Chance that a fresh minute has no hitch, after so many in so long: Poisson with the usual gamma prior of a half
 * (Jeffreys), so that hitches not seen yet count.
 */
const quietMinute = (found: number, minutes: number) => (minutes / (minutes + 1)) ** (found + 0.5);

/**
 * Which rate to lock, from an uncapped trace: the highest that a fresh run should hold in 99 % of windows
 * behind the cap (90 % sure), on an even cadence of the display.
 *
 * Rare hitches are no matter of a cap: windows are judged without them, and told with them beside it. Where nobody
 * knows how the engine works behind a cap and that matters, the sentence asks.
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
    working: known,
    capped: seen = [],
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
  const { calm, found, minutes } =
    trace.form === "frames"
      ? withoutHitches(trace.frameTimes, rules)
      : { calm: new Float64Array(0), found: 0, minutes: 0 };
  const working = known ?? (seen.length > 0 ? workingOf(calm, seen, refreshHz, rules) : null);
  const average =
    trace.form === "frames" ? averageFps(trace.frameTimes) : averageRate(trace.durations, trace.rates);
  const capped = [...caps.values()]
    .sort((a, b) => b.capFps - a.capFps)
    .map((each) => {
      const refreshes = refreshHz / each.capFps;
      return {
        ...each,
        ...(trace.form === "frames"
          ? {
              ...behindCap(calm, each.capFps, refreshHz, rules, runSpread, working),
              ...(found > 0 && {
                heldWithHitches: heldShare(
                  {
                    ...trace,
                    frameTimes: replay(trace.frameTimes, each.capFps, refreshHz, working ?? "one ahead"),
                  },
                  each.capFps,
                  rules,
                ),
              }),
            }
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
    const {
      capFps: fps,
      held,
      heldLow,
      heldStrict,
      heldWithHitches,
      chance,
      why,
      even,
      refreshes,
    } = capped[recommended];
    const sure = {
      held,
      heldLow,
      chance,
      ...(heldWithHitches !== undefined && {
        hitches: {
          perMinute: found / minutes,
          held: heldWithHitches,
          quietMinute: quietMinute(found, minutes),
        },
      }),
      // Nobody knows how the engine works, and it matters.
      ...(working === null && heldStrict < heldEnough && { strict: heldStrict }),
    };
    sentence =
      why === "native"
        ? said("rate.native", { fps, ...sure })
        : said("rate.lock", {
            fps,
            ...sure,
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
