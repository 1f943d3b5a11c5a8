import type { Body, PlanView } from "@/contract";
import { z } from "@/core/schema";
import { firstRunFor, passMinutes, usefulScaleOf } from "@/core/job";
import type { TrialRow } from "@/core/records";
import { addedArmSchema, mostArms, type NewTrial } from "@/core/trial";
import type { HouseRules } from "@/core/verdict";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { holdsIn, loadOnRig, loadStory } from "@/server/jobs/loadStory";
import { lockOpenJob } from "@/server/jobs/lockJob";
import { queueNoise } from "./noise";
import { Problem, notFound } from "@/server/problem";
import { editing, writing } from "@/server/writing";

/** What house rules forbid an arm to change. */
function forbidden(
  arms: Pick<NewTrial["arms"][number], "conditions">[],
  { mayChange }: HouseRules,
): string | null {
  const changes = (key: "powerMode" | "clocks") =>
    new Set(arms.map(({ conditions }) => conditions[key])).size > 1;
  if (!mayChange.powerMode && changes("powerMode"))
    return "The house rules of this job don't allow the power mode to be changed.";
  return !mayChange.clocks && changes("clocks")
    ? "The house rules of this job don't allow clocks to be changed."
    : null;
}

function refuseForbidden(arms: NewTrial["arms"], rules: HouseRules): void {
  const refused = forbidden(arms, rules);
  if (refused)
    throw new Problem(422, refused, "Choose other house rules for the job, or leave it as it is.", {
      arms: refused,
    });
}

/** Begins a trial or a sweep: what is compared, in which order, from what is in force now. */
export async function addTrial(
  actor: Actor,
  trial: Body<"addTrial">,
  createdAt?: Date,
): Promise<{ id: string; number: number }> {
  return writing(actor, async (touch) => {
    const job = await lockOpenJob(trial.jobId);
    refuseForbidden(trial.arms, job.rules);
    const story = await loadStory(job);
    const holds = await holdsIn(job, story);
    const { settings, conditions, targetFps } = holds;
    const { firstRunId = firstRunFor(trial, story, holds, createdAt ?? new Date())?.id ?? null } = trial.plan;
    touch({ kind: "job", id: job.id }, { kind: "jobs", id: job.id });
    const plan = { ...trial.plan, firstRunId };
    return data.addTrial({ ...trial, plan }, { settings, conditions, targetFps }, createdAt);
  });
}

const changeSchema = (kind: string) =>
  z.object({
    rounds: z.number().int().min(1).max(40).optional(),
    arm: addedArmSchema(kind).optional(),
    deleted: z.boolean().optional(),
  });

/**
 * More rounds, another level of a sweep under way, or the trial left out of the job with its runs (and back).
 */
export async function changeTrial(
  actor: Actor,
  id: string,
  input: Body<"changeTrial">,
  saw: number | null = null,
): Promise<void> {
  return writing(actor, async (touch) => {
    const place = await data.placeOfTrial(id);
    if (!place) throw notFound("trial");
    const { rounds, arm, deleted } = changeSchema(place.kind).parse(input);
    const job = await lockOpenJob(place.jobId);
    await editing("trials", id, "trial", saw);
    touch({ kind: "trial", id }, { kind: "job", id: job.id }, { kind: "jobs", id: job.id });
    if (deleted !== undefined) {
      await data.setTrialDeleted(id, deleted);
      await queueNoise(job.id);
    }
    if (rounds === undefined && arm === undefined) return;
    const row = await data.findTrial(id);
    if (!row) throw notFound("trial");
    if (row.decidedAt) throw new Problem(409, "This trial is decided.", "Take its decision back to add to it.");
    if (arm) refuseArm(row, arm, job.rules);
    await data.putPlanned(id, {
      ...(rounds === undefined ? {} : { rounds }),
      ...(arm ? { arms: [...row.arms, arm] } : {}),
    });
  });
}

function refuseArm(row: TrialRow, arm: TrialRow["arms"][number], rules: HouseRules): void {
  if (row.arms.some(({ name }) => name === arm.name))
    throw new Problem(422, "An arm of this name is there already.", "Give it another.", {
      "arm.name": "There already.",
    });
  if (row.arms.length >= mostArms)
    throw new Problem(422, `A trial holds at most ${mostArms} arms.`, "Begin another.");
  refuseForbidden([...row.arms, arm], rules);
}

/** What a trial can be made from. */
export async function viewPlan(jobId: string): Promise<PlanView> {
  const { job, story, rig, system, title, holds } = await loadOnRig(jobId);
  const builds = (await data.listBuilds()).filter(({ systemIds }) => systemIds.includes(title.systemId));
  const measured = story.trials.findLast(({ outcome }) => outcome?.coolDownMinutes !== undefined);
  return {
    job,
    catalogue: story.catalogue,
    standing: story.standing,
    holds,
    spec: rig.spec,
    builds,
    usefulScale: usefulScaleOf(rig, system, holds.conditions.display),
    sceneMinutes: passMinutes(title.scenes, story.runs),
    byEye: story.runs.at(-1)?.source === "tally",
    coolDownMinutes: measured?.outcome?.coolDownMinutes ?? null,
  };
}
