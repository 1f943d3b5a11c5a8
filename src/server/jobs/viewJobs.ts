import type { Query, JobsView } from "@/contract";
import { listJobs } from "@/data";

/** Jobs from a cursor on, the last worked on first. */
export async function viewJobs(query: Query<"listJobs">): Promise<JobsView> {
  return { ...(await listJobs(query)), search: query.search, filter: query.filter, sort: query.sort };
}
