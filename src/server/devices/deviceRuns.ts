import type { Body, Output } from "@/contract";
import * as data from "@/data";
import type { Asker } from "@/server/actor";
import { conditionsFor } from "@/server/jobs/benchUse";
import { loadOnRig } from "@/server/jobs/loadStory";
import { Problem, notFound } from "@/server/problem";
import { appendPieces, finishRun, openRun } from "@/server/runs/keepRun";
import { writing } from "@/server/writing";
import type { Arm } from "@/core/trial";

/** The rig that a device is paired with; only such get here. @throws Problem 404 for anybody else */
function rigOf({ rigId }: Asker): string {
  if (rigId === undefined) throw notFound("device");
  return rigId;
}

/** A run of another rig is none that this device knows of. @throws Problem 404 */
async function ownRun(actor: Asker, id: string): Promise<void> {
  const place = await data.placeOfRun(id);
  const job = place && !place.deleted ? await data.findJob(place.jobId) : null;
  if (job?.rigId !== rigOf(actor)) throw notFound("run");
}

/** The job that a rig's runs go to: the one on the bench, else the one that is open and was worked at last. */
async function jobInHand(rigId: string): Promise<string | null> {
  const bench = await data.readBench();
  const onBench = bench.jobId === null ? null : await data.findJob(bench.jobId);
  if (onBench && onBench.rigId === rigId && !onBench.closedAt && !onBench.deletedAt) return onBench.id;
  return data.lastOpenJob(rigId);
}

export async function viewOwnDevice(actor: Asker): Promise<Output<"viewOwnDevice">> {
  const receivedMs = Date.now();
  const rigId = rigOf(actor);
  const [rig, id] = [await data.findRig(rigId), await jobInHand(rigId)];
  const job = id === null ? null : await data.findJob(id);
  return {
    rig: rig?.name ?? "",
    job: job && { id: job.id, title: job.title, engine: `${job.engine} ${job.build}` },
    receivedMs,
    answeredMs: Date.now(),
  };
}

/** The trial that a device says its run is of, on its own rig. @throws Problem 404 for any other */
async function trialOf(actor: Asker, trialId: string, arm: number): Promise<{ jobId: string; arm: Arm }> {
  const trial = await data.findTrial(trialId);
  const job = trial ? await data.findJob(trial.jobId) : null;
  const found = trial?.arms[arm];
  if (!trial || !found || job?.rigId !== rigOf(actor)) throw notFound("trial");
  return { jobId: trial.jobId, arm: found };
}

/**
 * Opens a run with what is in force: in the job in hand, or of the trial that the device took it from.
 * @throws Problem 409 where the rig has no open job
 */
export async function openDeviceRun(
  actor: Asker,
  { label, fileName, form, startedMs, work }: Body<"openDeviceRun">,
): Promise<{ id: string; number: number }> {
  const madeAt = startedMs === undefined ? new Date() : startedAt(startedMs);
  const of = work && (await trialOf(actor, work.trialId, work.arm));
  const jobId = of?.jobId ?? (await jobInHand(rigOf(actor)));
  if (jobId === null)
    throw new Problem(
      409,
      "This rig has no open job.",
      "Open one for the title that runs, or put it on the bench.",
    );
  const { rig, story, holds } = await loadOnRig(jobId);
  const bench = await data.readBench();
  const lies = bench.rigId === rig.id ? bench.conditions : null;
  const opened: Body<"openRun"> = {
    form,
    run: {
      jobId,
      source: "log",
      label,
      fileName,
      settings: of?.arm.settings ?? story.standing.settings,
      conditions: {
        ...(lies ?? (await conditionsFor(rig))),
        ...holds.decided,
        ...of?.arm.conditions,
        capturePath: "engine log",
      },
      cacheState: "unknown",
      crashed: false,
      skippedRows: 0,
      preflight: [],
      notes: of ? "made by itself" : "",
      trialId: work?.trialId ?? null,
      arm: work?.arm ?? null,
    },
  };
  return writing(actor, async (touch) => {
    const made = await openRun(actor, opened, madeAt);
    if (work) {
      await data.noteUnattended(work.trialId, { what: "began", text: of?.arm.name ?? "", runId: made.id });
      touch({ kind: "trial", id: work.trialId });
    }
    return made;
  });
}

/** Clocks may be apart by so much, ms. */
const apartMs = 60_000;
/** What waited longer on a device than this isn't taken for a run of now, days. */
const longestDays = 90;

/** When a run began. @throws Problem 422 for a moment that can't be */
function startedAt(ms: number): Date {
  const ago = Date.now() - ms;
  if (ago < -apartMs || ago > longestDays * 24 * 3600 * 1000)
    throw new Problem(
      422,
      `A run that began ${new Date(Math.max(-8.64e15, Math.min(8.64e15, ms))).toISOString()} isn't taken.`,
      `It began in the last ${longestDays} days. Set the device's clock.`,
      { startedMs: "This moment can't be." },
    );
  return new Date(Math.min(ms, Date.now()));
}

export async function appendDeviceRun(
  actor: Asker,
  id: string,
  { pieces }: Body<"appendDeviceRun">,
): Promise<{ kept: number }> {
  await ownRun(actor, id);
  return { kept: await appendPieces(actor, id, pieces) };
}

export async function finishDeviceRun(
  actor: Asker,
  id: string,
  input: Body<"finishDeviceRun">,
): Promise<Output<"finishDeviceRun">> {
  await ownRun(actor, id);
  return writing(actor, async (touch) => {
    const finished = await finishRun(actor, id, input);
    const run = await data.findRun(id);
    if (run?.trialId && (await data.findUnattended(run.trialId))) {
      await data.noteUnattended(run.trialId, { what: "ended", text: input.state, runId: id });
      touch({ kind: "trial", id: run.trialId });
    }
    return finished;
  });
}
