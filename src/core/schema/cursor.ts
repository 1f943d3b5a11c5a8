import { z } from "./z";

/** Where a list goes on: the value it is sorted by and the id of its last row. Opaque to whoever asks. */
export interface Keyset {
  value: string;
  id: string;
}

const mostSigns = 400;
/** A cursor of ours, written as JSON in base64url (RFC 4648, section 5). */
const keysetSchema = z.tuple([z.string(), z.string()]);

/** The cursor that goes on after a row. @example cursorOf("blue", "7") // → "WyJibHVlIiwiNyJd" */
export const cursorOf = (value: unknown, id: string): string =>
  z.util.uint8ArrayToBase64url(
    new TextEncoder().encode(JSON.stringify([value === null ? null : String(value), id])),
  );

/** What a cursor holds; null for none, or for one that isn't ours. */
export function keyset(cursor: string): Keyset | null {
  if (cursor === "") return null;
  try {
    const text = new TextDecoder("utf-8", { fatal: true }).decode(z.util.base64urlToUint8Array(cursor));
    const [value, id] = keysetSchema.parse(JSON.parse(text));
    // No text of the store's holds a NUL.
    return value.includes("\0") || id.includes("\0") ? null : { value, id };
  } catch {
    return null;
  }
}

const refusal = "This is no cursor of this list: leave it out to begin anew.";

/** A list's cursor as it is asked for; empty for the list's beginning. */
export const cursorSchema = z
  .string()
  .max(mostSigns, refusal)
  .refine((cursor) => cursor === "" || keyset(cursor) !== null, refusal)
  .default("");

/** The cursor of a list that is sorted by moments. */
export const momentCursorSchema = cursorSchema.refine((cursor) => {
  const after = keyset(cursor);
  return after === null || z.iso.datetime().safeParse(after.value).success;
}, refusal);
