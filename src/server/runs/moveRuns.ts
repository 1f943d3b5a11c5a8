import type { Body, Output } from "@/contract";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { openOrAdd } from "@/server/jobs/addJob";
import { lockOpenJob } from "@/server/jobs/lockJob";
import { Problem, notFound } from "@/server/problem";
import { writing } from "@/server/writing";
import { mended } from "./mended";

/**
 * Says of runs that they are of another job, title, rig, build or scene. They go to the open job of it, which is
 * opened where there is none, and are judged by its title and rules.
 */
export async function moveRuns(
  actor: Actor,
  { ids, scene, ...to }: Body<"moveRuns">,
): Promise<Output<"moveRuns">> {
  return writing(actor, async (touch) => {
    const runs = [];
    for (const id of ids) {
      const run = await data.findRun(id);
      if (!run) throw notFound("run");
      runs.push(run);
    }
    const from = [...new Set(runs.map(({ jobId }) => jobId))];
    const [first] = from;
    const job = first === undefined ? null : await data.findJob(first);
    if (!job) throw notFound("job");
    const isMoved = Object.values(to).some((each) => each !== undefined);
    if (isMoved && to.jobId === undefined && from.length > 1)
      throw new Problem(
        409,
        "These runs are of several jobs.",
        "Choose runs of one job, or name the job they go to.",
      );
    const jobId = isMoved ? (to.jobId ?? (await jobFor(actor, job, to))) : job.id;
    for (const each of [...new Set([...from, jobId])].sort()) await lockOpenJob(each);
    for (const { trialId } of runs) {
      const trial = trialId === null ? null : await data.findTrial(trialId);
      if (isMoved && trial?.decidedAt)
        throw new Problem(
          409,
          `Run of trial ${trial.number}, which is decided.`,
          "Take its decision back first: it rests on this run.",
        );
    }
    const target = await data.findJob(jobId);
    if (!target) throw notFound("job");
    const moving = runs.filter((run) => run.jobId !== jobId);
    if (isMoved && moving.length > 0) {
      const rig = target.rigId === job.rigId ? null : await data.findRig(target.rigId);
      await data.putRunsInto(
        moving.map(({ id }) => id),
        jobId,
        {
          rigRevisionId: rig?.revisionId ?? null,
          buildId: target.buildId === job.buildId ? null : target.buildId,
        },
      );
      for (const { id } of moving)
        await data.addEdit(id, actor.name, [
          { field: "job", from: `${job.title} on ${job.rig}`, to: `${target.title} on ${target.rig}` },
        ]);
    }
    if (scene !== undefined) {
      await data.putScene(ids, scene);
      for (const run of runs)
        if ((run.scene ?? "") !== scene)
          await data.addEdit(run.id, actor.name, [{ field: "scene", from: run.scene ?? "", to: scene }]);
    }
    await mended(actor, await data.changesSoFar(), touch);
    for (const each of new Set([...from, jobId])) touch({ kind: "job", id: each }, { kind: "jobs", id: each });
    for (const { trialId } of runs) if (trialId) touch({ kind: "trial", id: trialId });
    return { jobId };
  });
}

/** The open job of another title, rig or build than one, opened where there is none. */
async function jobFor(
  actor: Actor,
  job: NonNullable<Awaited<ReturnType<typeof data.findJob>>>,
  to: { titleId?: string; rigId?: string; buildId?: string },
): Promise<string> {
  const { houseRulesId, aim, strategy } = job;
  return openOrAdd(actor, {
    rigId: to.rigId ?? job.rigId,
    titleId: to.titleId ?? job.titleId,
    buildId: to.buildId ?? job.buildId,
    houseRulesId,
    targetFps: to.titleId === undefined ? job.targetFps : null,
    aim,
    strategy,
    beginsFrom: "defaults",
  });
}
