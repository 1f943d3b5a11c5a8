import { jobsQuery, type JobsView } from "@/contract";
import { listJobs } from "@/data";

/** Jobs from a cursor on, the last worked on first. */
export async function viewJobs(asked: unknown = {}): Promise<JobsView> {
  const query = jobsQuery.parse(asked);
  return { ...(await listJobs(query)), search: query.search, filter: query.filter, sort: query.sort };
}
