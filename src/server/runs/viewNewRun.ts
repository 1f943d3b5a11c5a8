import { kindOf } from "@/core/trial";
import type { NewRunView } from "@/contract";
import { campaignOf, findBuild, lastOnRig, listPreflight } from "@/data";
import { viewBench } from "@/server/jobs/benchUse";
import { loadOnRig } from "@/server/jobs/loadStory";

/**
 * Runs no further apart than this, in hours, are of one sitting: what was checked before one holds for the
 * next.
 */
const sittingHours = 4;

/** What was checked before the newest run on a rig, if that is of this sitting. */
async function tickedBefore(rigId: string): Promise<NewRunView["ticked"]> {
  const run = await lastOnRig(rigId, sittingHours);
  const labels = run?.preflight.filter(({ ticked }) => ticked).map(({ label }) => label) ?? [];
  return run && labels.length > 0 ? { run: run.number, labels } : null;
}

/** What a new run starts from: the settings in force, or those of the arm of a trial it is made for. */
export async function viewNewRun(
  jobId: string,
  asked: { trial?: string; arm?: string; campaign?: string } = {},
): Promise<NewRunView> {
  const [{ job, story, title, holds }, bench, preflight] = await Promise.all([
    loadOnRig(jobId),
    viewBench(),
    listPreflight(),
  ]);
  const { catalogue, standing, trials } = story;
  const ticked = await tickedBefore(job.rigId);
  const trial = trials.find(({ id, decidedAt }) => id === asked.trial && !decidedAt) ?? null;
  const wanted = Number(asked.arm);
  const place = trial
    ? Number.isInteger(wanted) && wanted >= 0 && wanted < trial.arms.length
      ? wanted
      : (trial.left[0] ?? 0)
    : 0;
  const arm = trial?.arms[place];
  const [campaign, build] = await Promise.all([campaignOf(jobId), findBuild(arm?.buildId ?? standing.buildId)]);
  return {
    campaign:
      campaign && campaign.id === asked.campaign
        ? { ...campaign, engine: build ? `${build.engine} ${build.version}` : "" }
        : null,
    job,
    catalogue,
    settings: arm?.settings ?? standing.settings,
    holds,
    bench,
    preflight,
    ticked,
    patches: title.patches.length,
    byEye: story.runs.at(-1)?.source === "tally",
    scenes: title.scenes.map(({ name }) => name),
    trial:
      trial && arm
        ? {
            id: trial.id,
            name: trial.name,
            arm: place,
            armName: arm.name,
            left: trial.left.filter((_, at) => at !== trial.left.indexOf(place)),
            arms: trial.arms.map(({ name, settings, conditions }) => ({
              name,
              settings,
              conditions: { ...holds.decided, ...conditions },
            })),
            conditions: { ...holds.decided, ...arm.conditions },
            cold: trial.cold,
            isSweep: kindOf(trial.kind).sweep,
          }
        : null,
  };
}
