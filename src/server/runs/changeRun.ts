import type { Body } from "@/contract";
import { isDeepStrictEqual } from "node:util";
import type { RunEditsView, RunRow } from "@/core/records";
import { nameInArm } from "@/core/trial";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { armOf } from "@/server/trials/armOf";
import { lockOpenJob } from "@/server/jobs/lockJob";
import { mended } from "./mended";
import { Problem, notFound } from "@/server/problem";
import { editing, writing } from "@/server/writing";

type Place = NonNullable<Body<"changeRun">["place"]>;

/** What was changed about a run since it was made. */
export async function viewRunEdits(id: string): Promise<RunEditsView> {
  if (!(await data.placeOfRun(id))) throw notFound("run");
  return { rows: await data.listEdits(id) };
}

/**
 * Changes what is said about a run, moves it, leaves it out, or takes it back; what was there before is kept as
 * its history.
 */
export async function changeRun(
  actor: Actor,
  id: string,
  input: Body<"changeRun">,
  saw: number | null = null,
): Promise<void> {
  const { deleted, place: to, crashed, overruled: ruling, ...given } = input;
  const overruled = ruling ? { ...ruling, by: actor.name } : ruling;
  const said = { ...given, ...(overruled === undefined ? {} : { overruled }) };
  return writing(actor, async (touch) => {
    const place = await data.placeOfRun(id);
    if (!place) throw notFound("run");
    // In one order whoever moves what, so that two moves never wait for one another.
    for (const jobId of [...new Set([place.jobId, to?.jobId ?? place.jobId])].sort()) await lockOpenJob(jobId);
    await editing("runs", id, "run", saw);
    if (deleted === false && place.trialDeleted)
      throw new Problem(409, "The trial of this run is left out.", "Take the trial back in first.");
    const before = await data.findRunAlways(id);
    if (!before) throw notFound("run");
    if (crashed !== undefined && before.state === "open")
      throw new Problem(409, "This run is still growing.", "Finish it first.");
    const moved = to ? await placing(before, to) : {};
    const state = crashed === undefined ? {} : { state: crashed ? ("crashed" as const) : ("whole" as const) };
    const changed = { ...said, ...moved, ...(crashed !== before.crashed ? state : {}) };
    const changes = Object.entries(changed)
      .map(([field, value]) => ({ field, from: before[field as keyof RunRow] ?? null, to: value ?? null }))
      .filter(({ from, to: now }) => !isDeepStrictEqual(from, now));
    if (changes.length > 0) {
      await data.putSaid(id, changed);
      await data.addEdit(id, actor.name, changes);
    }
    if (to?.jobId && to.jobId !== place.jobId) {
      const [from, target] = [await data.findJob(place.jobId), await data.findJob(to.jobId)];
      if (from?.rigId !== target?.rigId)
        throw new Problem(
          409,
          "That job is on another rig.",
          "Choose a job on the rig that the run was made on.",
        );
      await data.moveRun(id, to.jobId);
      await data.addEdit(id, actor.name, [{ field: "job", from: from?.title ?? "", to: target?.title ?? "" }]);
      touch({ kind: "job", id: to.jobId }, { kind: "jobs", id: to.jobId });
    }
    if (deleted !== undefined && deleted !== place.deleted) await data.setDeleted(id, deleted);
    await mended(actor, await data.changesSoFar(), touch);
    touch({ kind: "job", id: place.jobId }, { kind: "jobs", id: place.jobId });
    for (const trialId of new Set([place.trialId, to?.trialId]))
      if (trialId) touch({ kind: "trial", id: trialId });
  });
}

/** What a run takes over from the arm it is moved to: the arm's settings, conditions and build. */
async function placing(
  run: RunRow & { jobId: string },
  { jobId = run.jobId, trialId, arm }: Place,
): Promise<Partial<RunRow>> {
  if (run.trialId !== null) {
    const from = await data.findTrial(run.trialId);
    if (from?.decidedAt && from.id !== trialId)
      throw new Problem(
        409,
        "The trial of this run is decided.",
        "Take its decision back first: it rests on this run.",
      );
  }
  const made = await armOf({ trialId, arm, jobId });
  if (!made) return { trialId: null, arm: null };
  return {
    trialId,
    arm,
    settings: made.settings,
    ...(await renamed(run, trialId, made.name)),
    conditions: { ...run.conditions, ...made.conditions },
    ...(made.buildId ? { buildId: made.buildId } : {}),
  };
}

/** The name that a run gets with another arm of its trial, where it had the arm's name. */
async function renamed(run: RunRow, trialId: string | null, to: string): Promise<Partial<RunRow>> {
  const trial = run.trialId !== null && run.trialId === trialId ? await data.findTrial(trialId) : null;
  const from = trial && run.arm !== null ? trial.arms[run.arm]?.name : undefined;
  if (!trial || from === undefined) return {};
  const label = nameInArm(run.label, trial.name, from, to);
  return label === run.label ? {} : { label };
}
