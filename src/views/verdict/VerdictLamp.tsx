import { clsx } from "clsx";
import type { Grade, Verdict } from "@/core/verdict";
import { gradeWords, lightsWords, lightWords } from "@/core/words";
import { Explained, Lamp, lightOf } from "@/ui";

/** A verdict as light and word; no grade is a lamp not lit yet. */
export function VerdictLamp({
  grade,
  size = 20,
  large = false,
  ran = false,
  between,
}: {
  grade: Grade | null;
  size?: number;
  large?: boolean;
  /** The light of a run: none means it was too short. */
  ran?: boolean;
  /** The worst and the best light that readings leave open, where that is more than the one. */
  between?: Verdict["between"] | null;
}) {
  const words = ran
    ? lightWords(grade)
    : grade
      ? gradeWords[grade]
      : { name: "Untested", meaning: "no run yet" };
  const word = between ? lightsWords(grade, between) : words.name;
  return (
    <span
      className={clsx("inline-flex items-center align-middle", large ? "gap-3" : "gap-1.5")}
      title={words.meaning}
    >
      <Lamp light={grade ? lightOf[grade] : "dotted"} size={size} />
      <span className={large ? "text-3xl font-semibold" : "text-[13px]"}>
        {large ? <Explained by="Light">{word}</Explained> : word}
      </span>
    </span>
  );
}
