import { readBody, type Body } from "@/contract";
import { type Slot } from "@/core/campaign";
import { baselineOf } from "@/core/job";
import type { Settings } from "@/core/kit";
import { HeldValues, effectiveSettings } from "@/core/profile";
import { emptyPlan } from "@/core/trial";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { conditionsFor } from "@/server/jobs/benchUse";
import { loadCampaign, type LoadedCampaign } from "./campaignFacts";
import { addTrial } from "@/server/trials/planTrial";
import { Problem, notFound } from "@/server/problem";
import { editing, writing } from "@/server/writing";

interface ArmAt extends Pick<LoadedCampaign["arms"][number], "from" | "settings" | "rigId"> {
  engineId: string;
  buildId: string;
}

/** An arm with the engine it has at a title. @throws Problem 409 where none runs its system */
export async function withEngine<Arm extends LoadedCampaign["arms"][number]>(
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
    async () => data.catalogueAt({ engineId, rigId, titleId: title.titleId }),
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

/** An arm of a campaign as a trial of a title has it. */
export const trialArm = async (
  arm: ArmAt & Pick<LoadedCampaign["arms"][number], "name" | "conditions">,
  title: data.CampaignTitleRow,
) => ({
  name: arm.name,
  settings: await armSettings(arm, title),
  conditions: arm.conditions,
  buildId: arm.buildId,
  level: null,
});

/** The trial that a title's runs on one rig are kept in. */
export const campaignTrial = async (
  actor: Actor,
  { name, plan }: LoadedCampaign["campaign"],
  { extra }: data.CampaignTitleRow,
  jobId: string,
  arms: Awaited<ReturnType<typeof trialArm>>[],
) =>
  addTrial(
    actor,
    readBody("addTrial", {
      jobId,
      kind: "compare",
      name,
      arms,
      rounds: plan.rounds + extra,
      cold: false,
      plan: emptyPlan,
    }),
  );

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
    baselineOf(job, await data.catalogueAt(job), { settings: await armSettings(firstArm, title) }),
  );
  const made = [];
  for (const each of own) made.push(await trialArm(each, title));
  const trial = own.length > 1 ? await campaignTrial(actor, campaign, title, jobId, made) : null;
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
