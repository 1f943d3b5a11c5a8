import { newRunSchema, type NewRun } from "@/core/kit";
import { summarise } from "@/core/metrics";
import { traceFrom, unpackTrace, valuesOf, type Trace } from "@/core/trace";
import { judge, yardstickOf, type Grade } from "@/core/verdict";
import { addRun, findJob, findRig, findTrial, keptBuild } from "@/data";
import { Problem, notFound } from "./problem";

export interface ImportedRun {
  id: string;
  number: number;
  grade: Grade;
}

/** Measures, judges and keeps a run: all of it or nothing. The figures are made here, from the trace as it will be kept. */
export async function keepRun(run: NewRun, trace: Trace, madeAt?: Date): Promise<ImportedRun> {
  const job = await findJob(run.jobId);
  const rig = job && (await findRig(job.rigId));
  if (!job || !rig) throw notFound("job");
  if (job.closedAt)
    throw new Problem(409, "This job is closed.", "Open it again to bring in a run; the log is still yours.");
  const arm = run.trialId === null ? null : await armOf(run);
  const kept = traceFrom(trace.form, valuesOf(trace), trace.channels, trace.marks);
  const yardstick = yardstickOf(job, rig.spec, run.conditions.display);
  const summary = summarise(kept, yardstick, job.rules.measuring);
  const verdict = judge(summary, job.rules, { crashed: run.crashed });
  const made = await addRun({
    ...run,
    trace: kept,
    summary,
    verdict,
    yardstick,
    rules: job.rules,
    rigRevisionId: rig.revisionId,
    buildId: (arm ? arm.buildId : null) ?? (await keptBuild(job.id)) ?? job.buildId,
    madeAt,
  });
  return { ...made, grade: verdict.grade };
}

/** The arm that a run was made for. */
async function armOf({ trialId, arm, jobId }: NewRun) {
  const trial = await findTrial(trialId!);
  if (!trial || trial.jobId !== jobId || arm! >= trial.arms.length) throw notFound("arm of a trial");
  if (trial.decidedAt)
    throw new Problem(409, "This trial is decided.", "Take its decision back to add a run to it.");
  return trial.arms[arm!];
}

/** Keeps a run sent as a packed trace with the run's particulars in its header. */
export async function importRun(bytes: Uint8Array): Promise<ImportedRun> {
  let unpacked: ReturnType<typeof unpackTrace>;
  try {
    unpacked = unpackTrace(bytes);
  } catch (error) {
    throw new Problem(
      422,
      (error as Error).message,
      "Read the log again and send it once more; nothing was kept.",
    );
  }
  return keepRun(newRunSchema.parse(unpacked.meta), unpacked.trace);
}
