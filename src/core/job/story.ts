import { defaultsOf, type Setting } from "@/core/kit";
import type { Summary } from "@/core/metrics";
import { decisionsOf, inForce, type Decided, type Standing } from "@/core/profile";
import type { JobRow, RunRow, TrialNode, TrialRow } from "@/core/records";
import { progressOf } from "@/core/trial";
import type { Verdict } from "@/core/verdict";

/** A kept run with its figures. */
export interface StoryRun extends RunRow {
  summary: Summary;
  verdict: Verdict;
  /** It compiled effects on first sight, or was said to have. */
  cold: boolean;
}

/** A job as it happened: runs, trials, and what holds after the decisions. */
export interface Story {
  job: JobRow;
  runs: StoryRun[];
  trials: TrialNode[];
  catalogue: Setting[];
  decided: Decided[];
  standing: Standing;
}

/** A run whose revisited scenes were mostly cold on the first visit, or that was said to be cold. */
export const isColdRun = (run: Pick<RunRow, "cacheState">, { coldScenes }: Pick<Summary, "coldScenes">) =>
  run.cacheState === "cold" || (coldScenes !== null && coldScenes.cold * 2 > coldScenes.revisited);

/**
 * What a job begins from: the engine's defaults, and over them what its profile or its first run says. What the
 * job itself asks for as a rate holds over the profile's.
 */
export const baselineOf = (
  job: Pick<JobRow, "buildId" | "targetFps">,
  catalogue: Setting[],
  said: Partial<Pick<Standing, "settings" | "conditions" | "targetFps">> = {},
): Standing => ({
  settings: { ...defaultsOf(catalogue), ...said.settings },
  conditions: said.conditions ?? {},
  buildId: job.buildId,
  targetFps: job.targetFps ?? said.targetFps ?? null,
});

/** A job's story from what is kept of it; runs that are still open, and have no figures, stay out. */
export function storyFrom(
  job: JobRow,
  rows: RunRow[],
  trials: TrialRow[],
  catalogue: Setting[],
  /** What the profile says, for a job that hasn't begun. */
  profile: Parameters<typeof baselineOf>[2] = {},
): Story {
  const runs = rows.flatMap((row): StoryRun[] => {
    const { summary, verdict } = row;
    return summary && verdict ? [{ ...row, summary, verdict, cold: isColdRun(row, summary) }] : [];
  });
  const baseline = job.baseline ?? baselineOf(job, catalogue, profile);
  const decided = decisionsOf(trials);
  const standing = inForce(
    // A catalogue may have grown since the job began.
    { ...baseline, settings: { ...defaultsOf(catalogue), ...baseline.settings } },
    decided,
  );
  return {
    job,
    runs,
    trials: trials.map((trial) => ({ ...trial, ...progressOf(trial, runsOf(trial, runs)) })),
    catalogue,
    decided,
    standing,
  };
}

/** A trial's runs, with the arm that each was made for; one made before it may count as the first. */
export const runsOf = (
  { id, plan }: Pick<TrialRow, "id" | "plan">,
  runs: StoryRun[],
): (StoryRun & { arm: number })[] =>
  runs.flatMap((run) => {
    if (run.trialId === null && run.id === plan.firstRunId) return [{ ...run, arm: 0 }];
    return run.trialId === id && run.arm !== null ? [{ ...run, arm: run.arm }] : [];
  });
