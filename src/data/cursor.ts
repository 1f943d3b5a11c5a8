/** Where a list goes on: the value it is sorted by and the id of its last row. Opaque to whoever asks. */
export interface Keyset {
  value: string;
  id: string;
}

export const cursorOf = (value: unknown, id: string): string =>
  Buffer.from(JSON.stringify([value === null ? null : String(value), id])).toString("base64url");

/** What a cursor holds; null for none, or one that isn't ours: then the list begins at its beginning. */
export function keyset(cursor: string): Keyset | null {
  if (cursor === "") return null;
  try {
    const [value, id] = JSON.parse(Buffer.from(cursor, "base64url").toString("utf8"));
    return typeof value === "string" && typeof id === "string" ? { value, id } : null;
  } catch {
    return null;
  }
}
