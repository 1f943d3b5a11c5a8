import type { Belief } from "./shape";
import { betaQuantile } from "@/core/stats";
import { changesBetween, type Conditions, type Setting, type Settings, type SettingValue } from "@/core/kit";
import { severalKey, severalTo } from "./several";
import { conditionLevers, type ConditionLever } from "./levers";

type Relief = Setting["relieves"][number];

/** One decided trial of a rig, as far as a lever can learn from it. */
export interface Tried {
  /** What was changed: a setting's key, or "power mode", "clocks". */
  key: string;
  from: SettingValue | null;
  to: SettingValue | null;
  relieves: Relief[];
  helped: boolean;
  /** Log ratio of rates, new over old. */
  logGain: number;
  /** Decided in another job of the rig: it teaches, but doesn't say that this title was tried. */
  elsewhere?: boolean;
}

/** Whether a lever does what a trial did (1), undoes it (−1), or something else of the same setting (0). */
function directionOf(lever: { from: SettingValue | null; to: SettingValue | null }, trial: Tried): -1 | 0 | 1 {
  if (lever.to === trial.to) return 1;
  if (lever.to === trial.from) return -1;
  const step = ({ from, to }: { from: SettingValue | null; to: SettingValue | null }) =>
    typeof from === "number" && typeof to === "number" ? Math.sign(to - from) : 0;
  return (step(lever) * step(trial)) as -1 | 0 | 1;
}

/** A belief held before any trial weighs as much as so many. */
const priorTrials = 4;
const priorGainTrials = 2;
/** A gain under this is none, as a log ratio. */
export const noGain = 0.02;
/** What an undecided trial with a gain takes away, as a share of a failure. */
const undecidedMiss = 0.3;
/** A trial of another lever with the same tag tells so much of this one. */
const kinship = 0.25;

/**
 * Chance and gain of a lever: what its tags suggest, moved by the rig's own decided trials (beta-binomial for
 * "helped", normal shrinkage for the log gain).
 *
 * @param prior chance 0…1 and log gain from the tags
 */
export function believe(
  lever: { key: string; from: SettingValue | null; to: SettingValue | null; relieves: Relief[] },
  prior: { chance: number; logGain: number },
  history: Tried[],
): Belief {
  let hits = prior.chance * priorTrials,
    misses = (1 - prior.chance) * priorTrials;
  let gain = prior.logGain * priorGainTrials,
    weight = priorGainTrials;
  let tried = 0,
    helped = 0;
  for (const trial of history) {
    const direction = trial.key === lever.key ? directionOf(lever, trial) : 0;
    // The way back from something that helped is known not to.
    if (direction < 0) {
      if (trial.helped) misses++;
      continue;
    }
    const own = direction > 0;
    const share = own ? 1 : trial.relieves.some((relief) => lever.relieves.includes(relief)) ? kinship : 0;
    if (share === 0) continue;
    if (own) {
      tried++;
      if (trial.helped) helped++;
    }
    if (trial.helped) {
      hits += share;
      gain += share * trial.logGain;
      weight += share;
    } else if (own) {
      // Undecided with a gain is no failure; a sibling's failure says nothing of this one.
      misses += trial.logGain >= noGain ? undecidedMiss : share;
    }
  }
  return {
    chance: hits / (hits + misses),
    chanceLow: betaQuantile(0.05, hits, misses),
    chanceHigh: betaQuantile(0.95, hits, misses),
    logGain: gain / weight,
    tried,
    helped,
  };
}

/** A decided comparison of two arms, as far as a lever can learn from it. */
interface Compared {
  arms: { settings: Settings; conditions: Partial<Conditions> }[];
  before: { settings: Settings };
  outcome: { pairs: { decision: string; ratio: number }[] } | null;
}

/** What a comparison taught: of one change, or of several settings as one lot. */
export function triedIn({ arms, before, outcome }: Compared): Omit<Tried, "relieves" | "elsewhere"> | null {
  const pair = outcome?.pairs[0];
  const [was, is] = arms;
  if (!pair || !was || !is) return null;
  const settings = changesBetween(before.settings, is.settings).filter(({ to }) => to !== null);
  const conditions = (
    Object.entries(conditionLevers) as [ConditionLever, (typeof conditionLevers)[ConditionLever]][]
  )
    .map(([key, name]) => ({ key, from: was.conditions[name] ?? null, to: is.conditions[name] ?? null }))
    .filter(({ from, to }) => to !== null && to !== from);
  const [only, ...others] = [...settings, ...conditions];
  const effect = { helped: pair.decision === "better", logGain: Math.log(pair.ratio) };
  if (!only) return null;
  if (others.length === 0) return { ...only, ...effect };
  // Of several at once nothing is learnt about any of them, but that this lot was tried.
  return conditions.length > 0 ? null : { key: severalKey, from: null, to: severalTo(settings), ...effect };
}

/** A decided sweep of this job, as far as a lever can learn from it. */
interface Swept {
  kind: string;
  arms: { settings: Settings; conditions: Partial<Conditions> }[];
  plan: { keys: string[] };
  choice: string | null;
  keptArm: number | null;
}

/**
 * What a sweep of scales, power modes or clocks taught: every level that wasn't kept was measured, and needs no
 * trial of its own.
 * @returns nothing for sweeps of something else, or those that kept nothing
 */
export function sweptIn({ kind, arms, plan, choice, keptArm }: Swept): Omit<Tried, "relieves" | "elsewhere">[] {
  const kept = choice === "keep" && keptArm !== null ? arms[keptArm] : undefined;
  const [key] = plan.keys;
  const valueIn = (arm: (typeof arms)[number]): [string, SettingValue | null | undefined] | null => {
    if (kind === "power") return ["power mode", arm.conditions.powerMode];
    if (kind === "clocks") return ["clocks", arm.conditions.clocks];
    return kind === "resolution" && key !== undefined ? [key, arm.settings[key]] : null;
  };
  const from = kept && valueIn(kept);
  if (!from) return [];
  return arms.flatMap((arm) => {
    const to = valueIn(arm);
    if (!to || to[1] === undefined || to[1] === null || to[1] === from[1]) return [];
    return [{ key: to[0], from: from[1] ?? null, to: to[1], helped: false, logGain: 0 }];
  });
}
