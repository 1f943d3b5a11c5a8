import { z } from "@/core/schema";
import { settingValueSchema } from "@/core/kit";
import { saidSchema } from "@/core/said/shape";
import { summarySchema, tallyFiguresSchema } from "@/core/metrics/shape";
import { verdictSchema } from "@/core/verdict/shape";
import { placesHeldSchema } from "@/core/job/shape";
import { runRowSchema } from "@/core/records";

/** A setting that changed from one run to the next; null where it was not in force. */
export const changeSchema = z.object({
  key: z.string(),
  from: settingValueSchema.nullable(),
  to: settingValueSchema.nullable(),
});
export type SettingChange = z.output<typeof changeSchema>;

/** A run in a job's thread: figures, verdict, and what was changed since the run before. */
export const threadRunSchema = runRowSchema
  .omit({
    summary: true,
    verdict: true,
    rules: true,
    buildId: true,
    rigRevisionId: true,
    driver: true,
    faults: true,
  })
  .extend({
    summary: summarySchema
      .omit({ scenes: true, segments: true })
      .describe("Without its segments: a page that draws two hundred runs needs none."),
    verdict: verdictSchema.omit({ scenes: true }),
    changes: z.array(changeSchema),
    warnings: z.array(saidSchema).describe("Conditions that break the job's house rules."),
    outdated: z.boolean().describe("Its figures are of an older method, and are being made anew."),
    cold: z.boolean().describe("It compiled effects on first sight, or was said to have."),
    tally: tallyFiguresSchema.nullable(),
    places: placesHeldSchema
      .nullable()
      .describe("How many of its places hold; null where it names fewer than two."),
  });
export type ThreadRun = z.output<typeof threadRunSchema>;
