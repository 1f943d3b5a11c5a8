import { z, moment } from "@/core/schema";
import { versionedSchema } from "./kit";

/** Something found by its name: what it is, and where it stands. */
export const foundRowSchema = z.object({
  kind: z.enum(["job", "trial", "title", "rig", "system", "engine", "campaign", "setting"]),
  id: z.uuid(),
  path: z.string(),
  name: z.string(),
  note: z.string(),
});
export type FoundRow = z.output<typeof foundRowSchema>;

/** What was changed about a run since it was made. */
export const runEditsViewSchema = z.object({
  rows: z.array(
    z.object({
      at: moment,
      actor: z.string(),
      changes: z.array(
        z.object({
          field: z.string(),
          from: z.unknown(),
          to: z.unknown(),
        }),
      ),
    }),
  ),
});
export type RunEditsView = z.output<typeof runEditsViewSchema>;

/** A rig with an engine: where a profile is. */
export const profileListRowSchema = z.object({
  rigId: z.uuid(),
  rig: z.string(),
  engineId: z.uuid(),
  engine: z.string(),
  values: z.number().describe("Values set in its layers."),
  jobs: z.number(),
  titles: z.number().describe("Titles that jobs are of."),
  toConfirm: z.number().describe("Values that aren't proven for a title as the rig is now."),
  lastTitleId: z.uuid().nullable().describe("The title of the newest decision; null before any."),
});
export type ProfileListRow = z.output<typeof profileListRowSchema>;

/** Something left out of a job. */
export const leftOutSchema = versionedSchema.extend({
  id: z.uuid(),
  number: z.number(),
  name: z.string(),
  at: moment,
});
export type LeftOut = z.output<typeof leftOutSchema>;
