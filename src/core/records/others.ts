import { z, moment } from "@/core/schema";
import { publicationSchema } from "@/core/publication";

/** How runs were made, and how many in each way. */
export interface HowRunsWereMade {
  sources: { source: string; runs: number }[];
  paths: string[];
  from: string | null;
  to: string | null;
}

/** What somebody else published, as it was brought in. */
export const otherPublicationSchema = z.object({
  id: z.uuid(),
  from: z.string().describe("Who it is from, as whoever brought it in says."),
  addedAt: moment,
  kind: z.enum(["campaign", "board", "device"]),
  name: z.string(),
  madeAt: z.string().describe("ISO 8601."),
});
export type OtherPublication = z.output<typeof otherPublicationSchema>;

/** One of them to be looked at: its tables begin here, each with how many rows it has in all. */
export const otherViewSchema = otherPublicationSchema.extend({
  publication: publicationSchema,
  rowsInAll: z.array(z.number()),
});
export type OtherView = z.output<typeof otherViewSchema>;
