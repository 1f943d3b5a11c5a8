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
  form: z.enum(["frames", "interval"]),
  openedAt: moment,
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
