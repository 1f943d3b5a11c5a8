import type { JobRow } from "@/core/records";
import * as data from "@/data";
import { Problem, notFound } from "@/server/problem";

/**
 * A job, locked until the transaction is over: whoever else would change it waits, and then sees what was done.
 * @throws Problem 404 where there is none, 409 where it is closed
 */
export async function lockOpenJob(id: string): Promise<JobRow> {
  const job = await lockJob(id);
  if (job.closedAt)
    throw new Problem(409, "This job is closed.", "Open it again to go on with it; nothing was changed.");
  return job;
}

export async function lockJob(id: string): Promise<JobRow> {
  await data.lockRow("jobs", id);
  const job = await data.findJob(id);
  if (!job) throw notFound("job");
  return job;
}
