import { sameSettings } from "@/core/kit";
import type { Story, StoryRun } from "./story";

/** Speed of a run against its target, %. */
export const speedOf = ({ summary }: Pick<StoryRun, "summary">) =>
  summary.reportedSpeedPercent ?? (100 * summary.averageFps) / summary.targetFps;

/** When the job's newest decision was made, ms; 0 before the first. */
export const lastDecisionMs = ({ trials }: Pick<Story, "trials">) =>
  trials.reduce((latest, { decidedAt }) => Math.max(latest, decidedAt ? new Date(decidedAt).getTime() : 0), 0);

/**
 * The run that says how things stand: the newest whole, warm one with the settings in force, else the newest of
 * any.
 */
export function latestTelling({ runs, standing }: Pick<Story, "runs" | "standing">): StoryRun | null {
  const whole = runs.filter(({ crashed, cold }) => !crashed && !cold);
  const inForce = whole.filter((run) => sameSettings(run.settings, standing.settings));
  return inForce.at(-1) ?? whole.at(-1) ?? runs.at(-1) ?? null;
}

/** The run that confirms a job: outside any trial, with the settings in force, after the last decision. */
export function confirmationOf(story: Pick<Story, "runs" | "standing" | "trials">): StoryRun | null {
  const { runs, standing } = story;
  const last = lastDecisionMs(story);
  const confirms = (run: StoryRun) =>
    run.trialId === null &&
    !run.crashed &&
    sameSettings(run.settings, standing.settings) &&
    new Date(run.madeAt).getTime() > last;
  return runs.filter(confirms).at(-1) ?? null;
}
