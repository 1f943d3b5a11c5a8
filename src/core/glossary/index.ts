import { judgingExplanations } from "./judging";
import { explainedNames, type ExplainedKey } from "@/core/explained";
import { runExplanations } from "./figures";
import type { Explanation } from "./shape";
import { thingExplanations } from "./things";

/** Every explanation; loaded where one is opened, and by the glossary. */
export const explanations: Record<ExplainedKey, Explanation> = {
  ...runExplanations,
  ...judgingExplanations,
  ...thingExplanations,
};

/** What an explanation is headed by. */
export const explainedTitle = (key: ExplainedKey): string => explainedNames[key][0];

const textOf = (key: ExplainedKey) => {
  const { is, made, good, example } = explanations[key];
  return [...explainedNames[key], is, made, good, example].join(" ").toLowerCase();
};

/** Keys by title; those whose names or texts hold every word looked for, the ones so named first. */
export function searchExplanations(search: string): ExplainedKey[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const isNamed = (key: ExplainedKey) =>
    words.every((word) => explainedNames[key].some((name) => name.toLowerCase().includes(word)));
  return (Object.keys(explanations) as ExplainedKey[])
    .filter((key) => words.every((word) => textOf(key).includes(word)))
    .sort(
      (a, b) =>
        Number(isNamed(b)) - Number(isNamed(a)) || explainedTitle(a).localeCompare(explainedTitle(b), "en"),
    );
}

export type { Drawing, Explanation } from "./shape";
