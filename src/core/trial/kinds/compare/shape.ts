import { z } from "@/core/schema";
import { saidSchema } from "@/core/said/shape";
import { pairEffectSchema } from "../../shape";

export const compareReadingSchema = z.object({
  kind: z.literal("compare"),
  pairs: z.array(pairEffectSchema),
  best: z.array(z.number()),
  notes: z.array(saidSchema),
});
export type CompareReading = z.output<typeof compareReadingSchema>;
