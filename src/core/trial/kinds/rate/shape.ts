import { z } from "@/core/schema";
import { rateDecisionSchema, overdrivenSchema } from "@/core/advise/shape";
import { recommendsSchema } from "../../shape";

export const rateReadingSchema = recommendsSchema.extend({
  kind: z.literal("rate"),
  decision: rateDecisionSchema,
  overdriven: z.array(overdrivenSchema),
});
export type RateReading = z.output<typeof rateReadingSchema>;
