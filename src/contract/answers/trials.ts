import { z } from "@/core/schema";
import { saidSchema } from "@/core/said/shape";
import { keptSettingSchema, displaySchema } from "@/core/kit";
import { jobRowSchema, trialNodeSchema, faultRowSchema } from "@/core/records";
import { threadRunSchema } from "./runs";
import { noiseFloorSchema } from "@/core/compare/shape";
import {
  visitsSchema,
  trialOutcomeSchema,
  adviceSchema,
  armEvidenceSchema,
  armFiguresSchema,
} from "@/core/trial/shape";
import { readingSchema } from "@/core/trial/kinds/shape";
import { comparedPlaceSchema } from "@/core/job/shape";

/** A trial with all that its page shows. */
export const trialViewSchema = z.object({
  job: jobRowSchema,
  trial: trialNodeSchema,
  decidedOnOther: z
    .object({ now: saidSchema.nullable().describe("What the runs say now; null where they decide nothing.") })
    .nullable()
    .describe("Its runs were changed after it was decided, and say something else now."),
  firstRun: z
    .number()
    .nullable()
    .describe("Number of the run made before it that counts as the first of what is in force; null for none."),
  kind: z
    .object({
      name: z.string(),
      sweep: z.boolean(),
      warmOnly: z.boolean(),
    })
    .describe("What its kind says: its name, whether it sweeps, whether first passes are kept apart."),
  keptNames: z.array(z.string()).describe("What is kept, by name, when an arm is: one an arm."),
  targetFps: z.number().describe("The rate wanted of its runs, fps."),
  runs: z.array(threadRunSchema),
  faults: z.array(faultRowSchema),
  noise: noiseFloorSchema,
  noiseMeasured: z.boolean(),
  visits: z.array(visitsSchema).describe("What first and later visits to scenes lost."),
  drifted: z.array(saidSchema).describe("Rigs, engines and conditions that drifted since it was begun."),
  reading: readingSchema.nullable(),
  outcome: trialOutcomeSchema.nullable(),
  advice: adviceSchema.nullable().describe("What to do, by the runs there are; as kept where it is decided."),
  missing: z.array(saidSchema),
  pending: z
    .string()
    .nullable()
    .describe(
      "Says which facts still have to be reckoned, where that takes long and wasn't done; null when nothing has.",
    ),
  evidence: z.array(armEvidenceSchema),
  figures: z.array(armFiguresSchema),
  places: z.array(comparedPlaceSchema).describe("Every arm place by place, where runs name places."),
  catalogue: z.array(keptSettingSchema),
  limits: z.object({
    temperatureC: z.number().nullable(),
    batteryWh: z.number().nullable(),
  }),
  display: displaySchema.pick({ name: true, width: true, height: true, diagonalInch: true }),
  screens: z.array(
    z.object({
      width: z.number(),
      height: z.number(),
      pixelAspect: z.number(),
    }),
  ),
});
export type TrialView = z.output<typeof trialViewSchema>;
