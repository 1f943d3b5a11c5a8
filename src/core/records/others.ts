import type { Publication } from "@/core/publication";

/** What somebody else published, as it was brought in. */
export interface OtherPublication {
  id: string;
  /** Who it is from, as whoever brought it in says. */
  from: string;
  addedAt: Date;
  publication: Publication;
}

/** How runs were made, and how many in each way. */
export interface Ways {
  sources: { source: string; runs: number }[];
  paths: string[];
  from: Date | null;
  to: Date | null;
}
