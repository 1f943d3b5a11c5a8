import { z } from "zod";
import { defaultsOf, strategies } from "@/core/kit";
import { overrides } from "@/core/profile";
import type { JobClosing } from "@/core/records";
import * as data from "@/data";
import { Problem, notFound } from "./problem";
import { storyOf } from "./jobStory";
import { confirmationOf } from "./viewJob";

const closeSchema = z.object({ note: z.string().trim().max(1000).default("") });

/** Closes a job: a confirmation run after the last decision proves the profile, which is kept with what put each override there. */
export async function closeJob(id: string, input: unknown, at = new Date()): Promise<JobClosing> {
  const { note } = closeSchema.parse(input);
  const job = await data.findJob(id);
  if (!job) throw notFound("job");
  if (job.closedAt) throw new Problem(409, "This job is closed already.", "Open it again to go on with it.");
  const story = await storyOf(job);
  const open = story.trials.find(({ decidedAt }) => !decidedAt);
  if (open)
    throw new Problem(
      409,
      `“${open.name}” isn't decided.`,
      "Decide it, or leave it out of the job, then close.",
    );
  const last = story.trials.reduce(
    (latest, { decidedAt }) => Math.max(latest, decidedAt ? new Date(decidedAt).getTime() : 0),
    0,
  );
  const confirmation = confirmationOf(story, last);
  if (!confirmation)
    throw new Problem(
      409,
      "The confirmation run is missing.",
      "Run the scene once more with what was kept, outside any trial; that run closes the job.",
    );
  const times = story.runs.map(({ madeAt }) => new Date(madeAt).getTime());
  const closing: JobClosing = {
    overrides: overrides(defaultsOf(story.catalogue), story.standing, story.decided),
    conditions: story.standing.conditions,
    targetFps: confirmation.yardstick.targetFps,
    grade: confirmation.verdict.grade,
    averageFps: confirmation.summary.averageFps,
    confirmationRunId: confirmation.id,
    runs: story.runs.length,
    runningMinutes: story.runs.reduce((sum, { summary }) => sum + summary.durationMs, 0) / 60_000,
    days: Math.max(1, Math.ceil((Math.max(...times) - Math.min(...times)) / 86_400_000)),
    note,
  };
  await data.putClosing(id, closing, at);
  return closing;
}

export async function reopenJob(id: string): Promise<void> {
  if (!(await data.findJob(id))) throw notFound("job");
  await data.putClosing(id, null);
}

const changeSchema = z.object({ strategy: z.enum(strategies) });

/** Changes how a job is begun. */
export async function changeJob(id: string, input: unknown): Promise<void> {
  const { strategy } = changeSchema.parse(input);
  if (!(await data.putStrategy(id, strategy))) throw notFound("job");
}
