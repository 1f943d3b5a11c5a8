import { packTrace } from "@/core/trace";
import { findTrace } from "@/data";
import { notFound } from "./problem";

/** A run's trace as it is kept, packed for the reader's own worker to draw. */
export async function readTrace(runId: string): Promise<Uint8Array<ArrayBuffer>> {
  const trace = await findTrace(runId);
  if (!trace) throw notFound("run");
  return packTrace(trace, { runId });
}
