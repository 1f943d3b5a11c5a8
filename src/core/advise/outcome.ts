import type { ArmsOutcome, Decision } from "@/core/compare";
import type { TrialKind } from "@/core/kit";
import { gradeWords, grades, type Grade } from "@/core/verdict";
import type { MainEffect } from "./screening";

/** What an arm's runs came to beside their rates. */
export interface ArmEvidence {
  name: string;
  runs: number;
  /** Light of every run. */
  grades: Grade[];
  /** Its light is held down by faults or crashes, whatever its rate. */
  faulted: boolean;
  crashes: number;
  hours: number;
}

/** One pair, as kept with a decision. */
export interface PairEffect {
  a: number;
  b: number;
  by: "frames" | "engine speed";
  ratio: number;
  low: number;
  high: number;
  p: number;
  decision: Decision;
  worstTimeLow: { ratio: number; low: number; high: number } | null;
  fullSpeedTime: { difference: number; low: number; high: number } | null;
  hitchesPerMinute: { difference: number; low: number; high: number } | null;
  moreRunsPerSide: number;
}

/** What a trial came to when it was decided; kept with it, so that history doesn't change. */
export interface TrialOutcome {
  kind: TrialKind;
  arms: ArmEvidence[];
  pairs: PairEffect[];
  /** Arms that no other beats; more than one is a tie. */
  best: number[];
  effects: (MainEffect & { key: string; label: string })[];
  advice: Advice;
  /** The effect in a few figures, for the thread. */
  headline: string;
  notes: string[];
  /** From a heat sweep, for timetables. */
  coolDownMinutes?: number;
}

export interface Advice {
  choice: "keep" | "put back";
  arm: number | null;
  sentence: string;
}

/** Advice that follows from a sweep: keep the arm it found, or put everything back. */
export const keepOrPutBack = (arm: number | null, sentence: string): Advice =>
  arm === null ? { choice: "put back", arm: null, sentence } : { choice: "keep", arm, sentence };

const signed = (ratio: number) => `${ratio >= 1 ? "+" : "−"}${Math.abs(100 * (ratio - 1)).toFixed(1)} %`;
/** @example effectWords({ ratio: 1.05, low: 1.02, high: 1.08 }) // → "+5.0 % (95 %: +2.0 % to +8.0 %)" */
export const effectWords = ({ ratio, low, high }: { ratio: number; low: number; high: number }) =>
  `${signed(ratio)} (95 %: ${signed(low)} to ${signed(high)})`;

export function pairEffects({ pairs }: ArmsOutcome): PairEffect[] {
  return pairs.map(({ a, b, by, p, decision, comparison }) => ({
    a,
    b,
    by,
    p,
    decision,
    ...comparison.averageFps,
    worstTimeLow: comparison.worstTimeLow,
    fullSpeedTime: comparison.fullSpeedTime,
    hitchesPerMinute: comparison.hitchesPerMinute,
    moreRunsPerSide: comparison.moreRunsPerSide,
  }));
}

/** The light that most of an arm's runs have; the darker one of two that are as common. */
export function usualGrade(list: Grade[]): Grade | null {
  if (list.length === 0) return null;
  const counts = grades.map((grade) => list.filter((each) => each === grade).length);
  return grades[
    counts.reduce(
      (best, count, i) => (count >= counts[best] && count > 0 ? i : best),
      list.length > 0 ? counts.findIndex((count) => count > 0) : 0,
    )
  ];
}

/** Whether every run of B shines brighter than every run of A. */
function brighter(a: Grade[], b: Grade[]): boolean {
  if (a.length === 0 || b.length === 0) return false;
  return (
    Math.max(...b.map((grade) => grades.indexOf(grade))) < Math.min(...a.map((grade) => grades.indexOf(grade)))
  );
}

const lightWords = (a: Grade[], b: Grade[]) => {
  const [from, to] = [usualGrade(a), usualGrade(b)];
  return from === null || to === null || from === to
    ? ""
    : `, ${gradeWords[from].name} → ${gradeWords[to].name}`;
};

/** Fewest runs from which "brighter in every run" counts. */
const runsForLight = 2;

/**
 * What to do about a comparison: keep the arm that is better, else go back to what was in force.
 *
 * A fault can outweigh speed: an arm held down by faults is never advised. Where rates can't be told apart but every run
 * of the new arm shines brighter, that is what it is kept for.
 *
 * @param arms evidence, arm 0 being what was in force
 */
