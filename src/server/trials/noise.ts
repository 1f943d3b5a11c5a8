import { rigOfJob } from "@/data";
import { queueWork } from "@/server/system/workQueue";

/** How much a rig varies follows the runs that count: brought up to date when a job's runs change. */
export async function queueNoise(jobId: string): Promise<void> {
  const rigId = await rigOfJob(jobId);
  if (rigId) await queueWork("noise-floor", { rigId });
}
