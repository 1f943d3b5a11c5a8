import { jobChangeSchema } from "@/contract";
import * as data from "@/data";
import type { Actor } from "./actor";
import { addJob } from "./addJob";
import { loadStory } from "./loadStory";
import { lockJob, lockOpenJob } from "./lockJob";
import { queueNoise } from "./noise";
import { Problem, notFound } from "./problem";
import { editing, writing } from "./writing";

/** What a job's first run fixes: changed after it, its runs would be of different things. */
const fixed = ["titleId", "buildId", "houseRulesId", "targetFps"] as const;

/** Changes a job, leaves it out, or takes it back. */
export async function changeJob(
  actor: Actor,
  id: string,
  input: unknown,
  saw: number | null = null,
): Promise<void> {
  const change = jobChangeSchema.parse(input);
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

/** Opens a job like another. */
export async function copyJob(actor: Actor, id: string): Promise<string> {
  const job = await data.findJob(id);
  if (!job) throw notFound("job");
  const { rigId, titleId, houseRulesId, aim, targetFps, strategy } = job;
  const { standing } = await loadStory(job);
  return addJob(actor, { rigId, titleId, buildId: standing.buildId, houseRulesId, aim, targetFps, strategy });
}
