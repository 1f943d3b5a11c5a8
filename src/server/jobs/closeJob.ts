import type { Body } from "@/contract";
import { confirmationOf, differing, lastDecisionMs, type Holding, type Story } from "@/core/job";
import { defaultsOf } from "@/core/kit";
import { overrides } from "@/core/profile";
import type { JobClosing } from "@/core/records";
import { said, words } from "@/core/words";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { holdsIn, loadStory } from "./loadStory";
import { lockJob } from "./lockJob";
import { Problem } from "@/server/problem";
import { editing, writing } from "@/server/writing";

const dayMs = 86_400_000;

/** What a job that isn't confirmed lacks: a run, or one that was made under what holds. */
function unconfirmed(story: Story, holds: Holding): string {
  const last = story.runs.findLast(
    ({ trialId, crashed, madeAt }) =>
      trialId === null && !crashed && new Date(madeAt).getTime() > lastDecisionMs(story),
  );
  const otherwise = last
    ? differing(holds, { ...last, targetFps: last.yardstick.targetFps }, story.catalogue)
    : [];
  return last && otherwise.length > 0
    ? `Run ${last.number} doesn't confirm it. ${words(said("holds.otherwise", { differing: otherwise }))} Run the scene once more with what was kept.`
    : "Run the scene once more with what was kept, outside any trial; that run closes the job.";
}

/**
 * Closes a job: a confirmation run after the last decision proves the profile, which is kept with what put each
 * override there.
 */
export async function closeJob(
  actor: Actor,
  id: string,
  input: Body<"closeJob">,
  saw: number | null = null,
  at = new Date(),
): Promise<JobClosing> {
  const { note } = input;
  return writing(actor, async (touch) => {
    const job = await lockJob(id);
    if (job.closedAt) throw new Problem(409, "This job is closed already.", "Open it again to go on with it.");
    await editing("jobs", id, "job", saw);
    const story = await loadStory(job);
    const open = story.trials.find(({ decidedAt }) => !decidedAt);
    if (open)
      throw new Problem(
        409,
        `“${open.name}” isn't decided.`,
        "Decide it, or leave it out of the job, then close.",
      );
    const holds = await holdsIn(job, story);
    const confirmation = confirmationOf(story, holds);
    if (!confirmation) throw new Problem(409, "The confirmation run is missing.", unconfirmed(story, holds));
    const times = story.runs.map(({ madeAt }) => new Date(madeAt).getTime());
    const held = await data.findBuild(story.standing.buildId);
    const closing: JobClosing = {
      engine: held?.engine ?? job.engine,
      build: held?.version ?? job.build,
      overrides: overrides(defaultsOf(story.catalogue), story.standing, story.decided),
      conditions: holds.conditions,
      targetFps: confirmation.yardstick.targetFps,
      grade: confirmation.verdict.grade,
      averageFps: confirmation.summary.averageFps,
      confirmationRunId: confirmation.id,
      runs: story.runs.length,
      runningMinutes: story.runs.reduce((sum, { summary }) => sum + summary.durationMs, 0) / 60_000,
      days: Math.max(1, Math.ceil((Math.max(...times) - Math.min(...times)) / dayMs)),
      note,
    };
    await data.putClosing(id, closing, at);
    touch({ kind: "job", id }, { kind: "jobs", id });
    return closing;
  });
}

export async function reopenJob(actor: Actor, id: string, saw: number | null = null): Promise<void> {
  return writing(actor, async (touch) => {
    await lockJob(id);
    await editing("jobs", id, "job", saw);
    await data.putClosing(id, null);
    touch({ kind: "job", id }, { kind: "jobs", id });
  });
}
