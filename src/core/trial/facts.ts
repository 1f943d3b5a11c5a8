import type { Planned } from "./shape";
import type { NoiseFloor } from "@/core/compare";
import type { Aim, Conditions, NewSystem, NewTitle, RigSpec, Setting, Severity } from "@/core/kit";
import type { Summary, Yardstick } from "@/core/metrics";
import type { Trace } from "@/core/trace";
import type { HouseRules, Verdict } from "@/core/verdict";
import type { ArmEvidence } from "./shape";

/** A run as far as trials read it. */
export interface TrialRun {
  id: string;
  number: number;
  arm: number;
  summary: Summary;
  verdict: Verdict;
  crashed: boolean;
  /** How it ended; one that was cut off is kept, and counts for nothing that is compared. */
  state?: "open" | "whole" | "cut off" | "crashed";
  /** Told from memory: it counts for nothing that is compared. */
  fromMemory?: boolean;
  /** It compiled effects on first sight, or was said to have. */
  cold: boolean;
  conditions: Conditions;
  rigRevisionId: string;
  madeAt: string;
  yardstick: Yardstick;
  rules: HouseRules;
  faults: Severity[];
}

/** All that a trial is understood from; runs in the order they were made, those of the trial alone. */
export interface TrialFacts {
  trial: Planned;
  runs: TrialRun[];
  nativeFps: number;
  tied: boolean;
  /** The rate wanted where no run says. */
  targetFps: number;
  /** What the job is for. */
  aim: Aim;
  rules: HouseRules;
  rig: { name: string; revision: number; revisionId: string; spec: RigSpec };
  screens: NewSystem["screens"];
  /** Largest scale whose picture the display still shows line by line; null where not known. */
  usefulScale: number | null;
  patches: NewTitle["patches"];
  catalogue: Setting[];
  noise: NoiseFloor;
}

/** What advice is given from: the runs that count, and what every arm's came to. */
export interface Judged extends TrialFacts {
  usable: TrialRun[];
  evidence: ArmEvidence[];
}

/** Traces of runs, by id; those that a kind reads must be there. */
export type Traces = ReadonlyMap<string, Trace>;

export const targetFpsOf = ({ runs, targetFps }: Pick<TrialFacts, "runs" | "targetFps">) =>
  runs.at(-1)?.yardstick.targetFps ?? targetFps;
