import { firstConditions, newJobSchema, strategies } from "@/core/kit";
import { z } from "zod";
import * as data from "@/data";

const addedSchema = newJobSchema.extend({ strategy: z.enum(strategies).default("climb") });

/** Opens a job and puts it, with its rig, on the bench. */
export async function addJob(input: unknown): Promise<string> {
  const job = addedSchema.parse(input);
  const id = await data.addJob(job);
  const rig = await data.findRig(job.rigId);
  const bench = await data.readBench();
  await data.putBench({
    jobId: id,
    rigId: job.rigId,
    houseRulesId: job.houseRulesId,
    ...(rig && bench.rigId !== job.rigId ? { conditions: firstConditions(rig.spec) } : {}),
  });
  return id;
}
