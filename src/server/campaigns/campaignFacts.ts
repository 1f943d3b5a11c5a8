import { createHash } from "node:crypto";
import {
  answerCampaign,
  slotsOf,
  type CampaignAnswer,
  type CampaignFacts,
  type CellFacts,
  type PlannedSlot,
  type ScheduleFacts,
  type Slot,
} from "@/core/campaign";
import { effectiveFps } from "@/core/compare";
import { firstConditions } from "@/core/kit";
import type { CampaignArmView, CampaignRow, RigRow } from "@/core/records";
import * as data from "@/data";
import { Problem, notFound } from "@/server/problem";

/** A campaign with everything its answer is made from. */
export interface LoadedCampaign {
  campaign: CampaignRow & { order: Slot[] };
  arms: CampaignArmView[];
  rigs: RigRow[];
  titles: data.CampaignTitleRow[];
  jobs: data.CampaignJobRow[];
  runs: data.PlacedRun[];
  answers: data.AnswerRow[];
  /** What every title asks of an engine and nobody has checked, by arm. */
  unchecked: string[][][];
  facts: CampaignFacts;
  answer: CampaignAnswer;
  slots: PlannedSlot[];
  /** Of which runs every job's pairs would be made. */
  fingerprints: ReadonlyMap<data.CampaignJobRow, string>;
  /** Jobs whose pairs were made of other runs than there are now. */
  pending: data.CampaignJobRow[];
}

const byId = <Row extends { id: string }>(rows: Row[]) => new Map(rows.map((row) => [row.id, row]));

/** Arms with the names of what they are made of; what is gone from the shelves is said by its absence. */
export async function armsOf({
  plan,
}: Pick<CampaignRow, "plan">): Promise<{ arms: CampaignArmView[]; rigs: RigRow[] }> {
  const [rows, builds] = await data.together(data.listRigs, data.listBuilds);
  const rigs = byId(rows),
    byBuild = byId(builds);
  const arms = plan.arms.map((arm): CampaignArmView => {
    const rig = rigs.get(arm.rigId),
      build = arm.buildId === null ? null : byBuild.get(arm.buildId);
    const usual = rig && firstConditions(rig.spec).pluggedIn;
    return {
      ...arm,
      rig: rig?.name ?? "a rig that is gone",
      engineId: build?.engineId ?? "",
      engine: build === null ? "its usual engine" : (build?.engine ?? "an engine that is gone"),
      build: build?.version ?? "",
      pluggedIn: (arm.conditions.pluggedIn ?? usual ?? true) === true,
    };
  });
  return { arms, rigs: rows.filter(({ id }) => plan.arms.some(({ rigId }) => rigId === id)) };
}

/** What an engine isn't able to of what a title asks for, and what nobody has checked. */
async function lackingIn(
  campaign: CampaignRow,
  arms: CampaignArmView[],
  titles: data.CampaignTitleRow[],
): Promise<{ lacks: string[][][]; unchecked: string[][][] }> {
  const [abilities, builds, rules] = await data.together(
    data.listAbilities,
    data.listBuilds,
    data.listHouseRules,
  );
  const known = new Map(
    abilities.map(({ engineId, ability, able }) => [`${engineId} ${ability.toLowerCase()}`, able]),
  );
  const runs = new Map(builds.map(({ engineId, systemIds }) => [engineId, systemIds]));
  const fromRules = rules.find(({ id }) => id === campaign.houseRulesId)?.rules.needs ?? [];
  const asked = titles.map(({ needs }) => [...new Set([...campaign.plan.needs, ...fromRules, ...needs])]);
  const ability = (arm: CampaignArmView, need: string) => known.get(`${arm.engineId} ${need.toLowerCase()}`);
  return {
    lacks: titles.map(({ systemId, system }, at) =>
      arms.map((arm) => [
        ...(runs.get(arm.engineId)?.includes(systemId) === false ? [system] : []),
        ...(asked[at] ?? []).filter((need) => ability(arm, need) === false),
      ]),
    ),
    unchecked: titles.map((_, at) =>
      arms.map((arm) => (asked[at] ?? []).filter((need) => ability(arm, need) === undefined)),
    ),
  };
}

/** Raised whenever what is made of a title's runs changes its meaning. */
const pairsVersion = 2;

/** Refuses arms whose rig or build isn't on the shelf. @param from place of the first one that was asked for */
export function refuseUnknown({ arms, rigs }: Pick<LoadedCampaign, "arms" | "rigs">, from = 0): void {
  arms.slice(from).forEach(({ rigId, engineId, buildId }, at) => {
    if (!rigs.some(({ id }) => id === rigId))
      throw new Problem(422, "This rig isn't on the shelf.", "Choose another.", {
        [`arms.${at}.rigId`]: "Gone.",
      });
    if (engineId === "" && buildId !== null)
      throw new Problem(422, "This build isn't on the shelf.", "Choose another.", {
        [`arms.${at}.buildId`]: "Gone.",
      });
  });
}

/**
 * Of which runs a title's pairs are made, as one short text. A rig's noise floor enters coarsely: it moves a
 * little with every run, and fifty titles aren't compared anew for that.
 */
export function pairsFingerprint(
  runs: Pick<data.PlacedRun, "id" | "arm" | "crashed" | "cold" | "faults" | "grade" | "methodVersion">[],
  noise: { sd: number; freedom: number } | null,
  rulesVersion: number,
): string {
  const told = runs.map(({ id, arm, crashed, cold, faults, grade, methodVersion }) => [
    id,
    arm,
    crashed,
    cold,
    [...faults].sort(),
    grade,
    methodVersion,
  ]);
  const floor = noise && [noise.sd.toPrecision(1), Math.min(6, noise.freedom)];
  return createHash("sha256")
    .update(JSON.stringify([pairsVersion, told, floor, rulesVersion]))
    .digest("hex");
}

