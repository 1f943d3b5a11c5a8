import { defaultsOf } from "@/core/kit";
import type { NewRunView } from "@/core/records";
import { catalogueOf, findJob, lastSettings } from "@/data";
import { viewBench } from "./benchUse";
import { notFound } from "./problem";

export async function viewNewRun(jobId: string): Promise<NewRunView> {
  const job = await findJob(jobId);
  if (!job) throw notFound("job");
  const [catalogue, last, bench] = await Promise.all([catalogueOf(job.engineId), lastSettings(jobId), viewBench()]);
  return { job, catalogue, settings: { ...defaultsOf(catalogue), ...last }, bench };
}
