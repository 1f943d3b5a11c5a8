/** What a person says of a title that left no trace, or not a whole one; a key each on the page of a new run. */
export const outcomes = [
  { outcome: "won't start", key: "w", what: "black picture, error, back to the shelf" },
  { outcome: "froze", key: "f", what: "where it stopped" },
  { outcome: "bad copy", key: "k", what: "what is wrong with the copy" },
] as const;
export type SeenOutcome = (typeof outcomes)[number]["outcome"];
