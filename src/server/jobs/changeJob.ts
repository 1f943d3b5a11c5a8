import type { Body } from "@/contract";
import type { JobChoices, JobRow } from "@/core/records";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { addJob } from "./addJob";
import { loadStory } from "./loadStory";
import { lockJob, lockOpenJob } from "./lockJob";
import { queueNoise } from "@/server/trials/noise";
import { Problem, notFound } from "@/server/problem";
import { editing, writing } from "@/server/writing";

/** What a job's first run fixes: changed after it, its runs would be of different things. */
const fixed = ["titleId", "buildId", "houseRulesId", "targetFps"] as const;

/** Changes a job, leaves it out, or takes it back. */
export async function changeJob(
  actor: Actor,
  id: string,
  change: Body<"changeJob">,
  saw: number | null = null,
): Promise<void> {
  return writing(actor, async (touch) => {
    // Leaving out and taking back are for closed jobs too.
    const job = await (Object.keys(change).every((key) => key === "deleted") ? lockJob(id) : lockOpenJob(id));
    await editing("jobs", id, "job", saw);
    const against = fixed.find((key) => change[key] !== undefined && change[key] !== job[key]);
    if (against && (await data.hasBegun(id)))
      throw new Problem(
        409,
        "This job has begun: title, engine, house rules and target are those of its first run.",
        "Copy the job and change the copy; a target is changed by a rate trial.",
      );
    await data.putJob(id, change);
    if (job.baseline && fixed.some((key) => change[key] !== undefined)) await keepBaseline(id, job);
    touch({ kind: "job", id }, { kind: "jobs", id });
    if (change.deleted !== undefined) {
      await queueNoise(id);
      if (change.deleted && (await data.readBench()).jobId === id) {
        await data.putBench({ jobId: null });
        touch({ kind: "bench", id: "" });
      }
    }
  });
}

/**
 * What a job that hasn't begun begins from, after it was changed: its settings stay where they are the same
 * engine's and title's.
 */
async function keepBaseline(id: string, { baseline, engineId, titleId }: JobRow): Promise<void> {
  const now = await data.findJob(id);
  if (!now || !baseline) return;
  const isSame = now.engineId === engineId && now.titleId === titleId;
  await data.putBaseline(id, isSame ? { ...baseline, targetFps: now.targetFps, buildId: now.buildId } : null);
}

/** Opens a job like another. */
export async function copyJob(actor: Actor, id: string): Promise<string> {
  const job = await data.findJob(id);
  if (!job) throw notFound("job");
  const { rigId, titleId, houseRulesId, aim, targetFps, strategy } = job;
  const { standing } = await loadStory(job);
  const like = { rigId, titleId, houseRulesId, aim, targetFps, strategy };
  return addJob(actor, { ...like, buildId: standing.buildId, beginsFrom: "profile" });
}

/**
 * What a job that hasn't begun may still be changed to: builds of engines that run its system, and house rules.
 */
export async function viewJobChoices(id: string): Promise<JobChoices> {
  const job = await data.findJob(id);
  if (!job) throw notFound("job");
  const [title, builds, houseRules] = await data.together(
    async () => data.findTitle(job.titleId),
    data.listBuilds,
    data.listHouseRules,
  );
  return {
    builds: builds
      .filter(({ systemIds }) => title !== null && systemIds.includes(title.systemId))
      .map(({ id: build, engine, version }) => ({ id: build, engine, version })),
    houseRules: houseRules.map(({ id: rules, name }) => ({ id: rules, name })),
  };
}
