import { readBody } from "@/contract";
import type { Body, Query } from "@/contract";
import {
  answersForAll,
  isWholeOrder,
  mayTakeMore,
  orderOf,
  type CampaignPair,
  type Slot,
} from "@/core/campaign";
import { baselineOf } from "@/core/job";
import type { Settings } from "@/core/kit";
import { HeldValues, effectiveSettings } from "@/core/profile";
import { emptyPlan, usableRuns, type TrialFacts } from "@/core/trial";
import type { CampaignKitView, CampaignListRow, CampaignView, TitlesToPlan } from "@/core/records";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { conditionsFor } from "@/server/jobs/benchUse";
import { armsOf, loadCampaign, scheduleFactsOf, type LoadedCampaign } from "./campaignFacts";
import { addTrial } from "@/server/trials/planTrial";
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
    arms.forEach(({ rigId, engineId, buildId }, at) => {
      if (!rigs.some(({ id }) => id === rigId))
        throw new Problem(422, "This rig isn't on the shelf.", "Choose another.", {
          [`arms.${at}.rigId`]: "Gone.",
        });
      if (engineId === "" && buildId !== null)
        throw new Problem(422, "This build isn't on the shelf.", "Choose another.", {
          [`arms.${at}.buildId`]: "Gone.",
        });
    });
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

interface ArmAt extends Pick<LoadedCampaign["arms"][number], "from" | "settings" | "rigId"> {
  engineId: string;
  buildId: string;
}

/** An arm with the engine it has at a title. @throws Problem 409 where none runs its system */
async function withEngine<Arm extends LoadedCampaign["arms"][number]>(
  arm: Arm,
  title: data.CampaignTitleRow,
): Promise<Arm & { buildId: string }> {
  if (arm.buildId !== null) return { ...arm, buildId: arm.buildId };
  const usual = await data.usualBuild(arm.rigId, title.systemId);
  if (!usual)
    throw new Problem(
      409,
      `No engine on the shelf runs ${title.system}.`,
      "Add one in Kit, or answer that this title has none.",
    );
  return { ...arm, ...usual };
}

/**
 * What an arm's settings are at a title: what the layers say, or the engine's defaults, with the arm's own over
 * them.
 */
async function armSettings(
  { from, settings, engineId, rigId, buildId }: ArmAt,
  title: data.CampaignTitleRow,
): Promise<Settings> {
  const [catalogue, held] = await data.together(
    async () => data.catalogueOf(engineId),
    async () =>
      from === "profile" ? data.standingValues({ rigId, engineId }, { only: title }) : new HeldValues([]),
  );
  const known = new Set(catalogue.map(({ key }) => key));
  const own = Object.fromEntries(Object.entries(settings).filter(([key]) => known.has(key)));
  return {
    ...effectiveSettings(catalogue, held, { titleId: title.titleId, systemId: title.systemId, buildId }),
    ...own,
  };
}

/**
 * The job, and where there are several arms the trial, that a title's runs on one rig are kept in; begun where
 * there is none.
 */
async function begun(
  actor: Actor,
  { campaign, arms, jobs, titles }: LoadedCampaign,
  { title: at, arm }: Slot,
): Promise<data.CampaignJobRow> {
  const title = titles[at],
    wanted = arms[arm];
  if (!title || !wanted) throw notFound("run of this campaign");
  const there = jobs.find((job) => job.title === at && job.rigId === wanted.rigId);
  if (there) return there;
  const own = [];
  for (const [place, each] of arms.entries())
    if (each.rigId === wanted.rigId) own.push({ ...(await withEngine(each, title)), place });
  const [firstArm] = own;
  if (!firstArm) throw notFound("arm");
  const jobId = await data.addJob({
    rigId: wanted.rigId,
    titleId: title.titleId,
    buildId: firstArm.buildId,
    houseRulesId: campaign.houseRulesId,
    aim: "speed",
    targetFps: null,
    strategy: "climb",
  });
  const job = await data.findJob(jobId);
  if (!job) throw notFound("job");
  await data.putBaseline(
    jobId,
    baselineOf(job, await data.catalogueOf(job.engineId), { settings: await armSettings(firstArm, title) }),
  );
  const made = [];
  for (const each of own)
    made.push({
      name: each.name,
      settings: await armSettings(each, title),
      conditions: each.conditions,
      buildId: each.buildId,
      level: null,
    });
  const trial =
    own.length > 1
      ? await addTrial(
          actor,
          readBody("addTrial", {
            jobId,
            kind: "compare",
            name: campaign.name,
            arms: made,
            rounds: campaign.plan.rounds + title.extra,
            cold: false,
            plan: emptyPlan,
          }),
        )
      : null;
  const row = {
    title: at,
    rigId: wanted.rigId,
    jobId,
    trialId: trial?.id ?? null,
    arms: own.map(({ place }) => place),
  };
  await data.addCampaignJob(campaign.id, row);
  return { ...row, fingerprint: null, pairs: null };
}

