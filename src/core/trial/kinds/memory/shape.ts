import { z } from "@/core/schema";
import { memoryGrowthSchema, crashRateSchema } from "@/core/sweep/shape";
import { recommendsSchema } from "../../shape";

/** One run of a memory sweep. */
export const memoryRowSchema = z.object({
  run: z.number(),
  arm: z.number(),
  points: z.object({
    minutes: z.array(z.number()),
    megabytes: z.array(z.number()),
  }),
  growth: memoryGrowthSchema.nullable(),
  diedAfterMinutes: z.number().nullable(),
});
export type MemoryRow = z.output<typeof memoryRowSchema>;

export const memoryReadingSchema = recommendsSchema.extend({
  kind: z.literal("memory"),
  rows: z.array(memoryRowSchema),
  limitMb: z
    .number()
    .nullable()
    .describe("What the rig leaves to an engine; null where its memory isn't known."),
  others: z
    .array(
      z.object({
        gigabytes: z.number(),
        minutes: z.number().nullable(),
      }),
    )
    .describe("Minutes that devices with more memory would last."),
  crashes: crashRateSchema.nullable(),
});
export type MemoryReading = z.output<typeof memoryReadingSchema>;
