/** A sentence as data: which one, and the figures in it. */
export interface AnySaid {
  code: string;
  figures: unknown;
}

/** Puts a sentence that stands within another into words. */
export type InWords = (sentence: AnySaid) => string;

/** Sentences of one area: a code each, and how its figures are put into words. */
export type Sentences = Record<string, (figures: never, words: InWords) => string>;
