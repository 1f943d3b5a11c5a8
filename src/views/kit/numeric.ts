/** What a text field holds as a list, separated by commas. */
export const listOf = {
  setValueAs: (text: unknown) =>
    Array.isArray(text)
      ? text
      : String(text ?? "")
          .split(",")
          .map((part) => part.trim())
          .filter(Boolean),
};

/**
 * What a text field holds as a number: null when empty, NaN (refused by the schema) when no number. Takes a
 * decimal comma.
 */
export const numeric = {
  setValueAs: (text: unknown) =>
    text === "" || text === null || text === undefined ? null : Number(String(text).replace(",", ".")),
};
