import type { NewFault } from "@/core/kit";

/** A kind of fault at one title, engine and rig, over all its runs. */
export interface LogRow {
  /** Stable for as long as the fault is noted alike. */
  key: string;
  kind: NewFault["kind"];
  severity: NewFault["severity"];
  scene: string;
  note: string;
  workaround: string;
  titleId: string;
  title: string;
  system: string;
  rigId: string;
  rig: string;
  engineId: string;
  engine: string;
  /** Builds and drivers that it was seen with. */
  builds: string[];
  drivers: string[];
  times: number;
  firstAt: Date;
  lastAt: Date;
  /** The run that it was last seen in, and its moment there. */
  runId: string;
  jobId: string;
  run: number;
  atMs: number | null;
  /** Runs of the same title, engine and rig since, in which it wasn't noted. */
  runsSince: number;
}

export interface LogView {
  rows: LogRow[];
  next: string | null;
  query: LogAsked;
  /** What may be filtered by. */
  rigs: { id: string; name: string }[];
  engines: { id: string; name: string }[];
}

export interface LogAsked {
  search: string;
  kind: string;
  severity: string;
  rig: string;
  engine: string;
  /** "" for all, "still" for those seen in the newest run, "gone" for those with runs without since. */
  still: "" | "still" | "gone";
  cursor: string;
}

/** Crashes of a title with a build. */
export interface CrashRow {
  titleId: string;
  title: string;
  engineId: string;
  engine: string;
  buildId: string;
  build: string;
  runs: number;
  crashes: number;
  hours: number;
  perHour: number;
  low: number;
  high: number;
}

/** What one build changed against the one before it. */
export interface BuildView {
  id: string;
  version: string;
  branch: "stable" | "experimental";
  date: string | null;
  engineId: string;
  engine: string;
  /** The build before, by date; null for the first. */
  before: { id: string; version: string } | null;
  builds: { id: string; version: string }[];
  titles: {
    titleId: string;
    title: string;
    rig: string;
    change: "fixed" | "newly broken" | "brighter" | "darker" | "as before" | "one side only";
    from: string | null;
    to: string | null;
    gone: string[];
    fresh: string[];
    jobId: string;
  }[];
  /** Values of profiles that were measured with another build. */
  stale: { rigId: string; rig: string; values: number }[];
}
