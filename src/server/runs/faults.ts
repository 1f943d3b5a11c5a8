import type { Body } from "@/contract";
import { judge } from "@/core/verdict";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { lockOpenJob } from "@/server/jobs/lockJob";
import { notFound } from "@/server/problem";
import { writing } from "@/server/writing";

/** A change of a run's faults: its job is locked, its verdict follows, its figures stay as they are. */
async function aboutFaults<T>(actor: Actor, runId: string, change: () => Promise<T>): Promise<T> {
  return writing(actor, async (touch) => {
    const place = await data.placeOfRun(runId);
    if (!place || place.deleted) throw notFound("run");
    await lockOpenJob(place.jobId);
    const done = await change();
    const run = await data.findRun(runId);
    if (run?.summary) await data.putVerdict(runId, judge(run.summary, run.rules, run));
    touch({ kind: "job", id: place.jobId }, { kind: "jobs", id: place.jobId });
    if (place.trialId) touch({ kind: "trial", id: place.trialId });
    return done;
  });
}

/** Notes a fault of a run; its verdict follows. */
export async function addFault(actor: Actor, fault: Body<"addFault">): Promise<string> {
  return aboutFaults(actor, fault.runId, async () => data.addFault(fault));
}

/** Takes a fault back, or brings it back; the run's verdict follows. */
export async function changeFault(actor: Actor, id: string, deleted: boolean): Promise<void> {
  const runId = await data.runOfFault(id);
  if (!runId) throw notFound("fault");
  await aboutFaults(actor, runId, async () => data.setFaultDeleted(id, deleted));
}
