import { z } from "@/core/schema";
import { faultKinds, faultSeverities } from "./fault";

export const newFaultSchema = z.object({
  runId: z.uuid(),
  kind: z.enum(faultKinds),
  severity: z.enum(faultSeverities),
  scene: z.string().trim().max(120),
  /** When in the trace, ms; null when not known. */
  atMs: z.number().min(0).nullable(),
  note: z.string().trim().max(400),
  workaround: z.string().trim().max(400),
});
export type NewFault = z.infer<typeof newFaultSchema>;
