import type { Body, Query } from "@/contract";
import {
  answersForAll,
  isWholeOrder,
  mayTakeMore,
  orderOf,
  type CampaignPair,
  type Slot,
} from "@/core/campaign";
import { usableRuns, type TrialFacts } from "@/core/trial";
import type { CampaignKitView, CampaignListRow, CampaignView, TitlesToPlan } from "@/core/records";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { armsOf, loadCampaign, refuseUnknown, scheduleFactsOf, type LoadedCampaign } from "./campaignFacts";
import { Problem, notFound } from "@/server/problem";
import { loadTrial, understood, understoodAfresh } from "@/server/trials/trialFacts";
import { editing, writing } from "@/server/writing";

export const listCampaigns = async (): Promise<{ rows: CampaignListRow[] }> => ({
  rows: await data.listCampaigns(),
});

/** What a campaign can be made from. */
export async function viewCampaignKit(): Promise<CampaignKitView> {
  const [rigs, builds, systems, houseRules, abilities] = await data.together(
    data.listRigs,
    data.listBuilds,
    data.listSystems,
    data.listHouseRules,
    data.listAbilities,
  );
  return {
    rigs,
    builds,
    systems: systems.map(({ id, name }) => ({ id, name })),
    houseRules,
    abilities: [...new Set(abilities.map(({ ability }) => ability))],
  };
}

/** Titles that a campaign may be planned over, by a filter. */
export const planTitles = async (asked: Query<"planTitles">): Promise<TitlesToPlan> => data.titlesToPlan(asked);

/** Plans a campaign; nothing is begun before its first run is taken. */
export async function addCampaign(actor: Actor, plan: Body<"addCampaign">, createdAt?: Date): Promise<string> {
  return writing(actor, async (touch) => {
    const campaign = { plan, houseRulesId: plan.houseRulesId };
    const { arms, rigs } = await armsOf(campaign);
    refuseUnknown({ arms, rigs });
    const seconds = await data.sceneSeconds(plan.titles);
    const titles = plan.titles.map(({ titleId }, at) => {
      const own = seconds.get(at);
      if (own === undefined) throw notFound("title");
      return { titleId, seconds: own };
    });
    // By rule alone: a worker betters it in the browser.
    const order = orderOf(await scheduleFactsOf({ campaign, arms, rigs, titles }), 0);
    const id = await data.addCampaign(plan, order, createdAt);
    touch({ kind: "campaign", id });
    return id;
  });
}

export async function viewCampaign(id: string): Promise<CampaignView> {
  return shownAs(await loadCampaign(id));
}

async function shownAs(loaded: LoadedCampaign): Promise<CampaignView> {
  const { arms, titles, jobs, runs, answers, unchecked, facts, answer, slots, pending } = loaded;
  const { order: _order, ...campaign } = loaded.campaign;
  const [schedule, claims] = await data.together(
    async () => scheduleFactsOf(loaded),
    async () => data.listClaims(campaign.id),
  );
  return {
    campaign,
    arms,
    titles: titles.map((title, at) => ({
      titleId: title.titleId,
      name: title.name,
      system: title.system,
      hardness: title.hardness,
      scene: title.scene,
      passMin: schedule.titles[at]?.passMin ?? campaign.plan.passMin,
      unchecked: unchecked[at] ?? [],
      jobs: arms.map(({ rigId }) => {
        const job = jobs.find((each) => each.title === at && each.rigId === rigId);
        return job ? { jobId: job.jobId, trialId: job.trialId } : null;
      }),
      coldRuns: runs.filter((run) => run.title === at && run.cold).length,
    })),
    facts,
    answer,
    slots,
    rigs: schedule.rigs,
    claims,
    mayTakeMore: mayTakeMore(facts, answer, slots),
    pending: pending.map(({ title, rigId }) => ({ title, rigId })),
    answers,
  };
}

/** Renames a campaign, plans its evenings anew, leaves it out or takes it back. */
export async function changeCampaign(
  actor: Actor,
  id: string,
  input: Body<"changeCampaign">,
  saw: number | null = null,
): Promise<void> {
  const { name, deleted, ...evenings } = input;
  return writing(actor, async (touch) => {
    await editing("campaigns", id, "campaign", saw);
    await data.putCampaign(id, { name, deleted, plan: evenings });
    touch({ kind: "campaign", id });
  });
}

