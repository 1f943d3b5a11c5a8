import { z, moment } from "@/core/schema";
import { settingsSchema, settingValueSchema } from "@/core/kit";
import { saidSchema } from "@/core/said/shape";
import { layers } from "./layer";
import { staleKinds } from "./layer";
import { armConditionsSchema } from "@/core/trial";
import { trialOutcomeSchema, plannedSchema } from "@/core/trial/shape";

export const proofSchema = z.enum(["default", "proven", "untested", "stale", "against", "checked"]);
export type Proof = z.output<typeof proofSchema>;

/** A decided trial that held a value against another one. */
export const confirmationSchema = z.object({
  trialId: z.uuid(),
  jobId: z.uuid(),
  number: z.number(),
  titleId: z.uuid(),
  revisionId: z.uuid(),
  driver: z.string(),
  setUp: z.string().nullable(),
  buildId: z.uuid(),
  against: z.boolean().describe("Whether it was decided otherwise than its runs said."),
  open: z
    .boolean()
    .describe(
      "Whether its runs left open which value is better: nothing speaks against what was kept, and nothing for it.",
    ),
  kept: settingsSchema.describe("What was kept of the keys that its arms differed in."),
  proof: saidSchema.nullable(),
});
export type Confirmation = z.output<typeof confirmationSchema>;

/** Where a value came from. */
export const originSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("trial"),
    jobId: z.uuid(),
    trialId: z.uuid(),
    number: z.number(),
    proof: saidSchema.nullable(),
  }),
  z.object({
    kind: z.literal("run"),
    jobId: z.uuid(),
    runId: z.uuid(),
    number: z.number(),
  }),
  z.object({
    kind: z.literal("by hand"),
  }),
  z.object({
    kind: z.literal("file"),
    name: z.string(),
  }),
  z.object({
    kind: z.literal("lifted"),
    titles: z.array(z.string()),
  }),
  z.object({
    kind: z.literal("carried"),
    from: z.string(),
  }),
]);
export type Origin = z.output<typeof originSchema>;

/** What evidence was measured on; another of any of these makes it stale. */
export const measuredOnSchema = z.object({
  revisionId: z.uuid(),
  revision: z.number(),
  driver: z.string(),
  setUp: z.string().nullable().optional().describe("The rig's set-up by its name; absent for its usual one."),
  buildId: z.uuid(),
  build: z.string(),
});
export type MeasuredOn = z.output<typeof measuredOnSchema>;

/**
 * A value as it was set, or (null) made to inherit again. Newer rows stand over older ones of the same place.
 */
export const layerValueSchema = z.object({
  id: z.number(),
  layer: z.enum(layers),
  systemId: z.uuid().nullable(),
  titleId: z.uuid().nullable(),
  buildId: z.uuid().nullable().describe("Only for this build; null for every one."),
  key: z.string(),
  value: settingValueSchema.nullable(),
  origin: originSchema,
  measuredOn: measuredOnSchema.nullable(),
  at: moment,
  actor: z.string(),
});
export type LayerValue = z.output<typeof layerValueSchema>;

/** One setting over the layers. */
export const profileRowSchema = z.object({
  key: z.string(),
  label: z.string(),
  default: settingValueSchema,
  cells: z.record(z.enum(layers), layerValueSchema.nullable()),
  from: z
    .enum(layers)
    .nullable()
    .describe("The layer whose value holds; null where the engine's default does."),
  value: settingValueSchema,
  standing: proofSchema.describe(
    "By its evidence: `proven` by a decided trial as the rig is now; `against` where it was kept though the runs said otherwise.",
  ),
  stale: z.array(z.enum(staleKinds)).describe("What differs from what its evidence was measured on."),
  together: z
    .array(z.string())
    .describe(
      "Settings that were held along with it in every trial that proves it: which of them did it isn't told apart.",
    ),
  confirmations: z
    .array(confirmationSchema)
    .describe(
      "Trials that held the value against another: of this title, or of any of the system's where no title is asked for.",
    ),
});

/** A value that titles of a system share and that could stand in the system's layer. */
export const liftableSchema = z.object({
  key: z.string(),
  value: settingValueSchema,
  titleIds: z.array(z.string()).describe("Titles that set it so."),
  changes: z
    .array(
      z.object({
        titleId: z.uuid(),
        from: settingValueSchema,
      }),
    )
    .describe("Titles of the system that inherit another value now, with what each has."),
});
export type Liftable = z.output<typeof liftableSchema>;

/** One override of a profile, with where it comes from. */
export const overrideSchema = z.object({
  key: z.string(),
  from: settingValueSchema.nullable(),
  to: settingValueSchema.nullable(),
  trial: z
    .number()
    .nullable()
    .describe("Number of the trial that put it there; null where it was so from the start."),
  proof: saidSchema.nullable().describe("The trial's effect; null where nothing proved it."),
});
export type Override = z.output<typeof overrideSchema>;

/**
 * What holds for a job: settings whole, conditions that were decided, build, and the rate wanted (null for the
 * rules' or the title's).
 */
export const standingSchema = z.object({
  settings: settingsSchema,
  conditions: armConditionsSchema,
  buildId: z.uuid(),
  targetFps: z.number().nullable(),
});
export type Standing = z.output<typeof standingSchema>;

/** A trial as kept, decided or not. */
export const decidableSchema = plannedSchema.extend({
  number: z.number(),
  keptArm: z.number().nullable(),
  decidedAt: moment.nullable(),
  outcome: trialOutcomeSchema.nullable(),
});
export type Decidable = z.output<typeof decidableSchema>;
