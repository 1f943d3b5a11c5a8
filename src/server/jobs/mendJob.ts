import type { Body } from "@/contract";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { notFound } from "@/server/problem";
import { landDecision } from "@/server/profiles/landing";
import { touchedProfile } from "@/server/profiles/changeProfile";
import { mended } from "@/server/runs/mended";
import { writing } from "@/server/writing";
import { lockOpenJob } from "./lockJob";

/**
 * Says that a job, with all its runs, is of another title, rig or build: runs are judged by what it is of now, and
 * what its decisions kept moves from the old profile to the new one.
 */
export async function mendJob(actor: Actor, id: string, to: Body<"mendJob">): Promise<void> {
  return writing(actor, async (touch) => {
    const job = await lockOpenJob(id);
    const now = {
      titleId: to.titleId ?? job.titleId,
      rigId: to.rigId ?? job.rigId,
      buildId: to.buildId ?? job.buildId,
    };
    const [title, rig, build] = await data.together(
      async () => data.findTitle(now.titleId),
      async () => data.findRig(now.rigId),
      async () => data.findBuild(now.buildId),
    );
    if (!title) throw notFound("title");
    if (!rig) throw notFound("rig");
    if (!build) throw notFound("build");
    const decided = (await data.listTrials(id)).filter(({ decidedAt }) => decidedAt !== null);
    // What was kept leaves the profile that it was kept in by mistake.
    await data.takeLandedBack(id, actor.name);
    await data.putJobOf(id, job, { ...now, rigRevisionId: rig.revisionId });
    for (const trial of decided) await landDecision(actor, id, trial.id);
    await mended(actor, await data.changesSoFar(), touch);
    touch({ kind: "job", id }, { kind: "jobs", id }, touchedProfile);
  });
}
