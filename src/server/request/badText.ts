import type { z } from "@/core/schema";

/** A text that the store can't hold, and where it stands. */
export interface BadText {
  field: string;
  message: string;
}

const message = "Holds a sign that can't be kept: a NUL, or half of a character.";

/** The first text with a NUL or a lone surrogate (Unicode, section 3.9) in it, names among them; null for none. */
export function badTextIn(value: unknown, path: (string | number)[] = []): BadText | null {
  const isBad = (text: string) => /\0|\p{Surrogate}/u.test(text);
  if (typeof value === "string") return isBad(value) ? { field: path.join("."), message } : null;
  if (typeof value !== "object" || value === null) return null;
  for (const [name, each] of Object.entries(value)) {
    if (isBad(name)) return { field: path.join("."), message };
    const found = badTextIn(each, [...path, name]);
    if (found) return found;
  }
  return null;
}

/** How JSON writes such a sign; a text that comes as UTF-8 holds none otherwise. */
const escapes = /\\u(?:0000|d[89a-f])/i;

/** JSON with the first text in it that can't be kept; what holds none isn't gone over. @throws SyntaxError */
export function readJson(bytes: Uint8Array): { value: unknown; text: BadText | null } {
  const json = new TextDecoder().decode(bytes);
  const value: unknown = JSON.parse(json);
  return { value, text: escapes.test(json) || json.includes("\0") ? badTextIn(value) : null };
}

/** The same as a schema's issue. */
export const issueOf = ({ field, message: said }: BadText): z.core.$ZodIssue => ({
  code: "custom",
  path: field.split("."),
  message: said,
  input: undefined,
});
