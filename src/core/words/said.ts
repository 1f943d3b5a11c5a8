import type { Said } from "@/core/said";

/** Puts a sentence that stands within another into words. */
export type InWords = (sentence: Said) => string;

/** Sentences by their codes: how the figures of each are put into words. */
export type Sentences<Codes> = {
  [Code in keyof Codes]: (figures: Codes[Code], words: InWords) => string;
};
