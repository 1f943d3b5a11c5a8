import { z } from "@/core/schema";
import { powerSweepSchema } from "@/core/sweep/shape";
import { recommendsSchema } from "../../shape";

export const powerReadingSchema = recommendsSchema.extend({
  kind: z.literal("power"),
  sweep: powerSweepSchema,
  hours: z.array(z.number().nullable()),
  elsewhereWatts: z.number(),
});
export type PowerReading = z.output<typeof powerReadingSchema>;
