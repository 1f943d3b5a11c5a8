import { z } from "@/core/schema";
import { mainEffectSchema } from "@/core/advise/shape";

export const screeningReadingSchema = z.object({
  kind: z.literal("screen"),
  effects: z.array(
    mainEffectSchema.extend({
      key: z.string(),
      label: z.string(),
    }),
  ),
  mixed: z.boolean().describe("Main effects are mixed with what pairs of switches do together."),
});
export type ScreeningReading = z.output<typeof screeningReadingSchema>;
