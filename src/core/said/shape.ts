import { z } from "@/core/schema";

/** A sentence as the API gives it: its words are put beside it on the way out. */
export const saidSchema = z.object({
  code: z.string().describe("Which sentence; stable."),
  figures: z.unknown().describe("The figures in it."),
  words: z.string().optional().describe("The sentence in English."),
});
