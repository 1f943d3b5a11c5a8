import type { Diagnosis } from "@/core/diagnose";
import { diagnoseRun, latestTelling, readJob, type Story, type StoryRun } from "@/core/job";
import { defaultsOf } from "@/core/kit";
import { overrides } from "@/core/profile";
import type { JobView } from "@/contract";
import * as data from "@/data";
import { isOtherwise } from "./judgeAnew";
import { loadOnRig, loadTried } from "./loadStory";
import { notFound } from "@/server/problem";
import { threadRuns } from "@/server/runs/threadRun";

/** Engine and build that hold now, with the trial that put them there. */
async function inForceIn({ job, standing, decided }: Story): Promise<JobView["inForce"]> {
  const own = { engine: job.engine, build: job.build, trial: null };
  if (standing.buildId === job.buildId) return own;
  const kept = decided.findLast(({ kept: arm }) => arm?.buildId === standing.buildId);
  const build = await data.findBuild(standing.buildId);
  return build ? { engine: build.engine, build: build.version, trial: kept?.number ?? null } : own;
}

export async function viewJob(id: string): Promise<JobView> {
  const [{ job, story, rig, system, title, holds, noise, noiseMeasured }, faults, bench] = await Promise.all([
    loadOnRig(id),
    data.listFaults(id),
    data.readBench(),
  ]);
  const otherRig = bench.rigId !== null && bench.rigId !== job.rigId ? await data.findRig(bench.rigId) : null;
  const telling = latestTelling(story, holds);
  const [leftOutRuns, leftOutTrials, inForce, runs, tried, whole] = await Promise.all([
    data.leftOutRuns(id),
    data.leftOutTrials(id),
    inForceIn(story),
    threadRuns(story.runs),
    loadTried(job),
    telling && withSegments(telling),
  ]);
  return {
    job: { ...job, targetFps: story.standing.targetFps },
    runs,
    trials: story.trials,
    faults,
    standing: story.standing,
    holds,
    tellingRunId: telling?.id ?? null,
    inForce,
    leftOut: { runs: leftOutRuns, trials: leftOutTrials },
    otherYardstick: story.runs.filter((run) => isOtherwise(run, job)).length,
    otherOnBench: otherRig?.name ?? null,
    overrides: overrides(defaultsOf(story.catalogue), story.standing, story.decided),
    ...readJob(story, { rig, system, title, tried, holds }, whole),
    noise,
    noiseMeasured,
    catalogue: story.catalogue,
    spec: rig.spec,
    scenes: title.scenes.map(({ name }) => name),
  };
}

/** Diagnosis of one run of a job, for a page that selects another than the newest. */
export async function viewDiagnosis(jobId: string, runId: string): Promise<Diagnosis> {
  const { story, rig, system, title } = await loadOnRig(jobId);
  const run = story.runs.find(({ id }) => id === runId);
  if (!run) throw notFound("run");
  return diagnoseRun(await withSegments(run), story, rig, system, title);
}

/** A run with its scenes, which lists leave out. */
async function withSegments(run: StoryRun): Promise<StoryRun> {
  const whole = await data.findRun(run.id);
  return whole?.summary ? { ...run, summary: whole.summary } : run;
}
