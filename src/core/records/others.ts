import type { Publication } from "@/core/publication";

/** What somebody else published, as it was brought in. */
export interface OtherPublication {
  id: string;
  /** Who it is from, as whoever brought it in says. */
  from: string;
  addedAt: Date;
  kind: Publication["kind"];
  name: string;
  /** ISO 8601. */
  madeAt: string;
}

/** One of them to be looked at: its tables begin here, each with how many rows it has in all. */
export interface OtherView extends OtherPublication {
  publication: Publication;
  rowsInAll: number[];
}

/** How runs were made, and how many in each way. */
export interface Ways {
  sources: { source: string; runs: number }[];
  paths: string[];
  from: Date | null;
  to: Date | null;
}
