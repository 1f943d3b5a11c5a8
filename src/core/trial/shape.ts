import { z } from "@/core/schema";
import { grades } from "@/core/verdict";
import { decisions } from "@/core/compare";
import { saidSchema } from "@/core/said/shape";
import { stepSchema } from "@/core/compare/shape";
import { mainEffectSchema } from "@/core/advise/shape";
import { armRoles } from "./armRoles";
import { armShape, armConditionsSchema, trialPlanSchema } from "./shapesSchema";
import { settingsSchema } from "@/core/kit";

/** What an arm's runs came to beside their rates. */
export const armEvidenceSchema = z.object({
  name: z.string(),
  runs: z.number(),
  grades: z.array(z.enum(grades)).describe("Light of every run."),
  between: z
    .tuple([z.enum(grades), z.enum(grades)])
    .optional()
    .describe("The two lights that the readings of its usual runs leave open; absent where they leave one."),
  faulted: z.boolean().describe("Its light is held down by faults or crashes, whatever its rate."),
  crashes: z.number(),
  hours: z.number(),
});
export type ArmEvidence = z.output<typeof armEvidenceSchema>;

/** One pair, as kept with a decision. */
export const pairEffectSchema = z.object({
  a: z.number(),
  b: z.number(),
  by: z.enum(["frames", "engine speed"]),
  ratio: z.number(),
  low: z.number(),
  high: z.number(),
  p: z.number(),
  decision: z.enum(decisions),
  worstTimeLow: z
    .object({
      ratio: z.number(),
      low: z.number(),
      high: z.number(),
    })
    .nullable(),
  fullSpeedTime: z
    .object({
      difference: z.number(),
      low: z.number(),
      high: z.number(),
    })
    .nullable(),
  hitchesPerMinute: z
    .object({
      difference: z.number(),
      low: z.number(),
      high: z.number(),
    })
    .nullable(),
  barred: saidSchema.nullable().optional().describe("Why it can't be called, whatever its interval."),
  moreRunsPerSide: z.number(),
  chanceSettled: z
    .number()
    .optional()
    .describe("Chance that so many settle it; absent from what was kept before it was reckoned."),
  steps: z
    .array(stepSchema)
    .optional()
    .describe(
      "The next steps and the chance that each settles it; absent from what was kept before they were reckoned.",
    ),
});
export type PairEffect = z.output<typeof pairEffectSchema>;

/** What to do about a trial. */
export const adviceSchema = z.object({
  choice: z.enum(["keep", "put back"]),
  arm: z.number().nullable(),
  sentence: saidSchema,
  either: z
    .literal(true)
    .optional()
    .describe("The runs speak for neither: whoever decides chooses by taste or cost, and needs no reason."),
});
export type Advice = z.output<typeof adviceSchema>;

/** What a kind makes of its runs. */
export const outcomeSchema = z.object({
  pairs: z.array(pairEffectSchema),
  best: z.array(z.number()).describe("Arms that no other beats; more than one is a tie."),
  effects: z.array(
    mainEffectSchema.extend({
      key: z.string(),
      label: z.string(),
    }),
  ),
  advice: adviceSchema,
  headline: saidSchema.describe("The effect in a few figures, for the thread."),
  notes: z.array(saidSchema),
  coolDownMinutes: z.number().optional().describe("From a heat sweep, for timetables."),
});
export type Outcome = z.output<typeof outcomeSchema>;

/** What a trial came to when it was decided; kept with it, so that history doesn't change. */
export const trialOutcomeSchema = outcomeSchema.extend({
  kind: z.string(),
  arms: z.array(armEvidenceSchema),
});
export type TrialOutcome = z.output<typeof trialOutcomeSchema>;

export const armSchema = armShape.extend({ role: z.enum(armRoles) });

/** What held when a trial was begun. */
export const beforeSchema = z.object({
  settings: settingsSchema,
  conditions: armConditionsSchema,
  targetFps: z.number().nullable(),
});
export type Before = z.output<typeof beforeSchema>;

/** A trial as planned. */
export const plannedSchema = z.object({
  kind: z.string(),
  name: z.string(),
  arms: z.array(armSchema),
  rounds: z.number(),
  cold: z.boolean(),
  plan: trialPlanSchema,
  before: beforeSchema,
});
export type Planned = z.output<typeof plannedSchema>;

export const progressSchema = z.object({
  runs: z.array(z.number()).describe("Usable runs of every arm."),
  left: z.array(z.number()).describe("Arms still to run, in order."),
});
export type Progress = z.output<typeof progressSchema>;

/** What first and later visits to a run's scenes lost to hitches, ms, mean of a scene. */
export const visitsSchema = z.object({
  runId: z.uuid(),
  number: z.number(),
  arm: z.number(),
  firstLostMs: z.number(),
  laterLostMs: z.number(),
  scenes: z.number(),
});
export type Visits = z.output<typeof visitsSchema>;

/** What every sweep's reading says beside its figures. */
export const recommendsSchema = z.object({
  sentence: saidSchema.describe("The recommendation."),
  arm: z.number().nullable().describe("Arm to keep; null while nothing can be recommended."),
  missing: z.array(saidSchema).describe("What is missing, and what can be given all the same."),
});
export type Recommends = z.output<typeof recommendsSchema>;

/** Means of an arm's runs, as its table shows them; null where none logged it. */
export const armFiguresSchema = z.object({
  speedPercent: z.number().nullable(),
  averageFps: z.number().nullable(),
  low: z.number().nullable(),
  fullSpeedTimePercent: z.number().nullable(),
  hitchesPerMinute: z.number().nullable(),
  watts: z.number().nullable(),
});
export type ArmFigures = z.output<typeof armFiguresSchema>;
