import { z, moment } from "@/core/schema";
import { grades } from "@/core/verdict";
import { overruledSchema } from "./jobs";
import { intervalSchema } from "@/core/stats/shape";
import { betweenSchema } from "@/core/verdict/shape";

/** How a title fares on a rig, by the newest work on it there. */
export const boardCellSchema = z.object({
  titleId: z.uuid(),
  rigId: z.uuid(),
  jobId: z.uuid(),
  runId: z.uuid().describe("The run that tells."),
  grade: z.enum(grades).nullable(),
  between: betweenSchema
    .nullable()
    .describe("The two lights that its readings leave open; null where they leave one."),
  averageFps: z.number(),
  targetFps: z.number(),
  scale: z
    .number()
    .nullable()
    .describe("What the telling run was made with; null where the engine has no scale, or the rig no modes."),
  powerMode: z.string().nullable(),
  overruled: overruledSchema.nullable().describe("What somebody says of its light."),
  runs: z.number().describe("Whole runs of the job."),
  places: z
    .object({
      hold: z.number(),
      of: z.number(),
    })
    .nullable()
    .describe("How many places of the telling run hold; null where it names fewer than two."),
  confirmed: z.boolean().describe("Whether the job is closed with a confirmed profile."),
  at: moment,
});
export type BoardCell = z.output<typeof boardCellSchema>;

export const boardTitleSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  system: z.string(),
  systemId: z.uuid(),
  hardness: z.enum(["easy", "typical", "hard"]),
  cells: z.array(boardCellSchema),
});
export type BoardTitle = z.output<typeof boardTitleSchema>;

export const boardTitlesSchema = z.object({
  rows: z.array(boardTitleSchema),
  total: z.number(),
  next: z.string().nullable(),
});
export type BoardTitles = z.output<typeof boardTitlesSchema>;

export const boardAskedSchema = z.object({
  search: z.string(),
  system: z.string(),
  hardness: z.string(),
  cursor: z.string(),
});
export type BoardAsked = z.output<typeof boardAskedSchema>;

/** Titles of a system on a rig, by their verdict. */
export const boardShareSchema = z.object({
  systemId: z.uuid(),
  rigId: z.uuid(),
  grades: z.partialRecord(z.enum(grades), z.number()),
  holds: intervalSchema.describe("Share of those judged that is Steady, 95 % (Wilson)."),
});
export type BoardShare = z.output<typeof boardShareSchema>;

export const boardViewSchema = boardTitlesSchema.extend({
  query: boardAskedSchema,
  rigs: z
    .array(
      z.object({
        id: z.uuid(),
        name: z.string(),
      }),
    )
    .describe("Rigs that anything was run on; where there is none, every rig."),
  systems: z.array(
    z.object({
      id: z.uuid(),
      name: z.string(),
      titles: z.number(),
    }),
  ),
  shares: z.array(boardShareSchema),
});
export type BoardView = z.output<typeof boardViewSchema>;
