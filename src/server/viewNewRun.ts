import { defaultsOf } from "@/core/kit";
import type { NewRunView } from "@/core/records";
import { catalogueOf, findJob, findTitle, lastSettings, listPreflight } from "@/data";
import { viewBench } from "./benchUse";
import { notFound } from "./problem";

export async function viewNewRun(jobId: string): Promise<NewRunView> {
  const job = await findJob(jobId);
  if (!job) throw notFound("job");
  const [catalogue, last, bench, preflight, title] = await Promise.all([catalogueOf(job.engineId), lastSettings(jobId), viewBench(), listPreflight(), findTitle(job.titleId)]);
  return { job, catalogue, settings: { ...defaultsOf(catalogue), ...last }, bench, preflight, patches: title?.patches.length ?? 0 };
}
