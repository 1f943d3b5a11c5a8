import { z } from "@/core/schema";
import { conditionsSchema, settingsSchema } from "@/core/kit";
import { armRoles, type ArmRole } from "./armRoles";

/** Conditions that an arm sets; the others come from the bench strip. */
export const armConditionsSchema = conditionsSchema
  .pick({
    powerMode: true,
    clocks: true,
    display: true,
    pluggedIn: true,
    docked: true,
    cooler: true,
    setUp: true,
  })
  .partial();
export type ArmConditions = z.infer<typeof armConditionsSchema>;

/** No scale, wattage, clock or step is larger. */
const mostLevel = 100_000;

/**
 * One way to run the title: settings whole, what it changes of the conditions, and another build where that is
 * the question.
 */
export const armShape = z.object({
  name: z.string().trim().min(1, "Name the arm.").max(120),
  settings: settingsSchema,
  conditions: armConditionsSchema,
  buildId: z.uuid().nullable(),
  /** Place on the ordered factor of a sweep: a scale, watts, a step of a ladder. */
  level: z
    .number()
    .min(-mostLevel, "A level is larger than any can be.")
    .max(mostLevel, "A level is larger than any can be.")
    .nullable(),
  role: z.enum(armRoles).optional(),
});
export type Arm = z.infer<typeof armShape> & { role: ArmRole };

/** What a sweep is planned with beside its levels; null or absent where it doesn't matter. */
export const trialPlanSchema = z.object({
  /** Minutes of one run. */
  minutes: z.number().min(0.1).max(600).nullable(),
  /** Minutes of a soak on a clock ladder. */
  soakMinutes: z.number().min(1).max(240).nullable(),
  /** What logged watts leave out: the screen, the rest of the device. */
  elsewhereWatts: z.number().min(0).max(100).nullable(),
  /** Key of the setting that is swept, or of a screening's factors in their order. */
  keys: z.array(z.string().max(120)).max(23),
  /**
   * A run made before the trial as things were, that counts as the first of what is in force; null for none.
   * Where nothing is said it is found among the job's runs.
   */
  firstRunId: z.uuid().nullable().optional(),
});
export type TrialPlan = z.infer<typeof trialPlanSchema>;