export interface TakenRun extends Slot {
  jobId: string;
  trialId: string | null;
  /** Place of the arm in its trial. */
  trialArm: number | null;
  /** Where its run is brought in. */
  path: string;
}

/**
 * Takes the next run that is neither done, spared, nor taken by somebody else, and puts its rig and conditions
 * on the bench.
 * @throws Problem 409 where none is left
 */
export async function takeRun(actor: Actor, id: string, input: Body<"takeRun">): Promise<TakenRun> {
  const { taker, title: wantedTitle, arm: wantedArm, rigId, bench } = input;
  return writing(actor, async (touch) => {
    await editing("campaigns", id, "campaign", null);
    const loaded = await loadCampaign(id);
    const claims = await data.listClaims(id);
    const isTaken = ({ title, arm, round }: Slot) =>
      claims.some(
        (claim) => claim.title === title && claim.arm === arm && claim.round === round && claim.taker !== taker,
      );
    const wanted = loaded.slots.filter(
      ({ title, arm, state }) =>
        (state === "open" || (state === "spared" && wantedTitle !== undefined)) &&
        (wantedTitle === undefined || title === wantedTitle) &&
        (wantedArm === undefined || arm === wantedArm) &&
        (rigId === undefined || loaded.arms[arm]?.rigId === rigId),
    );
    const slot = wanted.find((each) => !isTaken(each));
    if (!slot)
      throw new Problem(
        409,
        wanted.length > 0
          ? "What is left is being run by somebody else."
          : "There is nothing left to run here.",
        wanted.length > 0 ? "Wait for them, or take their run when they give it up." : "Look at its answer.",
      );
    const job = await begun(actor, loaded, slot);
    const title = loaded.titles[slot.title],
      arm = loaded.arms[slot.arm];
    if (!title || !arm) throw notFound("run of this campaign");
    await data.putClaim(id, { title: slot.title, arm: slot.arm, round: slot.round, taker });
    if (bench) await putOnBench(loaded, arm, job.jobId);
    touch({ kind: "campaign", id }, ...(bench ? [{ kind: "bench" as const, id: "" }] : []), {
      kind: "jobs",
      id: job.jobId,
    });
    const trialArm = job.trialId === null ? null : job.arms.indexOf(slot.arm);
    const query = new URLSearchParams({
      campaign: id,
      ...(job.trialId === null ? {} : { trial: job.trialId, arm: String(trialArm) }),
    });
    const { title: place, arm: armPlace, round } = slot;
    return {
      ...{ title: place, arm: armPlace, round, trialArm },
      jobId: job.jobId,
      trialId: job.trialId,
      path: `/jobs/${job.jobId}/runs/new?${query}`,
    };
  });
}

/** Gives up whatever somebody has taken. */
export async function releaseRun(actor: Actor, id: string, input: Body<"releaseRun">): Promise<void> {
  const { taker } = input;
  return writing(actor, async (touch) => {
    await editing("campaigns", id, "campaign", null);
    await data.dropClaims(id, taker);
    touch({ kind: "campaign", id });
  });
}

/**
 * Puts a job with its rig and an arm's conditions on the bench; what else is set there stays where the rig
 * does.
 */
async function putOnBench(
  { rigs, campaign }: LoadedCampaign,
  { rigId, conditions }: LoadedCampaign["arms"][number],
  jobId: string,
): Promise<void> {
  const bench = await data.readBench();
  const rig = rigs.find(({ id }) => id === rigId);
  if (!rig) throw notFound("rig");
  const held = bench.rigId === rigId ? bench.conditions : null;
  await data.putBench({
    rigId,
    jobId,
    houseRulesId: campaign.houseRulesId,
    conditions: { ...(held ?? (await conditionsFor(rig))), ...conditions },
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
