import { z } from "@/core/schema";

/** What was measured of a title with an engine on a rig, in one mode and at one scale. */
export const observationRowSchema = z.object({
  titleId: z.uuid(),
  engineId: z.uuid(),
  rigId: z.uuid(),
  powerMode: z.string().describe("Empty where the rig has none, or nobody said."),
  clocks: z.string(),
  scale: z.number(),
  pixels: z.number().describe("Of the picture at ×1, millions."),
  fps: z.number(),
  held: z.boolean().describe("A cap or the display held it."),
});
export type ObservationRow = z.output<typeof observationRowSchema>;
