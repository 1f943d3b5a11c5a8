import { advisingSentences } from "./advising";
import { comparingSentences } from "./comparing";
import { diagnosingSentences } from "./diagnosing";
import { holdingSentences } from "./holding";
import { readingSentences } from "./reading";
import type { AnySaid, InWords } from "./said";
import { scaleSentences } from "./scales";
import { sweepingSentences } from "./sweeping";
import { verdictSentences } from "./verdict";

const ownSentences = {
  /** A sentence kept before sentences were data. */
  "kept.verbatim": ({ text }: { text: string }) => text,
};

/** Every sentence the core says, by its code. */
export const sentences = {
  ...ownSentences,
  ...verdictSentences,
  ...holdingSentences,
  ...comparingSentences,
  ...sweepingSentences,
  ...advisingSentences,
  ...diagnosingSentences,
  ...readingSentences,
  ...scaleSentences,
};

/**
 * A sentence in words: the only place where codes and figures become prose.
 * @returns the code itself for one that this version doesn't know
 * @example words(said("effect.pair", { pair: { ratio: 1.05, low: 1.02, high: 1.08 } })) // → "+5.0 % (95 %: +2.0 % to +8.0 %)"
 */
export function words({ code, figures }: AnySaid): string {
  const put = (sentences as Record<string, (figures: unknown, within: InWords) => string>)[code];
  return put ? put(figures, words) : code;
}

/** A refusal and what can be done about it, in one line. */
export const refusalWords = ({ reason, remedy }: { reason: AnySaid; remedy: AnySaid }): string =>
  `${words(reason)} ${words(remedy)}`;
