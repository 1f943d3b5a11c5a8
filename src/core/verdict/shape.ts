import { z } from "@/core/schema";
import { grades } from "./grades";
import { saidSchema } from "@/core/said/shape";

/** The worst and the best light that readings leave open, where that is more than one. */
export const betweenSchema = z.tuple([z.enum(grades), z.enum(grades)]);

/** A place of a run and its light. */
export const sceneLightSchema = z.object({
  label: z.string(),
  grade: z.enum(grades).nullable(),
  between: betweenSchema.optional(),
});
export type SceneLight = z.output<typeof sceneLightSchema>;

export const ruleNameSchema = z.enum([
  "speedPercent",
  "reportedSpeedPercent",
  "percentOfTarget",
  "fullSpeedTimePercent",
  "hitchesPerMinute",
  "freezes",
  "alternation",
  "crash",
  "blockingFaults",
  "severeFaults",
  "visibleFaults",
]);
export type RuleName = z.output<typeof ruleNameSchema>;

/** A rule that decided a verdict; `value` is null where the form of the trace can't say. */
export const reasonSchema = z.object({
  rule: ruleNameSchema,
  value: z.number().nullable(),
  limit: z.number(),
  met: z.boolean(),
  counted: z
    .object({
      count: z.number(),
      seconds: z.number(),
    })
    .optional()
    .describe("What a rate was counted from; absent where it isn't one."),
});
export type Reason = z.output<typeof reasonSchema>;

export const verdictSchema = z.object({
  grade: z.enum(grades).nullable().describe("Null where a run is too short to earn any light."),
  reasons: z
    .array(reasonSchema)
    .describe(
      "The rules that decided: all of Steady's when Steady, else those that kept it from the next better light.",
    ),
  between: betweenSchema
    .optional()
    .describe("The worst and the best light that readings leave open, where that is more than the one."),
  partial: z.boolean().describe("True when judged from readings or by eye, so that hitches could not be seen."),
  remarks: z.array(saidSchema).describe("What a person should know beside the verdict."),
  scenes: z
    .array(sceneLightSchema)
    .optional()
    .describe("The light of every place of a run that names more than one; absent for the others."),
});
export type Verdict = z.output<typeof verdictSchema>;
