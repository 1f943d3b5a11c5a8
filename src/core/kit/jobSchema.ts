import { z } from "@/core/schema";
import { settingsSchema } from "./engineSchema";
import { preflightTickSchema } from "./preflightSchema";
import { conditionsSchema } from "./rigSchema";
import { strategies, aims, cacheStates } from "./job";

export const newJobSchema = z.object({
  rigId: z.uuid("Choose a rig."),
  titleId: z.uuid("Choose a title."),
  buildId: z.uuid("Choose an engine and build."),
  houseRulesId: z.uuid("Choose house rules."),
  aim: z.enum(aims),
  /** The rate wanted; null for the title's own. */
  targetFps: z.number().min(1).max(1000).nullable(),
  /** How to begin: from what is in force, from everything at its fastest, or by a screening. */
  strategy: z.enum(strategies),
});
export type NewJob = z.infer<typeof newJobSchema>;

const share = z.number().min(0);
/** What a capture could show of a run, and how surely; the video itself is never sent. */
export const captureFactsSchema = z.object({
  captureFps: z.number().min(0.1).max(2000),
  capturedFrames: z.number().int().min(1),
  unsureFrames: z.number().int().min(0),
  lostFrames: z.number().int().min(0),
  averageFps: share,
  averageFpsInterval: z.tuple([share, share]),
  ceiling: z.boolean(),
  stillMs: share,
  counter: z
    .object({
      averageFps: share.nullable(),
      readings: z.number().int().min(0),
      dropped: z.number().int().min(0),
    })
    .nullable(),
  counterDisagrees: z.boolean().nullable(),
  /** Speed by a clock in the title's own picture, 1 for full speed. */
  clock: z.object({ speed: share, low: share, high: share }).nullable().optional(),
  fileBytes: z.number().int().min(0),
});
export type CaptureFacts = z.infer<typeof captureFactsSchema>;

/** What is said about a run when it is brought in; the trace comes beside it. */
export const newRunSchema = z
  .object({
    jobId: z.uuid(),
    source: z.enum(["log", "tally", "simulated", "capture"]),
    label: z.string().trim().max(120),
    fileName: z.string().max(255).nullable(),
    conditions: conditionsSchema,
    settings: settingsSchema,
    cacheState: z.enum(cacheStates),
    crashed: z.boolean(),
    skippedRows: z.number().int().min(0),
    preflight: z.array(preflightTickSchema).max(200),
    notes: z.string().trim().max(2000),
    /** The trial and arm it was made for; both or neither. */
    trialId: z.uuid().nullable().default(null),
    arm: z.number().int().min(0).max(23).nullable().default(null),
    /** SHA-256 of the file it was read from, in hexadecimal: the same file isn't kept twice by mistake. */
    fileHash: z
      .string()
      .regex(/^[0-9a-f]{64}$/)
      .nullable()
      .optional(),
    /** Keep it though the job has a run of the same file. */
    again: z.boolean().optional(),
    /** The scene it was run in, where its marks don't say. */
    scene: z.string().trim().max(120).optional(),
    tags: z.array(z.string().trim().min(1).max(40)).max(12).optional(),
    /** Told from memory: weak, and in no floor, comparison or confirmation. */
    fromMemory: z.boolean().optional(),
    /** Of a run measured from a video. */
    capture: captureFactsSchema.nullable().optional(),
  })
  .refine(({ trialId, arm }) => (trialId === null) === (arm === null), {
    path: ["arm"],
    message: "A run of a trial belongs to an arm.",
  });
export type NewRun = z.output<typeof newRunSchema>;
