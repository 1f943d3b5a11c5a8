import type { Versioned } from "./kit";

/** Something left out of a job. */
export interface LeftOut extends Versioned {
  id: string;
  number: number;
  name: string;
  at: Date;
}

/** A rig with an engine: where a profile is. */
export interface ProfileListRow {
  rigId: string;
  rig: string;
  engineId: string;
  engine: string;
  /** Values set in its layers. */
  values: number;
  jobs: number;
  /** Titles that jobs are of. */
  titles: number;
  /** Values that aren't proven for a title as the rig is now. */
  toConfirm: number;
}

/** Something found by its name: what it is, and where it stands. */
export interface FoundRow {
  kind: "job" | "trial" | "title" | "rig" | "setting";
  id: string;
  path: string;
  name: string;
  note: string;
}

/** What was changed about a run since it was made. */
export interface RunEditsView {
  rows: { at: Date; actor: string; changes: { field: string; from: unknown; to: unknown }[] }[];
}
