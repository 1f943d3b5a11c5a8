import type { TrialNode } from "@/core/records";
import type { ThreadRun } from "@/contract";

/** One thing that happened in a job. */
export type Entry = { at: number; run: ThreadRun } | { at: number; trial: TrialNode; runs: ThreadRun[] };

/** Runs by themselves and trials with theirs, in the order they were begun. */
export function entriesOf(runs: ThreadRun[], trials: TrialNode[]): Entry[] {
  const made: Entry[] = [
    ...runs
      .filter(({ trialId }) => !trials.some(({ id }) => id === trialId))
      .map((run) => ({ at: new Date(run.madeAt).getTime(), run })),
    ...trials.map((trial) => ({
      at: new Date(trial.createdAt).getTime(),
      trial,
      runs: runs.filter(({ trialId }) => trialId === trial.id),
    })),
  ];
  return made.sort((a, b) => a.at - b.at);
}
