import type { z } from "@/core/schema";

/** Bodies that a thread has read by their door's schema already. */
const read = new WeakSet<object>();

/** Notes that a body is what its door's schema makes of it. */
export function asRead(body: unknown): unknown {
  if (typeof body === "object" && body !== null) read.add(body);
  return body;
}

/**
 * A body by its door's schema: as it is where a thread has read it already, for going over a hundred thousand
 * values twice holds everybody up.
 * @throws ZodError for one that isn't what the schema says
 */
export const bodyBy = <Schema extends z.ZodType>(schema: Schema, input: unknown): z.output<Schema> =>
  typeof input === "object" && input !== null && read.has(input)
    ? (input as z.output<Schema>)
    : schema.parse(input);
