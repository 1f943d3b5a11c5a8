import { z } from "@/core/schema";

/** A moment of a capture that is worth a look later. */
export const stillMomentSchema = z.object({
  atMs: z.number(),
  why: z.enum(["mark", "slow"]),
  label: z.string().describe("The mark's name; empty for a slow one."),
  lastsMs: z.number().describe("How long the picture stood, ms."),
});
export type StillMoment = z.output<typeof stillMomentSchema>;
