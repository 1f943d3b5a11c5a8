import { z } from "@/core/schema";

/** So many further runs a side, and the chance that they settle a comparison. */
export const stepSchema = z.object({
  more: z.number(),
  chance: z.number(),
});
export type Step = z.output<typeof stepSchema>;

/**
 * How much a rig varies by itself: SD of log average fps over repeats of identical settings, and the degrees of
 * freedom behind it.
 */
export const noiseFloorSchema = z.object({
  sd: z.number(),
  freedom: z.number().describe("How many repeats it is worth."),
  betweenOnly: z
    .boolean()
    .optional()
    .describe(
      "True for a figure that says how runs differ beyond what their own frames leave open. A measured floor holds both.",
    ),
});
export type NoiseFloor = z.output<typeof noiseFloorSchema>;
