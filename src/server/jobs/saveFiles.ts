import type { HandedOut } from "@/contract";
import { words } from "@/core/words";
import { findKept, findRunAlways, keptBytes } from "@/data";
import { heavy } from "@/server/system/heavy";
import { buffersOf } from "@/server/system/heavyTasks";
import { Problem, notFound } from "@/server/problem";
import { viewJob } from "./viewJob";

/** Kept bytes that are written out as text, at most: two million frames, nine hours at 60 fps. */
const mostWritten = 8 * 1024 * 1024;

function refuseLarge(bytes: number, what: string): void {
  if (bytes > mostWritten)
    throw new Problem(
      422,
      `${what} ${Math.round(bytes / 1024 / 1024)} MB of traces: more than is written as text at once.`,
      "Take them along with a backup, or the runs singly.",
    );
}

/** A run as a log that can be read again. @throws Problem 422 for one too long to be written as text */
export async function readRunCsv(id: string): Promise<HandedOut> {
  refuseLarge((await keptBytes([id])).get(id) ?? 0, "This run holds");
  const [run, kept] = await Promise.all([findRunAlways(id), findKept(id)]);
  if (!run || !kept) throw notFound("run");
  return { name: `run-${run.number}.csv`, content: await heavy("csvFile", [kept], buffersOf(kept)) };
}

/**
 * A job as a file: everything its page shows, what its trials came to in words, and the runs' traces as CSV.
 */
export async function saveJob(id: string): Promise<HandedOut> {
  const view = await viewJob(id);
  const sizes = await keptBytes(view.runs.map((run) => run.id));
  refuseLarge(
    [...sizes.values()].reduce((sum, bytes) => sum + bytes, 0),
    "The runs of this job hold",
  );
  const traces = [];
  for (const run of view.runs) traces.push(await findKept(run.id));
  const { job, runs, trials, faults, standing, overrides, inForce, diagnosis, next } = view;
  const file = {
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
  const content = await heavy(
    "jobFile",
    [file, traces],
    traces.flatMap((kept) => (kept ? buffersOf(kept) : [])),
  );
  return { name: "job.json", content };
}
