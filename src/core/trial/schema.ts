import { z } from "@/core/schema";
import { kindOf, trialKinds } from "./kinds";
import { mostArms } from "./shapes";
import { armShape, trialPlanSchema, type Arm } from "./shapesSchema";

export const newTrialSchema = z
  .object({
    jobId: z.uuid(),
    kind: z.enum(trialKinds as [string, ...string[]]),
    name: z.string().trim().min(1, "Say what is tried.").max(160),
    arms: z.array(armShape).min(1).max(mostArms),
    /** Runs of every arm. */
    rounds: z.number().int().min(1).max(40),
    /** Whether first passes over a cleared cache are the question. */
    cold: z.boolean(),
    plan: trialPlanSchema,
  })
  .superRefine(({ kind, arms }, context) => {
    const refuse = (message: string) => context.addIssue({ code: "custom", path: ["arms"], message });
    if (arms.length < kindOf(kind).leastArms) refuse("A comparison needs two arms.");
    if (new Set(arms.map(({ name }) => name)).size < arms.length) refuse("Two arms have one name.");
  })
  .transform(({ arms, ...trial }) => ({
    ...trial,
    arms: arms.map((arm, at): Arm => ({ ...arm, role: arm.role ?? kindOf(trial.kind).roleOf(arm, at) })),
  }));
export type NewTrial = z.output<typeof newTrialSchema>;

/** An arm added to a trial under way. */
export const addedArmSchema = (kind: string) =>
  armShape.transform((arm): Arm => ({ ...arm, role: arm.role ?? kindOf(kind).roleOf(arm, 1) }));