/** Puts its runs in another order, balanced as before. */
export async function orderCampaign(
  actor: Actor,
  id: string,
  { order: wanted }: Body<"orderCampaign">,
  saw: number | null = null,
): Promise<void> {
  const order = wanted.map(([title, arm, round]): Slot => ({ title, arm, round }));
  return writing(actor, async (touch) => {
    await editing("campaigns", id, "campaign", saw);
    const [campaign, titles] = await data.together(
      async () => data.findCampaign(id),
      async () => data.listCampaignTitles(id),
    );
    if (!campaign) throw notFound("campaign");
    const { arms, rounds } = campaign.plan;
    if (!isWholeOrder(order, { titles: titles.length, arms: arms.length, rounds }))
      throw new Problem(
        422,
        "This order isn't one of every planned run, balanced inside its titles.",
        "Order the runs that are there, no arm of a title a k+1st time before every arm has run k times.",
      );
    await data.putCampaign(id, { order });
    touch({ kind: "campaign", id });
  });
}

/**
 * Puts down an answer that leaves no trace, or takes one back. One that speaks for the engine speaks for every
 * round.
 */
export async function answerRun(actor: Actor, id: string, input: Body<"answerRun">): Promise<void> {
  const { title: at, arm, round, answer, note } = input;
  return writing(actor, async (touch) => {
    await editing("campaigns", id, "campaign", null);
    const { titles, campaign, answers } = await loadCampaign(id);
    const title = titles[at];
    if (!title || arm >= campaign.plan.arms.length || round > campaign.plan.rounds + title.extra)
      throw notFound("run of this campaign");
    const place = { title: at, arm };
    if (answer === null)
      // What speaks for all is taken back from wherever it stands.
      for (const there of answers.filter(
        (each) =>
          each.title === at &&
          each.arm === arm &&
          (each.round === round || answersForAll.includes(each.answer)),
      ))
        await data.putAnswer(id, { ...place, round: there.round, answer: null, note: "", actor: actor.name });
    else await data.putAnswer(id, { ...place, round, answer, note, actor: actor.name });
    touch({ kind: "campaign", id });
  });
}

/** Gives a title that is still open one more round of every arm, of the time that others gave away. */
export async function giveTime(actor: Actor, id: string, input: Body<"giveTime">): Promise<void> {
  const { title: at } = input;
  return writing(actor, async (touch) => {
    await editing("campaigns", id, "campaign", null);
    const loaded = await loadCampaign(id);
    const title = loaded.titles[at];
    if (!title) throw notFound("title of this campaign");
    if (!mayTakeMore(loaded.facts, loaded.answer, loaded.slots).includes(at))
      throw new Problem(
        409,
        "This title can't take more time.",
        "It takes a title that is still open after all its runs, and runs that others gave away.",
      );
    await data.putExtra(id, at, title.extra + 1);
    for (const { trialId } of loaded.jobs.filter((job) => job.title === at))
      if (trialId !== null)
        await data.putPlanned(trialId, { rounds: loaded.campaign.plan.rounds + title.extra + 1 });
    touch({ kind: "campaign", id });
  });
}

/** A trial's facts with those arms alone that have a run, and the places they had. */
function withRuns(facts: TrialFacts): { facts: TrialFacts; places: number[] } {
  const usable = usableRuns(facts.trial, facts.runs);
  const places = facts.trial.arms.flatMap((_, arm) => (usable.some((run) => run.arm === arm) ? [arm] : []));
  return {
    places,
    facts: {
      ...facts,
      trial: { ...facts.trial, arms: places.flatMap((arm) => facts.trial.arms[arm] ?? []) },
      runs: facts.runs.flatMap((run) =>
        places.includes(run.arm) ? [{ ...run, arm: places.indexOf(run.arm) }] : [],
      ),
    },
  };
}

/** Compares a title's runs on one rig, and keeps what that comes to. */
export async function reckonCampaign(id: string, input: Body<"reckonCampaign">): Promise<{ left: number }> {
  const { title: at, rigId } = input;
  const { fingerprints, pending } = await loadCampaign(id);
  const job = pending.find((each) => each.title === at && (!rigId || each.rigId === rigId));
  if (!job || job.trialId === null) return { left: pending.length };
  const { facts } = await loadTrial(job.trialId);
  const some = withRuns(facts);
  const whole = some.places.length === facts.trial.arms.length;
  const { outcome } =
    some.places.length < 2
      ? { outcome: null }
      : whole
        ? await understood(job.trialId, facts)
        : await understoodAfresh(some.facts);
  const place = (local: number) => job.arms[some.places[local] ?? -1] ?? -1;
  const pairs = (outcome?.pairs ?? []).map(
    ({ a, b, ratio, low, high, p, decision, moreRunsPerSide, chanceSettled }): CampaignPair => ({
      ...{ ratio, low, high, p, decision, moreRunsPerSide, chanceSettled },
      a: place(a),
      b: place(b),
    }),
  );
  await data.putCampaignPairs(id, job, fingerprints.get(job) ?? "", pairs);
  return { left: pending.length - 1 };
}
