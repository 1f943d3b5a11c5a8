import type { Decision } from "@/core/compare";
import { grades, type Grade, type Verdict } from "@/core/verdict";
import type { MainEffect } from "@/core/advise";
import type { Said } from "@/core/said";
import type { Step } from "@/core/compare";
import type { Choice } from "./choiceSchema";

/** What an arm's runs came to beside their rates. */
export interface ArmEvidence {
  name: string;
  runs: number;
  /** Light of every run. */
  grades: Grade[];
  /** The two lights that the readings of its usual runs leave open; absent where they leave one. */
  between?: Verdict["between"];
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
  /** Why it can't be called, whatever its interval. */
  barred?: Said | null;
  moreRunsPerSide: number;
  /** Chance that so many settle it; absent from what was kept before it was reckoned. */
  chanceSettled?: number;
  /** The next steps and the chance that each settles it; absent from what was kept before they were reckoned. */
  steps?: Step[];
}

/** What to do about a trial. */
export interface Advice {
  choice: Choice["choice"];
  arm: number | null;
  sentence: Said;
  /** The runs speak for neither: whoever decides chooses by taste or cost, and needs no reason. */
  either?: true;
}

/** What a kind makes of its runs. */
export interface Outcome {
  pairs: PairEffect[];
  /** Arms that no other beats; more than one is a tie. */
  best: number[];
  effects: (MainEffect & { key: string; label: string })[];
  advice: Advice;
  /** The effect in a few figures, for the thread. */
  headline: Said;
  notes: Said[];
  /** From a heat sweep, for timetables. */
  coolDownMinutes?: number;
}

/** What a trial came to when it was decided; kept with it, so that history doesn't change. */
export interface TrialOutcome extends Outcome {
  kind: string;
  arms: ArmEvidence[];
}

/** An outcome that keeps what one sentence recommends. @param arm to keep; null puts everything back */
export function recommended(arm: number | null, sentence: Said, notes: Said[] = []): Outcome {
  const choice = arm === null ? "put back" : "keep";
  return { pairs: [], best: [], effects: [], notes, headline: sentence, advice: { choice, arm, sentence } };
}

/** Whether a choice goes against the advice: then it takes a reason. */
export const isAgainst = (
  choice: Pick<Choice, "choice" | "arm">,
  advice: Pick<Advice, "choice" | "arm" | "either">,
) => !advice.either && (choice.choice !== advice.choice || choice.arm !== advice.arm);

/** The light that most of an arm's runs have; the darker one of two that are as common. */
export function usualGrade(list: Grade[]): Grade | null {
  let usual: { grade: Grade; count: number } | null = null;
  for (const grade of grades) {
    const count = list.filter((each) => each === grade).length;
    if (count > 0 && count >= (usual?.count ?? 0)) usual = { grade, count };
  }
  return usual?.grade ?? null;
}

/** The usual light of some runs, and the two that the readings of one of them leave open. */
export function usualLight(verdicts: Pick<Verdict, "grade" | "between">[]): {
  grade: Grade | null;
  between?: Verdict["between"];
} {
  const grade = usualGrade(verdicts.flatMap((verdict) => verdict.grade ?? []));
  const between = verdicts.find((verdict) => verdict.grade === grade && verdict.between)?.between;
  return { grade, ...(between && { between }) };
}
