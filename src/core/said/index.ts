/** A sentence as data: which one, and the figures in it. */
export interface Said {
  code: string;
  figures: unknown;
}

/**
 * Makes sentences of a folder's codes, each with its own figures; those that take none are made without.
 * @example const said = saying<{ "drift.days": { days: number } }>(); said("drift.days", { days: 2 })
 */
export const saying =
  <Codes>() =>
  <Code extends keyof Codes & string>(
    code: Code,
    ...[figures]: Codes[Code] extends undefined ? [] : [figures: Codes[Code]]
  ): Said => ({ code, figures: figures ?? {} });

/** A ratio with its 95 % interval. */
export interface Ratio {
  ratio: number;
  low: number;
  high: number;
}

/** Sentences that several folders say. */
export interface SharedCodes {
  "effect.pair": { pair: Ratio };
}
