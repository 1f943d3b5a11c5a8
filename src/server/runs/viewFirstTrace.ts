import type { JobView } from "@/contract";
import { coarseTrace, type CoarseTrace } from "@/core/trace";
import { findTrace } from "@/data";

/** Columns that a page draws before it has fetched a trace. */
const columns = 320;
/** A longer run's trace isn't read for a page: its own worker thread draws it, frames. */
const mostFrames = 100_000;

/** The newest run of a job in few columns, and which run that is; null where there is none, or a very long one. */
export async function viewFirstTrace({
  runs,
}: Pick<JobView, "runs">): Promise<{ runId: string; trace: CoarseTrace } | null> {
  const newest = runs.at(-1);
  if (!newest || newest.summary.frames > mostFrames) return null;
  const trace = await findTrace(newest.id);
  return trace && { runId: newest.id, trace: coarseTrace(trace, columns) };
}
