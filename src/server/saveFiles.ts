import { traceCsv } from "@/core/trace";
import { words } from "@/core/words";
import { findRunAlways, findTrace } from "@/data";
import { notFound } from "./problem";
import { viewJob } from "./viewJob";

/** A run as a log that can be read again. */
export async function readRunCsv(id: string): Promise<{ name: string; text: string }> {
  const [run, trace] = await Promise.all([findRunAlways(id), findTrace(id)]);
  if (!run || !trace) throw notFound("run");
  return { name: `run-${run.number}.csv`, text: traceCsv(trace) };
}

/** A job as a file: everything its screen shows, what its trials came to in words, and the runs' traces as CSV. */
export async function saveJob(id: string): Promise<Record<string, unknown>> {
  const view = await viewJob(id);
  const runs = [];
  for (const run of view.runs) {
    const trace = await findTrace(run.id);
    runs.push({ ...run, trace: trace && traceCsv(trace) });
  }
  const { job, trials, faults, standing, overrides, inForce, diagnosis, next } = view;
  return {
    application: "velvet-lamp",
    format: 1,
    saved: new Date().toISOString(),
    job,
    inForce,
    standing,
    overrides: overrides.map((each) => ({ ...each, proof: each.proof && words(each.proof) })),
    trials: trials.map((trial) => ({ ...trial, cameTo: trial.outcome && words(trial.outcome.headline) })),
    faults,
    diagnosis,
    next: words(next.sentence),
    runs,
  };
}
