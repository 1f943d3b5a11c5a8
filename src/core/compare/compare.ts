import { mean } from "@/core/stats";
import type { Trace } from "@/core/trace";
import { said } from "./codes";
import type { Said } from "@/core/said";
import type { Step } from "./shape";
import { decide, type Decision } from "./decide";
import { likelyDrift } from "./likelyDrift";
import {
  boundOf,
  effectOf,
  fitAll,
  measureArms,
  type CompareOptions,
  type FittedArms,
  type MeasuredArms,
} from "./fitArms";
import { furtherRuns } from "./furtherRuns";
import { mixedWithOrder } from "./places";
import type { FigureName } from "./measuredRun";

export interface ComparedArm {
  runs: number;
  averageFps: number;
}

/**
 * B over A. Ratios and differences with their 95 % intervals; null where a side's form, or one run a side,
 * can't say.
 */
export interface Comparison {
  arms: { a: ComparedArm; b: ComparedArm };
  averageFps: { ratio: number; low: number; high: number };
  worstTimeLow: { ratio: number; low: number; high: number } | null;
  fullSpeedTime: { difference: number; low: number; high: number } | null;
  hitchesPerMinute: { difference: number; low: number; high: number } | null;
  decision: Decision;
  /** Why it can't be called, whatever its interval; null where it can. */
  barred: Said | null;
  /** Further runs a side that should settle it, eight at most; 0 where it is settled. */
  moreRunsPerSide: number;
  /** Chance that so many settle it, 0…1; 1 where it is settled. */
  chanceSettled: number;
  /** The next steps and the chance that each settles it; none where it is settled. */
  steps: Step[];
  /** Two-sided p of the log ratio, for correcting many looks. */
  p: number;
  notes: Said[];
}

/** No device drifts, and no single pair of runs differs by chance, by so much. */
const huge = Math.log(1.5);
/** Share of an arm's place that the order explains from which order and change can't be told apart. */
const mixedFrom = 0.5;
/** Repeats from which a floor carries one run a side. */
const measuredFreedom = 6;

/** Whether a side has one run alone. */
const isOneLook = (arms: MeasuredArms["arms"], a: number, b: number) =>
  Math.min(arms[a]?.length ?? 0, arms[b]?.length ?? 0) === 1;

/** Why a difference can't be called, whatever its interval: an order that can't be told from the change. */
function whyNot({ arms, places }: MeasuredArms, a: number, b: number): Said | null {
  // With one run of a side nothing else can be done: it is called by what is believed of rigs, and said.
  if (places === null || isOneLook(arms, a, b)) return null;
  const mixed = mixedWithOrder(places[a] ?? [], places[b] ?? []);
  return mixed > mixedFrom ? said("compare.orderMixed") : null;
}

/**
 * A side that may have been faster than its video could show can lose no comparison, and be called equal in
 * none.
 */
function atCeiling({ arms }: MeasuredArms, a: number, b: number, found: Decision): Said | null {
  const [topA, topB] = [a, b].map((arm) => arms[arm]?.some(({ ceiling }) => ceiling) ?? false);
  const holds = (found === "better" && !topA) || (found === "worse" && !topB);
  return (topA || topB) && !holds ? said("compare.ceiling") : null;
}

/** What can't be: a share of time lies in 0…100, and neither side loses more hitches than it has. */
function possible(figure: FigureName, levels: [a: number, b: number], half: number) {
  const most = figure === "fullSpeedTime" ? 100 : Infinity;
  const top = (level: number) => Math.min(most, Math.max(0, level) + half);
  return { low: -top(levels[0]), high: top(levels[1]) };
}

