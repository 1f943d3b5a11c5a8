import { z } from "@/core/schema";
import { grades } from "@/core/verdict";

/** A run whose light other thresholds would change. */
export const rejudgedSchema = z.object({
  runId: z.uuid(),
  jobId: z.uuid(),
  title: z.string(),
  rig: z.string(),
  number: z.number(),
  from: z.enum(grades).nullable(),
  to: z.enum(grades).nullable(),
});
export type Rejudged = z.output<typeof rejudgedSchema>;
