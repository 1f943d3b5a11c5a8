import { storyFrom, whatHolds, type Holding, type JobSetting, type Story } from "@/core/job";
import { triedIn } from "@/core/advise";
import { besideOf, effectiveSettings, valuesInForce, type Standing } from "@/core/profile";
import type { Setting } from "@/core/kit";
import { rigNoise, type NoiseFloor } from "@/core/compare";
import type { JobRow, RigRow, SystemRow, TitleDetail } from "@/core/records";
import * as data from "@/data";
import { notFound } from "@/server/problem";

/** A job's story as kept. @param segments whether the scenes of every run are wanted, as a trial's page does */
export async function loadStory(job: JobRow, { segments = false } = {}): Promise<Story> {
  const [runs, trials, catalogue] = await data.together(
    async () => data.listRuns(job.id, { segments }),
    async () => data.listTrials(job.id),
    async () => data.catalogueAt(job),
  );
  const profile = job.baseline ? {} : await effectiveFor(job, catalogue);
  return storyFrom(job, runs, trials, catalogue, profile);
}

/** What the layers say for a job that hasn't begun. */
async function effectiveFor(
  job: JobRow,
  catalogue: Setting[],
): Promise<Pick<Standing, "settings" | "conditions" | "targetFps">> {
  const title = await data.findTitle(job.titleId);
  const of = { ...job, systemId: title?.systemId ?? null };
  const held = await data.standingValues(job, { only: of });
  return { settings: effectiveSettings(catalogue, held, of), ...besideOf(valuesInForce(held, of)) };
}

/** What holds in a job: the one place where pages, decisions, closings and boards have it from. */
export async function holdsIn(job: Pick<JobRow, "rigId">, story: Story): Promise<Holding> {
  const [rig, last] = await data.together(
    async () => data.findRig(job.rigId),
    async () => data.lastConditions(job.rigId),
  );
  if (!rig) throw notFound("rig");
  return whatHolds(story, rig.spec, last);
}

export interface OnRig {
  job: JobRow;
  story: Story;
  rig: RigRow;
  system: SystemRow | undefined;
  title: TitleDetail;
  holds: Holding;
  noise: NoiseFloor;
  noiseMeasured: boolean;
}

/** A job's story with the rig and system it plays on, and how much that rig varies by itself. */
export async function loadOnRig(id: string, options?: { segments: boolean }): Promise<OnRig> {
  const job = await data.findJob(id);
  if (!job) throw notFound("job");
  const [story, rig, systems, title, floor, last] = await data.together(
    async () => loadStory(job, options),
    async () => data.findRig(job.rigId),
    async () => data.listSystems(),
    async () => data.findTitle(job.titleId),
    async () => data.findNoise(job.rigId),
    async () => data.lastConditions(job.rigId),
  );
  if (!rig || !title) throw notFound("rig");
  const { noise, measured } = rigNoise(floor);
  const system = systems.find((each) => each.id === title.systemId);
  const holds = whatHolds(story, rig.spec, last);
  return { job, story, rig, title, system, holds, noise, noiseMeasured: measured };
}

/** What the rig's decided trials of a job's engine taught. */
export async function loadTried({ id, rigId, engineId }: JobRow): Promise<JobSetting["tried"]> {
  const compared = await data.comparedOnRig(rigId);
  return compared.flatMap((each) => {
    const tried = each.engineId === engineId ? triedIn(each) : null;
    return tried ? [{ ...tried, elsewhere: each.jobId !== id }] : [];
  });
}
