import { moment, z } from "@/core/schema";

/** One thing that a deed changed, in short. */
export const deedThingSchema = z.object({
  table: z.string(),
  id: z.string().nullable(),
  how: z.enum(["added", "changed", "removed"]),
  name: z.string(),
  number: z.number().int().nullable(),
  fields: z.array(z.string()).describe("Columns that were changed."),
  gone: z.boolean().nullable().describe("Left out or taken off the shelf; false where it was taken back."),
  decided: z.boolean().nullable().describe("Of a trial: decided, or its decision taken back."),
  kept: z.string().nullable().describe("Of a decided trial: the arm that was kept."),
  closed: z.boolean().nullable().describe("Of a job: closed, or opened again."),
});
export type DeedThing = z.output<typeof deedThingSchema>;

/** One write that somebody did, and whether it was undone. */
export const deedRowSchema = z.object({
  id: z.string(),
  at: moment,
  actor: z.string(),
  undone: z.boolean(),
  undoing: z.boolean().describe("It undid another."),
  rows: z.number().int().describe("Rows that it changed."),
  things: z.array(deedThingSchema),
});
export type DeedRow = z.output<typeof deedRowSchema>;