/** One pair of measured arms, compared: b over a. */
export function comparePair(
  measured: MeasuredArms,
  fitted: Record<FigureName, FittedArms | null>,
  a: number,
  b: number,
  { marginPercent = 2, seed = 1 }: Pick<CompareOptions, "marginPercent" | "seed">,
): Comparison {
  const { arms, places, noise, underCap } = measured;
  if (!fitted.averageFps) throw new RangeError("runs have an average");
  const average = effectOf(fitted.averageFps, a, b);
  const asRatio = ({ estimate, low, high }: typeof average) => ({
    ratio: Math.exp(estimate),
    low: Math.exp(low),
    high: Math.exp(high),
  });
  const differenceOf = (figure: "fullSpeedTime" | "hitchesPerMinute") => {
    const own = fitted[figure];
    if (!own) return null;
    const { estimate, low, high } = effectOf(own, a, b);
    const levelOf = (arm: number) => mean((arms[arm] ?? []).map((run) => run.values[figure] ?? 0));
    const bounds = possible(figure, [levelOf(a), levelOf(b)], (high - low) / 2);
    return { difference: estimate, low: Math.max(low, bounds.low), high: Math.min(high, bounds.high) };
  };
  const margin = Math.log(1 + marginPercent / 100);
  const found = decide(average, margin);
  const barred =
    atCeiling(measured, a, b, found) ?? (Math.abs(average.estimate) < huge ? whyNot(measured, a, b) : null);
  const decision = barred ? "undecided" : found;
  const [runsA, runsB] = [arms[a]?.length ?? 0, arms[b]?.length ?? 0];
  const seen = boundOf(fitted.averageFps, a, b);
  const least = barred ? Math.max(1, 3 - Math.min(runsA, runsB)) : 1;
  const further =
    decision === "undecided"
      ? furtherRuns({
          fit: fitted.averageFps.fit,
          counts: [runsA, runsB],
          a,
          b,
          margin,
          least,
          unknown: seen,
          seed,
        })
      : { more: 0, chance: 1, steps: [] };
  // No repeat shows what a video can't.
  if (barred?.code === "compare.ceiling") Object.assign(further, { chance: 0, steps: [] });
  const fullSpeedTime = differenceOf("fullSpeedTime");
  const notes: Said[] = [];
  if (barred) notes.push(barred);
  else if (isOneLook(arms, a, b)) notes.push(said("compare.oneRun"));
  if (seen > 0) notes.push(said("compare.seen", { bound: Math.exp(seen) - 1 }));
  if (underCap) notes.push(said("compare.underCap"));
  else if (fitted.averageFps.borrowed)
    notes.push(
      noise.freedom < measuredFreedom
        ? said("compare.assumedSpread", { sd: noise.sd })
        : said("compare.borrowedSpread", { sd: noise.sd }),
    );
  const drift = likelyDrift(measured, fitted.averageFps.fit);
  if (drift) notes.push(drift);
  if (measured.rounds && places === null && runsA > 1) notes.push(said("compare.byRounds"));
  if (arms.flat().some(({ form }) => form === "interval")) notes.push(said("compare.readings"));
  else if (fullSpeedTime === null) notes.push(said("compare.noSpread"));
  const armOf = (arm: number): ComparedArm => {
    const own = arms[arm] ?? [];
    return { runs: own.length, averageFps: Math.exp(mean(own.map((run) => run.values.averageFps ?? NaN))) };
  };
  return {
    arms: { a: armOf(a), b: armOf(b) },
    averageFps: asRatio(average),
    worstTimeLow: fitted.worstTimeLow && asRatio(effectOf(fitted.worstTimeLow, a, b)),
    fullSpeedTime,
    hitchesPerMinute: differenceOf("hitchesPerMinute"),
    decision,
    barred,
    moreRunsPerSide: further.more,
    chanceSettled: further.chance,
    steps: further.steps,
    p: barred ? 1 : average.p,
    notes,
  };
}

/**
 * Compares two arms of runs: B over A.
 *
 * The run is the unit. Values of runs are fitted by arm and, where their order is known, by what the rig may
 * have done meanwhile; every explanation is weighed by how well it explains the runs and by what is believed of
 * the rig, and the interval is over all of them.
 *
 * @param places where every run stood in the order, of each side; null where that isn't known
 * @throws RangeError for an arm without runs, or rounds of unequal length
 */
export function compare(
  a: Trace[],
  b: Trace[],
  options: CompareOptions & { places?: { a: number[]; b: number[] } | null },
): Comparison {
  if (a.length === 0 || b.length === 0) throw new RangeError("each side needs a run");
  if (options.rounds && a.length !== b.length)
    throw new RangeError("rounds need as many runs on one side as on the other");
  const { places } = options;
  const measured = measureArms([a, b], places ? [places.a, places.b] : null, options);
  return comparePair(measured, fitAll(measured), 0, 1, options);
}
