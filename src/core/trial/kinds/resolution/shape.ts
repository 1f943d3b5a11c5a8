import { z } from "@/core/schema";
import { scaleLawSchema, nextScaleSchema } from "@/core/sweep/shape";
import { recommendsSchema } from "../../shape";

export const resolutionReadingSchema = recommendsSchema.extend({
  kind: z.literal("resolution"),
  law: scaleLawSchema.nullable(),
  levels: z
    .array(
      z.object({
        scale: z.number(),
        medianMs: z.number(),
        p99Ms: z.number().nullable(),
        runs: z.number(),
      }),
    )
    .describe("What 99 of 100 frames take isn't known where a level was read off a screen."),
  next: nextScaleSchema.nullable(),
});
export type ResolutionReading = z.output<typeof resolutionReadingSchema>;
