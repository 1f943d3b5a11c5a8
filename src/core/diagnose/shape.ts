import { z } from "@/core/schema";
import { causes } from "./causes";
import { saidSchema } from "@/core/said/shape";

/** One sign: what it speaks for (or against, below 0), how strongly, and what was seen. */
export const evidenceSchema = z.object({
  cause: z.enum(causes),
  weight: z.number(),
  sign: saidSchema,
});
export type Evidence = z.output<typeof evidenceSchema>;

export const foundCauseSchema = z.object({
  cause: z.enum(causes),
  weight: z.number().describe("How much the evidence comes to."),
  chance: z.number().describe("Chance that this is what holds it back most, 0…1."),
  evidence: z.array(evidenceSchema),
});
export type FoundCause = z.output<typeof foundCauseSchema>;

export const diagnosisSchema = z.object({
  causes: z
    .array(foundCauseSchema)
    .describe("Named causes, the likeliest first; empty when nothing holds it back or evidence lacks."),
  likely: z.array(foundCauseSchema).describe("Every cause that something speaks for, the likeliest first."),
  segments: z
    .array(
      z.object({
        label: z.string(),
        startMs: z.number(),
        endMs: z.number(),
        cause: z.enum(causes).nullable(),
        state: z.enum(["full speed", "slow", "hitches"]),
      }),
    )
    .describe("Stretches with their own cause, where they have one."),
  sentence: saidSchema.describe("What it comes to, with figures."),
  settle: saidSchema.nullable().describe("What would settle it; null when it is settled."),
  pixelShare: z
    .number()
    .nullable()
    .describe("Share of the frame that goes with pixels, where scales were tried."),
});
export type Diagnosis = z.output<typeof diagnosisSchema>;
