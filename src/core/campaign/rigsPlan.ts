import type { NewJob } from "@/core/kit";
import { newCampaignSchema, type NewCampaign } from "./plan";

/**
 * One job's title on its own rig and on others, each with the same engine and build and the profile that the
 * title has there. Runs on another rig are a job of their own, so a campaign holds them, and takes them in turns.
 * @param rounds runs of each rig
 * @throws ZodError for no rig besides the job's own, or more than a campaign has arms
 */
export function rigsPlan(
  job: Pick<NewJob, "titleId" | "buildId" | "houseRulesId" | "rigId"> & { title: string; rig: string },
  others: readonly { id: string; name: string }[],
  rounds: number,
): NewCampaign {
  const rigs = [{ id: job.rigId, name: job.rig }, ...others];
  return newCampaignSchema.parse({
    name: `${job.title}: ${rigs.map(({ name }) => name).join(", ")}`.slice(0, 120),
    question: "which is best",
    houseRulesId: job.houseRulesId,
    titles: [{ titleId: job.titleId }],
    arms: rigs.map(({ id, name }) => ({ name: name.slice(0, 80), rigId: id, buildId: job.buildId })),
    rounds,
  });
}
