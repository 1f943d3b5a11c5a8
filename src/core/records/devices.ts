import { houseRulesSchema } from "@/core/verdict";
import { moment, z } from "@/core/schema";

/* Runs that grow, and the devices that bring them. */

export const liveRunSchema = z.object({
  runId: z.uuid(),
  number: z.number().int(),
  label: z.string(),
  jobId: z.uuid(),
  title: z.string(),
  rigId: z.uuid(),
  rig: z.string(),
  engine: z.string(),
  targetFps: z.number(),
  nativeFps: z.number(),
  measuring: houseRulesSchema.shape.measuring,
  form: z.enum(["frames", "interval"]),
  openedAt: moment,
  scenes: z.array(z.string()).describe("The title's own, the worst first."),
  marks: z
    .array(z.object({ label: z.string(), startMs: z.number(), endMs: z.number().nullable() }))
    .describe("Those made on a page; ms from its start, the open one without an end."),
  lastAt: moment.nullable().describe("When a piece of it came last; null before the first."),
});
export type LiveRun = z.output<typeof liveRunSchema>;

export const liveDeviceSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  rigId: z.uuid(),
  rig: z.string(),
  pairedAt: moment,
  seenAt: moment.nullable().describe("When it called last, to the minute; null where it never did."),
});
