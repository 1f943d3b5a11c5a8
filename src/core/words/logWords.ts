import type { Said } from "@/core/said";
import { incomingSentences } from "./incoming";
import { readingSentences } from "./reading";
import type { Sentences } from "./said";
import { resultSentences, wording, type Codes } from "./words";

/** Every sentence, by its code. */
export const sentences: Sentences<Codes> = { ...resultSentences, ...readingSentences, ...incomingSentences };

/**
 * A sentence in words, those of reading a log among them. Pages that read no log take `words`, which is lighter.
 * @returns the code itself for one that this version doesn't know
 */
export const logWords = wording(sentences);

/** A refusal and what can be done about it, in one line. */
export const refusalWords = ({ reason, remedy }: { reason: Said; remedy: Said }): string =>
  `${logWords(reason)} ${logWords(remedy)}`;
