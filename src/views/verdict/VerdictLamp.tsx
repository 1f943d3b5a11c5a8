import { clsx } from "clsx";
import type { Grade } from "@/core/verdict";
import { gradeWords } from "@/core/words";
import { Lamp, type Light } from "@/ui";

const lights: Record<Grade, Light> = {
  steady: "full",
  flickers: "bitten",
  dims: "half",
  gutters: "ember",
  dark: "empty",
};

/** A verdict as light and word; no grade is a lamp not lit yet. */
export function VerdictLamp({
  grade,
  size = 20,
  large = false,
}: {
  grade: Grade | null;
  size?: number;
  large?: boolean;
}) {
  const words = grade ? gradeWords[grade] : { name: "Untested", meaning: "no run yet" };
  return (
    <span className={clsx("inline-flex items-center", large ? "gap-3" : "gap-1.5")} title={words.meaning}>
      <Lamp light={grade ? lights[grade] : "dotted"} size={size} />
      <span className={large ? "text-3xl font-semibold" : "text-[13px]"}>{words.name}</span>
    </span>
  );
}
