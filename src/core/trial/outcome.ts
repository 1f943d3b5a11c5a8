import type { Advice, Outcome } from "./shape";
import { grades, type Grade, type Verdict } from "@/core/verdict";
import type { Said } from "@/core/said";
import type { Choice } from "./choiceSchema";

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
export function usualLight(verdicts: { grade: Grade | null; between?: Verdict["between"] | null }[]): {
  grade: Grade | null;
  between?: Verdict["between"];
} {
  const grade = usualGrade(verdicts.flatMap((verdict) => verdict.grade ?? []));
  const between = verdicts.find((verdict) => verdict.grade === grade && verdict.between)?.between ?? undefined;
  return { grade, ...(between && { between }) };
}
