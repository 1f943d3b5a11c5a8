import { cursorSchema, z } from "@/core/schema";

/* What several areas take and answer. */

/** Text without blanks around it. @param most characters */
export const text = (most: number) => z.string().trim().max(most);

/** What every list is asked by. */
export const pageQuery = z.object({
  search: z.string().max(200).catch(""),
  cursor: cursorSchema,
  limit: z.coerce.number().int().min(1).max(200).catch(50),
});

export const madeSchema = z.object({ id: z.uuid() });
export const openedSchema = z.object({ id: z.uuid(), number: z.number().int() });
export const changedSchema = z.object({ changed: z.number().int() });
/** An answer that says nothing but that it was done. */
export const nothingSchema = z.void();

/** A refusal (RFC 9457). */
export const problemSchema = z.object({
  type: z.string(),
  status: z.number().int(),
  title: z.string().describe("What is wrong."),
  detail: z.string().describe("What to do."),
  fields: z.record(z.string(), z.string()).describe("Field → what is wrong with it."),
});
