import type { TrialRow } from "@/core/records";
import * as data from "@/data";
import { lockOpenJob } from "@/server/jobs/lockJob";
import { notFound } from "@/server/problem";

/** A trial of an open job, both locked. */
export async function lockTrial(id: string): Promise<TrialRow> {
  const place = await data.placeOfTrial(id);
  if (!place) throw notFound("trial");
  await lockOpenJob(place.jobId);
  await data.lockRow("trials", id);
  const trial = await data.findTrial(id);
  if (!trial) throw notFound("trial");
  return trial;
}
