import { z } from "@/core/schema";

/** A two-sided interval. */
export const intervalSchema = z.object({
  low: z.number(),
  high: z.number(),
});
export type Interval = z.output<typeof intervalSchema>;
