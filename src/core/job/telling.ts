import { isUnder } from "./holds";
import type { Holding } from "./shape";
import type { Story, StoryRun } from "./story";

/** Speed of a run against its target, %. */
export const speedOf = ({ summary }: Pick<StoryRun, "summary">) =>
  summary.reportedSpeedPercent ?? (100 * summary.averageFps) / summary.targetFps;

/** When the job's newest decision was made, ms; 0 before the first. */
export const lastDecisionMs = ({ trials }: Pick<Story, "trials">) =>
  trials.reduce((latest, { decidedAt }) => Math.max(latest, decidedAt ? new Date(decidedAt).getTime() : 0), 0);

type Told = Pick<Story, "runs" | "catalogue">;

/** Whole, warm runs that were made under what holds, the oldest first. */
export const wholeUnder = ({ runs, catalogue }: Told, holds: Holding): StoryRun[] =>
  runs.filter((run) => !run.crashed && !run.cold && !run.fromMemory && isUnder(holds, run, catalogue));

/**
 * The run that says how things stand: the newest whole, warm one that was made under what holds, else the
 * newest of any.
 */
export function latestTelling(story: Told, holds: Holding): StoryRun | null {
  const whole = story.runs.filter(({ crashed, cold }) => !crashed && !cold);
  return wholeUnder(story, holds).at(-1) ?? whole.at(-1) ?? story.runs.at(-1) ?? null;
}

/** The run that confirms a job: outside any trial, made under what holds, after the last decision. */
export function confirmationOf(story: Told & Pick<Story, "trials">, holds: Holding): StoryRun | null {
  const { runs, catalogue } = story;
  const last = lastDecisionMs(story);
  const confirms = (run: StoryRun) =>
    run.trialId === null &&
    !run.crashed &&
    !run.fromMemory &&
    new Date(run.madeAt).getTime() > last &&
    isUnder(holds, run, catalogue);
  return runs.filter(confirms).at(-1) ?? null;
}
