import { z } from "@/core/schema";
import { keptSettingSchema, rigSpecSchema, conditionsSchema } from "@/core/kit";
import { jobRowSchema, trialNodeSchema, faultRowSchema, jobListRowSchema } from "@/core/records";
import { threadRunSchema } from "./runs";
import { overrideSchema, standingSchema } from "@/core/profile/shape";
import { holdingSchema } from "@/core/job/shape";
import { leftOutSchema } from "@/core/records";
import { diagnosisSchema } from "@/core/diagnose/shape";
import { suggestionSchema, openingSchema, nextStepSchema } from "@/core/advise/shape";
import { noiseFloorSchema } from "@/core/compare/shape";
import { rigRowSchema, houseRulesRowSchema, versionedSchema } from "@/core/records";

export const jobViewSchema = z.object({
  job: jobRowSchema,
  runs: z.array(threadRunSchema),
  trials: z.array(trialNodeSchema),
  faults: z.array(faultRowSchema),
  overrides: z
    .array(overrideSchema)
    .describe("What was kept so far, as the difference from the engine's defaults."),
  standing: standingSchema,
  holds: holdingSchema.describe(
    "What any run is made under unless something is tried: what was decided, and how the job is played.",
  ),
  tellingRunId: z.uuid().nullable().describe("The run that says how things stand."),
  inForce: z
    .object({
      engine: z.string(),
      build: z.string(),
      trial: z.number().nullable(),
    })
    .describe(
      "Engine and build that hold now, and the trial that put them there; null where they are the job's own.",
    ),
  leftOut: z
    .object({
      runs: z.array(leftOutSchema),
      trials: z.array(leftOutSchema),
    })
    .describe("Runs and trials left out, which can be taken back."),
  otherYardstick: z
    .number()
    .describe("Runs that were judged by another rate, or tie, of the title than it has now."),
  otherOnBench: z.string().nullable().describe("The rig that lies on the bench, where it isn't the job's."),
  diagnosis: z
    .object({
      runId: z.uuid(),
      diagnosis: diagnosisSchema,
    })
    .nullable()
    .describe("Of the newest run that can be diagnosed, with its id."),
  suggestions: z.array(suggestionSchema),
  opening: openingSchema.nullable(),
  next: nextStepSchema,
  noise: noiseFloorSchema,
  noiseMeasured: z.boolean(),
  catalogue: z.array(keptSettingSchema).describe("What changes can be begun from."),
  spec: rigSpecSchema,
  scenes: z.array(z.string()),
});
export type JobView = z.output<typeof jobViewSchema>;

export const jobsViewSchema = z.object({
  rows: z.array(jobListRowSchema),
  total: z.number(),
  search: z.string(),
  filter: z.string(),
  sort: z.string(),
  next: z.string().nullable().describe("Where the next rows begin; null at the end."),
});
export type JobsView = z.output<typeof jobsViewSchema>;

/** The bench strip: what is on the bench and what can be put there. */
export const benchViewSchema = versionedSchema.extend({
  rigs: z.array(rigRowSchema.pick({ id: true, name: true })),
  rig: rigRowSchema.nullable(),
  conditions: conditionsSchema.nullable(),
  houseRules: z.array(houseRulesRowSchema),
  houseRulesId: z.uuid().nullable(),
  jobId: z.uuid().nullable(),
  growing: z.number().int().describe("Runs that grow now, on any rig."),
  warnings: z.array(z.string()).describe("Conditions that go against the house rules, a sentence each."),
});
export type BenchView = z.output<typeof benchViewSchema>;
