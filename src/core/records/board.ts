import type { NewTitle } from "@/core/kit";
import type { Interval } from "@/core/stats";
import type { Grade } from "@/core/verdict";
import type { Overruled } from "./jobs";

/** How a title fares on a rig, by the newest work on it there. */
export interface BoardCell {
  titleId: string;
  rigId: string;
  jobId: string;
  /** The run that tells. */
  runId: string;
  grade: Grade | null;
  averageFps: number;
  targetFps: number;
  /** What the telling run was made with; null where the engine has no scale, or the rig no modes. */
  scale: number | null;
  powerMode: string | null;
  /** What somebody says of its light. */
  overruled: Overruled | null;
  /** Whole runs of the job. */
  runs: number;
  /** How many places of the telling run hold; null where it names fewer than two. */
  places: { hold: number; of: number } | null;
  /** Whether the job is closed with a confirmed profile. */
  confirmed: boolean;
  at: Date;
}

export interface BoardTitle {
  id: string;
  name: string;
  system: string;
  systemId: string;
  hardness: NewTitle["hardness"];
  cells: BoardCell[];
}

/** Titles of a system on a rig, by their verdict. */
export interface BoardShare {
  systemId: string;
  rigId: string;
  grades: Partial<Record<Grade, number>>;
  /** Share of those judged that is Steady, 95 % (Wilson). */
  holds: Interval;
}

export interface BoardAsked {
  search: string;
  system: string;
  hardness: string;
  cursor: string;
}

export interface BoardTitles {
  rows: BoardTitle[];
  total: number;
  next: string | null;
}

export interface BoardView extends BoardTitles {
  query: BoardAsked;
  /** Rigs that anything was run on; where there is none, every rig. */
  rigs: { id: string; name: string }[];
  systems: { id: string; name: string; titles: number }[];
  shares: BoardShare[];
}
