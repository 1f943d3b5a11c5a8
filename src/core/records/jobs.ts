import { z, moment } from "@/core/schema";
import { stillMomentSchema } from "@/core/capture/shape";
import { grades, houseRulesSchema } from "@/core/verdict";
import { saidSchema } from "@/core/said/shape";
import { conditionsSchema, newJobSchema, faultSeverities, newRunSchema, newFaultSchema } from "@/core/kit";
import { versionedSchema, buildRowSchema } from "./kit";
import { armConditionsSchema } from "@/core/trial";
import { overrideSchema, standingSchema, decidableSchema } from "@/core/profile/shape";
import { yardstickSchema, summarySchema } from "@/core/metrics/shape";
import { betweenSchema, verdictSchema } from "@/core/verdict/shape";
import { progressSchema } from "@/core/trial/shape";
import type { Conditions } from "@/core/kit";
import type { Versioned } from "./kit";

/** How far a run has come: growing, whole, or ended before its time. */
export const runStates = ["open", "whole", "cut off", "crashed"] as const;

export type RunState = (typeof runStates)[number];

/** What lies on the bench now. */
export interface BenchRow extends Versioned {
  rigId: string | null;
  jobId: string | null;
  houseRulesId: string | null;
  conditions: Conditions | null;
}

/** A still of a run: the moment that it is of, without the picture. */
export const stillRowSchema = stillMomentSchema.extend({
  id: z.uuid(),
  width: z.number(),
  height: z.number(),
});
export type StillRow = z.output<typeof stillRowSchema>;

/** A light that a person gives a run, and why. */
export const overruledSchema = z.object({
  grade: z.enum(grades),
  reason: z.string(),
  by: z.string(),
});
export type Overruled = z.output<typeof overruledSchema>;

/**
 * What a decision set on the bench: the sentence that says it, the conditions that were there before, and the
 * version that the bench has since.
 */
export const benchSetSchema = versionedSchema.extend({
  sentence: saidSchema,
  before: conditionsSchema,
});
export type BenchSet = z.output<typeof benchSetSchema>;

/** What a job came to: the profile with its proofs, and what it took. */
export const jobClosingSchema = z.object({
  overrides: z.array(overrideSchema),
  conditions: armConditionsSchema,
  engine: z
    .string()
    .optional()
    .describe("Engine and build that held; absent from what was closed before it was kept."),
  build: z.string().optional(),
  targetFps: z.number(),
  grade: z.enum(grades).nullable(),
  averageFps: z.number(),
  confirmationRunId: z.uuid(),
  runs: z.number(),
  runningMinutes: z.number(),
  days: z.number(),
  note: z.string(),
});
export type JobClosing = z.output<typeof jobClosingSchema>;

export const jobRowSchema = newJobSchema.extend(versionedSchema.shape).extend({
  id: z.uuid(),
  rig: z.string(),
  title: z.string(),
  system: z.string(),
  hardness: z.enum(["easy", "typical", "hard"]),
  engineId: z.uuid(),
  engine: z.string(),
  build: z.string(),
  nativeFps: z.number(),
  sceneFps: z
    .record(z.string(), z.number())
    .nullable()
    .optional()
    .describe("The title's own rate in scenes where it is another, by their names; null for none."),
  tied: z.boolean(),
  houseRules: z.string(),
  rules: houseRulesSchema,
  createdAt: moment,
  closedAt: moment.nullable(),
  deletedAt: moment.nullable().describe("When it was left out; null for one that is there."),
  closing: jobClosingSchema.nullable(),
  baseline: standingSchema.nullable().describe("What it began from; null until its first run."),
});
export type JobRow = z.output<typeof jobRowSchema>;

export const runRowSchema = z
  .object(newRunSchema.shape)
  .extend(versionedSchema.shape)
  .extend({
    id: z.uuid(),
    number: z.number(),
    form: z.enum(["frames", "interval"]),
    madeAt: moment,
    buildId: z.uuid(),
    rigRevisionId: z.uuid(),
    driver: z
      .string()
      .optional()
      .describe("The rig's driver that it was made with; empty where it isn't known."),
    rules: houseRulesSchema,
    yardstick: yardstickSchema,
    faults: z.array(z.enum(faultSeverities)),
    overruled: overruledSchema
      .nullable()
      .optional()
      .describe("What somebody says of its light; shown beside the computed one, never instead of it."),
    state: z.enum(runStates),
    summary: summarySchema.nullable(),
    verdict: verdictSchema.nullable(),
  });
export type RunRow = z.output<typeof runRowSchema>;

export const trialRowSchema = decidableSchema.extend(versionedSchema.shape).extend({
  decidedBy: z
    .string()
    .nullable()
    .optional()
    .describe("Who decided it; null where it isn't, or was before names were kept."),
  id: z.uuid(),
  jobId: z.uuid(),
  createdAt: moment,
  choice: z.enum(["keep", "put back"]).nullable(),
  reason: z.string(),
  mendedSince: z
    .boolean()
    .nullish()
    .describe("Runs of it were changed, moved or left out after it was decided: look again."),
});
export type TrialRow = z.output<typeof trialRowSchema>;

/** A trial with how far its runs have come. */
export const trialNodeSchema = trialRowSchema.extend(progressSchema.shape);
export type TrialNode = z.output<typeof trialNodeSchema>;

export const faultRowSchema = newFaultSchema.extend({
  id: z.uuid(),
  createdAt: moment,
});
export type FaultRow = z.output<typeof faultRowSchema>;

export const jobListRowSchema = jobRowSchema.omit({ rules: true, closing: true, baseline: true }).extend({
  runs: z.number(),
  lastRunAt: moment.nullable(),
  grade: z.enum(grades).nullable().describe("Light and rate of the newest run."),
  between: betweenSchema
    .nullable()
    .describe("The two lights that its readings leave open; null where they leave one."),
  averageFps: z.number().nullable(),
});
export type JobListRow = z.output<typeof jobListRowSchema>;

/** What a job that hasn't begun may still be changed to, its title aside. */
export const jobChoicesSchema = z.object({
  builds: z.array(buildRowSchema.pick({ id: true, version: true, engine: true })),
  houseRules: z.array(
    z.object({
      id: z.uuid(),
      name: z.string(),
    }),
  ),
});
export type JobChoices = z.output<typeof jobChoicesSchema>;
