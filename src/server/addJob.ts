import { firstConditions, newJobSchema } from "@/core/kit";
import * as data from "@/data";

/** Opens a job and puts it, with its rig, on the bench. */
export async function addJob(input: unknown): Promise<string> {
  const job = newJobSchema.parse(input);
  const id = await data.addJob(job);
  const rig = await data.findRig(job.rigId);
  const bench = await data.readBench();
  await data.putBench({ jobId: id, rigId: job.rigId, houseRulesId: job.houseRulesId, ...(rig && bench.rigId !== job.rigId ? { conditions: firstConditions(rig.spec) } : {}) });
  return id;
}
