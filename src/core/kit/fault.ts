import { z } from "zod";

export const faultKinds = ["picture", "sound", "control", "crash", "freeze", "wrong speed", "missing"] as const;
/** Worst last; what each does to a verdict is `judge`'s. */
export const faultSeverities = ["slight", "visible", "severe", "blocking"] as const;
export type Severity = (typeof faultSeverities)[number];
/** A fault that holds an arm down, whatever its rate. */
export const outweighs = (severity: Severity) => severity === "severe" || severity === "blocking";

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
