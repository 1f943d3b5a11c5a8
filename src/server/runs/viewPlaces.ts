import { placesOf, type PlaceRow } from "@/core/job";
import * as data from "@/data";
import { notFound } from "@/server/problem";

/** A run place by place; no row where it names fewer than two. */
export async function viewPlaces(runId: string): Promise<{ rows: PlaceRow[] }> {
  const run = await data.findRun(runId);
  if (!run?.summary || !run.verdict) throw notFound("run");
  return { rows: placesOf(run.summary, run.verdict) };
}
