import { z } from "@/core/schema";
import { heatFitSchema, limitOutlookSchema, throttleSchema } from "@/core/sweep/shape";
import { recommendsSchema } from "../../shape";

/** One run of a heat sweep. */
export const heatRowSchema = z.object({
  run: z.number(),
  arm: z.number(),
  points: z.object({
    seconds: z.array(z.number()),
    celsius: z.array(z.number()),
  }),
  fit: heatFitSchema.nullable(),
  outlook: limitOutlookSchema.nullable().describe("Null: never at this load."),
  throttles: z.array(throttleSchema),
  burst: z.number().nullable(),
  sustained: z.number().nullable(),
  coolDownMinutes: z.number().nullable(),
  hottestC: z.number(),
});
export type HeatRow = z.output<typeof heatRowSchema>;

export const heatReadingSchema = recommendsSchema.extend({
  kind: z.literal("heat"),
  rows: z.array(heatRowSchema),
  limitC: z.number().nullable(),
});
export type HeatReading = z.output<typeof heatReadingSchema>;
