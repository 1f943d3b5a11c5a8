import { z } from "zod";
import type { JobsView } from "@/core/records";
import { listJobs } from "@/data";

const jobsPage = 50;

const querySchema = z.object({
  search: z.string().max(200).catch(""),
  page: z.coerce.number().int().min(1).max(10_000).catch(1),
});

/** One page of jobs, the last worked on first. */
export async function viewJobs(query: { search?: unknown; page?: unknown } = {}): Promise<JobsView> {
  const { search, page } = querySchema.parse({ search: query.search ?? "", page: query.page ?? 1 });
  return {
    ...(await listJobs({ search, limit: jobsPage, offset: (page - 1) * jobsPage })),
    search,
    page,
    pageSize: jobsPage,
  };
}
