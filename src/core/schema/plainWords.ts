// eslint-disable-next-line no-restricted-imports -- z.ts, which everybody takes it from, takes these words
import type { z } from "zod";

/** What is wanted where something of another kind was given. */
const kinds: Record<string, string> = {
  string: "Text is wanted.",
  number: "A number is wanted.",
  int: "A whole number is wanted.",
  boolean: "Yes or no is wanted.",
  array: "A list is wanted.",
  object: "An object is wanted.",
  record: "An object is wanted.",
};
const formats: Record<string, string> = {
  uuid: "Choose one of those that are offered.",
  date: "A date like 2026-11-25 is wanted.",
  datetime: "A moment like 2026-11-25T20:00:00Z is wanted.",
};

/** A figure with how it is counted: characters of text, members of a list, the number itself. */
const counted = (origin: string, n: number | bigint) =>
  origin === "string"
    ? `${n} ${Number(n) === 1 ? "character" : "characters"}`
    : origin === "array" || origin === "set"
      ? `${n} of them`
      : String(n);

/** Why a value is refused, in words a person can act on; schemas that say it themselves say it better. */
export function plainWords(issue: z.core.$ZodRawIssue): string | undefined {
  switch (issue.code) {
    case "invalid_type":
      return issue.input === undefined || issue.input === null
        ? "This is needed."
        : (kinds[issue.expected] ?? "This can't be taken.");
    case "too_small":
      return issue.origin === "string" && issue.minimum === 1
        ? "This is needed."
        : `${issue.inclusive === false ? "More than" : "At least"} ${counted(issue.origin, issue.minimum)}.`;
    case "too_big":
      return `${issue.inclusive === false ? "Less than" : "At most"} ${counted(issue.origin, issue.maximum)}.`;
    case "invalid_format":
      return formats[issue.format] ?? "This isn't in the form that is wanted.";
    case "invalid_value":
      return `One of these is wanted: ${issue.values.map(String).join(", ")}.`;
    case "unrecognized_keys":
      return `Not known here: ${issue.keys.join(", ")}.`;
    case "not_multiple_of":
      return `A multiple of ${String(issue.divisor)} is wanted.`;
    case "invalid_union":
      return "This is in none of the forms that are possible here.";
    case "invalid_key":
    case "invalid_element":
    case "custom":
    default:
      return undefined;
  }
}
