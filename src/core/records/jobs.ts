import type { StillMoment } from "@/core/capture";
import type { Conditions, NewFault, NewJob, NewRun, NewTitle, Severity } from "@/core/kit";
import type { Summary, Yardstick } from "@/core/metrics";
import type { Decidable, Override, Standing } from "@/core/profile";
import type { Trace } from "@/core/trace";
import type { ArmConditions, Choice, Progress } from "@/core/trial";
import type { Grade, HouseRules, Verdict } from "@/core/verdict";
import type { Said } from "@/core/said";
import type { BuildRow, Versioned } from "./kit";

export interface JobRow extends NewJob, Versioned {
  id: string;
  rig: string;
  title: string;
  system: string;
  hardness: NewTitle["hardness"];
  engineId: string;
  engine: string;
  build: string;
  nativeFps: number;
  /** The title's own rate in scenes where it is another, by their names; null for none. */
  sceneFps?: Record<string, number> | null;
  tied: boolean;
  houseRules: string;
  rules: HouseRules;
  createdAt: Date;
  closedAt: Date | null;
  /** When it was left out; null for one that is there. */
  deletedAt: Date | null;
  closing: JobClosing | null;
  /** What it began from; null until its first run. */
  baseline: Standing | null;
}

/** What a job that hasn't begun may still be changed to, its title aside. */
export interface JobChoices {
  builds: Pick<BuildRow, "id" | "engine" | "version">[];
  houseRules: { id: string; name: string }[];
}

/** What a job came to: the profile with its proofs, and what it took. */
export interface JobClosing {
  overrides: Override[];
  conditions: ArmConditions;
  /** Engine and build that held; absent from what was closed before it was kept. */
  engine?: string;
  build?: string;
  targetFps: number;
  grade: Grade | null;
  averageFps: number;
  confirmationRunId: string;
  runs: number;
  runningMinutes: number;
  days: number;
  note: string;
}

export interface TrialRow extends Decidable, Versioned {
  /** Who decided it; null where it isn't, or was before names were kept. */
  decidedBy?: string | null;
  id: string;
  jobId: string;
  createdAt: Date;
  choice: Choice["choice"] | null;
  reason: string;
}

/** A trial with how far its runs have come. */
export interface TrialNode extends TrialRow, Progress {}

export interface FaultRow extends NewFault {
  id: string;
  createdAt: Date;
}

export interface JobListRow extends Omit<JobRow, "rules" | "closing" | "baseline"> {
  runs: number;
  lastRunAt: Date | null;
  /** Light and rate of the newest run. */
  grade: Grade | null;
  averageFps: number | null;
}

/** A light that a person gives a run, and why. */
export interface Overruled {
  grade: Grade;
  reason: string;
  by: string;
}

/** How far a run has come: growing, whole, or ended before its time. */
export const runStates = ["open", "whole", "cut off", "crashed"] as const;

export type RunState = (typeof runStates)[number];

export interface RunRow extends Omit<NewRun, "jobId">, Versioned {
  id: string;
  number: number;
  form: Trace["form"];
  madeAt: Date;
  buildId: string;
  rigRevisionId: string;
  /** The rig's driver that it was made with; empty where it isn't known. */
  driver?: string;
  rules: HouseRules;
  yardstick: Yardstick;
  faults: Severity[];
  /** What somebody says of its light; shown beside the computed one, never instead of it. */
  overruled?: Overruled | null;
  state: RunState;
  summary: Summary | null;
  verdict: Verdict | null;
}

/** A still of a run: the moment that it is of, without the picture. */
export interface StillRow extends StillMoment {
  id: string;
  width: number;
  height: number;
}

/** What lies on the bench now. */
export interface BenchRow extends Versioned {
  rigId: string | null;
  jobId: string | null;
  houseRulesId: string | null;
  conditions: Conditions | null;
}

/**
 * What a decision set on the bench: the sentence that says it, the conditions that were there before, and the
 * version that the bench has since.
 */
export interface BenchSet extends Versioned {
  sentence: Said;
  before: Conditions;
}
