import { z } from "@/core/schema";
import { soakFaultSchema, ladderStateSchema, schoolChoiceSchema } from "@/core/sweep/shape";
import { recommendsSchema } from "../../shape";

/** One soak. */
export const soakRowSchema = z.object({
  arm: z.number(),
  minutes: z.number(),
  fps: z.number(),
  hottestC: z.number().nullable(),
  watts: z.number().nullable(),
  fault: soakFaultSchema.nullable(),
});
export type SoakRow = z.output<typeof soakRowSchema>;

export const clocksReadingSchema = recommendsSchema.extend({
  kind: z.literal("clocks"),
  state: ladderStateSchema,
  rows: z.array(soakRowSchema),
  school: schoolChoiceSchema.nullable(),
});
export type ClocksReading = z.output<typeof clocksReadingSchema>;
