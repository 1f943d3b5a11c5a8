import { newFaultSchema } from "@/core/kit";
import { judge } from "@/core/verdict";
import * as data from "@/data";
import { notFound } from "./problem";

/** Judges a run anew with the faults it has now: a fault can outweigh speed. */
async function judgeWithFaults(runId: string): Promise<void> {
  const run = await data.findRun(runId);
  if (!run?.summary) return;
  await data.putSummary(
    runId,
    run.summary,
    judge(run.summary, run.rules, { crashed: run.crashed, faults: run.faults }),
  );
}

/** Notes a fault of a run; its verdict follows. */
export async function addFault(input: unknown): Promise<string> {
  const fault = newFaultSchema.parse(input);
  if (!(await data.findRun(fault.runId))) throw notFound("run");
  const id = await data.addFault(fault);
  await judgeWithFaults(fault.runId);
  return id;
}

/** Takes a fault back, or brings it back; the run's verdict follows. */
export async function changeFault(id: string, deleted: boolean): Promise<void> {
  const runId = await data.setFaultDeleted(id, deleted);
  if (!runId) throw notFound("fault");
  await judgeWithFaults(runId);
}
