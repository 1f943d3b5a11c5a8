import type { Body } from "@/contract";
import { mostPlanned } from "@/contract/campaigns";
import { mostCampaignArms, orderOf } from "@/core/campaign";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { Problem, notFound } from "@/server/problem";
import { editing, writing } from "@/server/writing";
import { loadCampaign, refuseUnknown, scheduleFactsOf, type LoadedCampaign } from "./campaignFacts";
import { campaignTrial, trialArm, withEngine } from "./takeRun";

/**
 * Gives a campaign further rounds, titles or arms. What was run stays; what is left is put in order by rule, and
 * whoever asked may order it better.
 * @throws Problem 409 where its trial is decided or a title stands there already
 */
export async function growCampaign(
  actor: Actor,
  id: string,
  { rounds: wanted, titles, arms }: Body<"growCampaign">,
  saw: number | null = null,
): Promise<void> {
  return writing(actor, async (touch) => {
    await editing("campaigns", id, "campaign", saw);
    const before = await loadCampaign(id);
    const { plan } = before.campaign;
    const rounds = Math.max(plan.rounds, wanted ?? 0);
    if (plan.arms.length + arms.length > mostCampaignArms)
      throw new Problem(422, `A campaign holds at most ${mostCampaignArms} arms.`, "Plan another one.");
    const allTitles = before.titles.length + titles.length;
    if (allTitles * (plan.arms.length + arms.length) * rounds > mostPlanned)
      throw new Problem(422, `A campaign holds at most ${mostPlanned} runs.`, "Plan another one.");
    const names = new Set(plan.arms.map(({ name }) => name.toLowerCase()));
    for (const [at, { name }] of arms.entries()) {
      if (names.has(name.toLowerCase()))
        throw new Problem(422, `There is an arm “${name}” already.`, "Give it another name.", {
          [`arms.${at}.name`]: "There already.",
        });
      names.add(name.toLowerCase());
    }
    const there = titles.find(({ titleId, scene }) =>
      before.titles.some((title) => title.titleId === titleId && title.scene === scene),
    );
    if (there)
      throw new Problem(
        409,
        "One of these titles is in the campaign already, with this scene.",
        "Choose others.",
      );
    await data.putCampaign(id, { plan: { rounds, arms: [...plan.arms, ...arms] } });
    await data.addCampaignTitles(id, titles, before.titles.length);
    const after = await loadCampaign(id);
    refuseUnknown(after, plan.arms.length);
    for (const job of before.jobs) await growJob(actor, after, job, plan.arms.length);
    await data.putCampaign(id, { order: orderOf(await scheduleFactsOf(after), 0) });
    touch({ kind: "campaign", id });
  });
}

/** Takes further rounds and arms into a job that was begun for a title on a rig. */
async function growJob(
  actor: Actor,
  { campaign, arms, titles }: LoadedCampaign,
  job: data.CampaignJobRow,
  from: number,
): Promise<void> {
  const title = titles[job.title];
  if (!title) throw notFound("title of this campaign");
  const made = [];
  const places: number[] = [];
  for (const [place, arm] of arms.entries()) {
    if (arm.rigId !== job.rigId || (place < from && !job.arms.includes(place))) continue;
    if (place < from && job.trialId !== null) continue;
    const own = await withEngine(arm, title);
    if (place >= from) places.push(place);
    made.push(await trialArm(own, title));
  }
  if (job.trialId === null) {
    if (places.length === 0) return;
    // One arm needed no trial; its runs are the first arm's now.
    const trial = await campaignTrial(actor, campaign, title, job.jobId, made);
    await data.adoptRuns(job.jobId, trial.id);
    await data.addCampaignJob(campaign.id, { ...job, trialId: trial.id, arms: [...job.arms, ...places] });
    return;
  }
  const row = await data.findTrial(job.trialId);
  if (!row) throw notFound("trial");
  if (row.decidedAt)
    throw new Problem(409, `The trial of ${title.name} is decided.`, "Take its decision back to add to it.");
  await data.putPlanned(job.trialId, {
    rounds: campaign.plan.rounds + title.extra,
    ...(made.length > 0 && {
      arms: [...row.arms, ...made.map((arm) => ({ ...arm, role: "changed" as const }))],
    }),
  });
  if (places.length > 0) await data.addCampaignJob(campaign.id, { ...job, arms: [...job.arms, ...places] });
}
