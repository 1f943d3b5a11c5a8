/**
 * What a program may, each with all before it: see the application's own figures, read, bring runs in, tune. A
 * person reads or tunes.
 */
export type Rights = "metrics" | "reads" | "runs" | "tunes";

export interface PersonRow {
  id: string;
  name: string;
  may: "tunes" | "reads";
  /** When the passphrase was set last. */
  changedAt: Date | string;
  /** Sessions that hold. */
  sessions: number;
}

export interface SessionRow {
  id: string;
  name: string;
  /** Where it began. */
  address: string;
  /** What the browser called itself. */
  agent: string;
  madeAt: Date | string;
  seenAt: Date | string;
}

/** A program that may knock with a token; the token itself is shown once and never kept. */
export interface ProgramRow {
  id: string;
  name: string;
  may: Rights;
  madeBy: string;
  madeAt: Date | string;
  usedAt: Date | string | null;
}

/** What a read-only link shows. */
export interface SharedOf {
  what: "board" | "device" | "campaign" | "recipe";
  /** Id of the rig, campaign or job; empty for the board. */
  ofId: string;
  names: boolean;
  notes: boolean;
}

export interface LinkRow extends SharedOf {
  id: string;
  /** What it is of, by name; empty for the board. */
  name: string;
  madeBy: string;
  madeAt: Date | string;
  usedAt: Date | string | null;
}

export interface PeopleView {
  /** Whether anybody has to sign in here. */
  asked: boolean;
  people: PersonRow[];
  sessions: SessionRow[];
  programs: ProgramRow[];
  links: LinkRow[];
}

/** How the application itself fares. */
export interface WorkshopView {
  version: string;
  startedAt: string;
  /** Tables by what they take, the largest first. */
  sizes: { name: string; rows: number; bytes: number }[];
  totalBytes: number;
  /** Doors of this process by their mean time, the slowest first; `over` counts answers over a second. */
  slow: { door: string; asked: number; meanMs: number; over: number }[];
  /** Statements of this process that took half a second or more, the slowest first. */
  statements: { statement: string; times: number; mostMs: number }[];
  /** Work in the background. */
  waiting: { name: string; waiting: number; active: number; failed: number }[];
  /** Runs whose figures are of an older method. */
  outdatedRuns: number;
  memoryMb: number;
  /** Minutes that the newest thing kept is ahead of this machine's clock; 0 where none is. */
  aheadMinutes: number;
  lastBackupAt: string | null;
}