export function adviseComparison(
  outcome: { pairs: PairEffect[]; best: number[] },
  arms: ArmEvidence[],
): Advice {
  const { pairs, best } = outcome;
  const against = (arm: number) => pairs.find(({ a, b }) => a === 0 && b === arm)!;
  if (arms.length === 2) {
    const pair = against(1),
      words = `${effectWords(pair)}${lightWords(arms[0].grades, arms[1].grades)}`;
    if (arms[1].faulted && !arms[0].faulted)
      return {
        choice: "put back",
        arm: null,
        sentence: `Put back: ${words}, but its faults outweigh the speed.`,
      };
    if (arms[0].faulted && !arms[1].faulted && pair.decision !== "worse")
      return { choice: "keep", arm: 1, sentence: `Keep ${arms[1].name}: ${words}, and the fault is gone.` };
    if (pair.decision === "better")
      return { choice: "keep", arm: 1, sentence: `Keep ${arms[1].name}: ${words}.` };
    if (pair.decision === "worse") return { choice: "put back", arm: null, sentence: `Put back: ${words}.` };
    if (Math.min(arms[0].runs, arms[1].runs) >= runsForLight && brighter(arms[0].grades, arms[1].grades))
      return {
        choice: "keep",
        arm: 1,
        sentence: `Keep ${arms[1].name}: the rate is ${pair.decision === "no difference" ? "the same" : "not told apart"} (${signed(pair.ratio)}), but every run shines brighter${lightWords(arms[0].grades, arms[1].grades)}.`,
      };
    if (pair.decision === "no difference")
      return {
        choice: "put back",
        arm: null,
        sentence: `Put back: no difference worth having, ${words}; fewer overrides are easier to keep.`,
      };
    return {
      choice: "put back",
      arm: null,
      sentence: `Undecided: ${words}. ${pair.moreRunsPerSide >= 40 ? "Even 40 more runs a side would hardly settle it: put it back." : `About ${pair.moreRunsPerSide} more a side should settle it; until then put it back.`}`,
    };
  }
  const sound = best.filter((arm) => !arms[arm].faulted || arms.every(({ faulted }) => faulted));
  const names = (list: number[]) => list.map((arm) => arms[arm].name).join(" and ");
  if (sound.length === 0)
    return {
      choice: "put back",
      arm: null,
      sentence: `${names(best)} ${best.length === 1 ? "is" : "are"} fastest, but held down by faults. Stay with ${arms[0].name}.`,
    };
  if (sound.includes(0))
    return {
      choice: "put back",
      arm: null,
      sentence:
        sound.length === 1
          ? `Stay with ${arms[0].name}: no other arm beats it.`
          : `${names(sound)} tie inside the noise: stay with ${arms[0].name}.`,
    };
  const [first, ...ties] = sound;
  const pair = against(first);
  return {
    choice: "keep",
    arm: first,
    sentence: `Keep ${arms[first].name}: ${effectWords(pair)} over ${arms[0].name}${lightWords(arms[0].grades, arms[first].grades)}.${ties.length > 0 ? ` ${names(ties)} ${ties.length === 1 ? "ties" : "tie"} with it inside the noise.` : ""}`,
  };
}

/** What a screening says: the switches whose intervals lie clear of 0, set to their better side. */
export function adviseScreening(
  effects: { label: string; logGain: number; low: number; high: number; matters: boolean }[],
): { sentence: string; helping: number[] } {
  const helping = effects.map((_, i) => i).filter((i) => effects[i].matters && effects[i].logGain > 0);
  const hurting = effects.filter(({ matters, logGain }) => matters && logGain < 0);
  const one = ({ label, logGain, low, high }: (typeof effects)[number]) =>
    `${label} ${effectWords({ ratio: Math.exp(logGain), low: Math.exp(low), high: Math.exp(high) })}`;
  const sentence =
    helping.length === 0
      ? "None of the switches helps beyond the noise."
      : `${helping.map((i) => one(effects[i])).join("; ")}.`;
  return {
    helping,
    sentence: `${sentence}${hurting.length > 0 ? ` ${hurting.map(({ label }) => label).join(", ")} ${hurting.length === 1 ? "hurts" : "hurt"}.` : ""}${helping.length > 0 ? " Main effects only: confirm them together." : ""}`,
  };
}