/** Runs of one title on one rig, in their order. */
export const runsOfJob = (runs: data.PlacedRun[], job: data.CampaignJobRow) =>
  runs.filter(({ title, rigId }) => title === job.title && rigId === job.rigId);

/** Of which runs every job's pairs would be made now. */
async function fingerprintsOf(
  { houseRulesId }: CampaignRow,
  jobs: data.CampaignJobRow[],
  runs: data.PlacedRun[],
): Promise<Map<data.CampaignJobRow, string>> {
  const rigIds = [...new Set(jobs.map(({ rigId }) => rigId))];
  const floors = new Map<string, Awaited<ReturnType<typeof data.findNoise>>>();
  for (const rigId of rigIds) floors.set(rigId, await data.findNoise(rigId));
  const rules = (await data.listHouseRules()).find(({ id }) => id === houseRulesId);
  return new Map(
    jobs.map((job) => [
      job,
      pairsFingerprint(runsOfJob(runs, job), floors.get(job.rigId) ?? null, rules?.version ?? 0),
    ]),
  );
}

export async function loadCampaign(id: string): Promise<LoadedCampaign> {
  const campaign = await data.findCampaign(id);
  if (!campaign) throw notFound("campaign");
  const [titles, jobs, runs, answers, { arms, rigs }] = await data.together(
    async () => data.listCampaignTitles(id),
    async () => data.listCampaignJobs(id),
    async () => data.listCampaignRuns(id),
    async () => data.listAnswers(id),
    async () => armsOf(campaign),
  );
  const [{ lacks, unchecked }, fingerprints] = await data.together(
    async () => lackingIn(campaign, arms, titles),
    async () => fingerprintsOf(campaign, jobs, runs),
  );
  const jobOf = (title: number, rigId: string) =>
    jobs.find((job) => job.title === title && job.rigId === rigId);
  const byCell = new Map<string, data.PlacedRun[]>();
  for (const run of runs) {
    const job = jobOf(run.title, run.rigId);
    const arm = job?.arms[run.arm ?? 0];
    if (arm === undefined || run.cold) continue;
    const key = `${run.title} ${arm}`;
    byCell.set(key, [...(byCell.get(key) ?? []), run]);
  }
  const cell = (title: data.CampaignTitleRow, at: number, arm: number): CellFacts => ({
    runs: (byCell.get(`${at} ${arm}`) ?? []).map((run) => ({
      id: run.id,
      jobId: run.jobId,
      number: run.number,
      grade: run.grade,
      between: run.between,
      places: run.places,
      averageFps: effectiveFps(run, title.nativeFps),
      crashed: run.crashed,
      faults: run.faults,
      durationMs: run.durationMs,
    })),
    notes: answers
      .filter((answer) => answer.title === at && answer.arm === arm)
      .map(({ round, answer, note, actor }) => ({ round, answer, note, actor })),
    lacks: lacks[at]?.[arm] ?? [],
  });
  /** Whether a job's runs are of two arms at least, so that there is something to compare. */
  const comparable = (job: data.CampaignJobRow) =>
    new Set(
      runsOfJob(runs, job)
        .filter(({ crashed, cold }) => !crashed && !cold)
        .map(({ arm }) => arm),
    ).size > 1;
  const pending = jobs.filter(
    (job) => job.trialId !== null && comparable(job) && job.fingerprint !== fingerprints.get(job),
  );
  const facts: CampaignFacts = {
    question: campaign.question,
    arms: arms.map(({ name, rigId }) => ({ name, rigId })),
    rounds: campaign.plan.rounds,
    extraRounds: campaign.plan.extraRounds,
    titles: titles.map((title, at) => {
      const own = jobs.filter((job) => job.title === at);
      return {
        titleId: title.titleId,
        name: title.name,
        extra: title.extra,
        cells: arms.map((_, arm) => cell(title, at, arm)),
        pairs: own.some((job) => pending.includes(job))
          ? null
          : own.flatMap((job) => (comparable(job) ? (job.pairs ?? []) : [])),
      };
    }),
  };
  const answer = answerCampaign(facts);
  const slots = slotsOf(facts, answer, campaign.order);
  return {
    campaign,
    arms,
    rigs,
    titles,
    jobs,
    runs,
    answers,
    unchecked,
    facts,
    answer,
    slots,
    pending,
    fingerprints,
  };
}

/** What its timetable is made from. */
export async function scheduleFactsOf({
  campaign,
  arms,
  rigs,
  titles,
}: Pick<LoadedCampaign, "arms" | "rigs"> & {
  campaign: Pick<CampaignRow, "plan">;
  titles: Pick<data.CampaignTitleRow, "titleId" | "seconds">[];
}): Promise<ScheduleFacts> {
  const cool = await data.coolDowns(rigs.map(({ id }) => id));
  return {
    plan: campaign.plan,
    arms,
    titles: titles.map(({ titleId, seconds }) => ({
      titleId,
      passMin: seconds === null ? campaign.plan.passMin : seconds / 60,
    })),
    rigs: Object.fromEntries(
      rigs.map(({ id, spec }) => [
        id,
        {
          batteryWh: spec.batteryWh,
          watts: Object.fromEntries(
            spec.powerModes.flatMap(({ name, watts }) => (watts === null ? [] : [[name, watts]])),
          ),
          coolDownMin: cool.get(id) ?? null,
        },
      ]),
    ),
  };
}
