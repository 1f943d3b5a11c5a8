import { packKept } from "@/core/trace";
import { findKept } from "@/data";
import { notFound } from "./problem";

/** A run's trace as it is kept, packed for the reader's own worker to draw. */
export async function readTrace(runId: string): Promise<Uint8Array<ArrayBuffer>> {
  const kept = await findKept(runId);
  if (!kept) throw notFound("run");
  return packKept(kept, { runId });
}
