import { z, moment } from "@/core/schema";

/** A kind of fault at one title, engine and rig, over all its runs. */
export const logRowSchema = z.object({
  key: z.string().describe("Stable for as long as the fault is noted alike."),
  kind: z.enum(["crash", "sound", "picture", "control", "freeze", "wrong speed", "missing"]),
  severity: z.enum(["slight", "visible", "severe", "blocking"]),
  scene: z.string(),
  note: z.string(),
  workaround: z.string(),
  titleId: z.uuid(),
  title: z.string(),
  system: z.string(),
  rigId: z.uuid(),
  rig: z.string(),
  engineId: z.uuid(),
  engine: z.string(),
  builds: z.array(z.string()).describe("Builds and drivers that it was seen with."),
  drivers: z.array(z.string()),
  times: z.number(),
  firstAt: moment,
  lastAt: moment,
  runId: z.uuid().describe("The run that it was last seen in, and its moment there."),
  jobId: z.uuid(),
  run: z.number(),
  atMs: z.number().nullable(),
  runsSince: z.number().describe("Runs of the same title, engine and rig since, in which it wasn't noted."),
});
export type LogRow = z.output<typeof logRowSchema>;

export const logAskedSchema = z.object({
  search: z.string(),
  kind: z.string(),
  severity: z.string(),
  rig: z.string(),
  engine: z.string(),
  still: z
    .enum(["", "still", "gone"])
    .describe(
      '"" for all, "still" for those seen in the newest run, "gone" for those with runs without since.',
    ),
  cursor: z.string(),
});
export type LogAsked = z.output<typeof logAskedSchema>;

export const logViewSchema = z.object({
  rows: z.array(logRowSchema),
  next: z.string().nullable(),
  query: logAskedSchema,
  rigs: z
    .array(
      z.object({
        id: z.uuid(),
        name: z.string(),
      }),
    )
    .describe("What may be filtered by."),
  engines: z.array(
    z.object({
      id: z.uuid(),
      name: z.string(),
    }),
  ),
});
export type LogView = z.output<typeof logViewSchema>;

/** Crashes of a title with a build. */
export const crashRowSchema = z.object({
  titleId: z.uuid(),
  title: z.string(),
  engineId: z.uuid(),
  engine: z.string(),
  buildId: z.uuid(),
  build: z.string(),
  runs: z.number(),
  crashes: z.number(),
  hours: z.number(),
  perHour: z.number(),
  low: z.number(),
  high: z.number(),
});
export type CrashRow = z.output<typeof crashRowSchema>;

/** What one build changed against the one before it. */
export const buildViewSchema = z.object({
  id: z.uuid(),
  version: z.string(),
  branch: z.enum(["stable", "experimental"]),
  date: z.string().nullable(),
  engineId: z.uuid(),
  engine: z.string(),
  before: z
    .object({
      id: z.uuid(),
      version: z.string(),
    })
    .nullable()
    .describe("The build before, by date; null for the first."),
  builds: z.array(
    z.object({
      id: z.uuid(),
      version: z.string(),
    }),
  ),
  titles: z.array(
    z.object({
      titleId: z.uuid(),
      title: z.string(),
      rig: z.string(),
      change: z.enum(["fixed", "newly broken", "brighter", "darker", "as before", "one side only"]),
      from: z.string().nullable(),
      to: z.string().nullable(),
      gone: z.array(z.string()),
      fresh: z.array(z.string()),
      jobId: z.uuid(),
    }),
  ),
  stale: z
    .array(
      z.object({
        rigId: z.uuid(),
        rig: z.string(),
        values: z.number(),
      }),
    )
    .describe("Values of profiles that were measured with another build."),
});
export type BuildView = z.output<typeof buildViewSchema>;
