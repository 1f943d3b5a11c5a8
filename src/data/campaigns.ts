import { QueryTypes } from "sequelize";
import type { CampaignPair, CampaignPlan, CampaignRun, NewCampaign, Slot, SlotAnswer } from "@/core/campaign";
import type { CampaignListRow, CampaignRow } from "@/core/records";
import type { NewTitle } from "@/core/kit";
import { placesHeldIn } from "./board";
import { store } from "./models";

const columns = `c.id, c.version, c.name, c.question, c.house_rules_id as "houseRulesId", c.plan, c.created_at as "createdAt"`;

/** Keeps a campaign as planned; its order names titles by their places. */
export async function addCampaign(
  { name, question, houseRulesId, titles, ...plan }: NewCampaign,
  order: Slot[],
  createdAt = new Date(),
): Promise<string> {
  const [made] = await store().query<{ id: string }>(
    `insert into campaigns (name, question, house_rules_id, plan, run_order, created_at)
     values ($1, $2, $3, $4::jsonb, $5::jsonb, $6) returning id`,
    {
      bind: [name, question, houseRulesId, JSON.stringify(plan), JSON.stringify(packOrder(order)), createdAt],
      type: QueryTypes.SELECT,
    },
  );
  const id = made?.id ?? "";
  await addCampaignTitles(id, titles, 0);
  return id;
}

/** Adds titles to a campaign, behind those it has. @param from the first one's place */
export async function addCampaignTitles(
  id: string,
  titles: { titleId: string; scene: string }[],
  from: number,
): Promise<void> {
  await store().query(
    `insert into campaign_titles (campaign_id, title_id, scene, place)
     select $1, (t ->> 'titleId')::uuid, t ->> 'scene', $3::int + nr - 1 from jsonb_array_elements($2::jsonb) with ordinality as given (t, nr)`,
    { bind: [id, JSON.stringify(titles), from] },
  );
}

/** Makes a job's runs outside a trial those of a trial's first arm. */
export async function adoptRuns(jobId: string, trialId: string): Promise<void> {
  await store().query(
    `update runs set trial_id = $2, arm = 0, version = version + 1 where job_id = $1 and trial_id is null`,
    { bind: [jobId, trialId] },
  );
}

const packOrder = (order: Slot[]) => order.map(({ title, arm, round }) => [title, arm, round]);

export async function findCampaign(id: string): Promise<(CampaignRow & { order: Slot[] }) | null> {
  const rows = await store().query<CampaignRow & { order: [number, number, number][] }>(
    `select ${columns}, h.name as "houseRules", c.run_order as "order" from campaigns c join house_rules h on h.id = c.house_rules_id
     where c.id = $1 and c.deleted_at is null`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  const [row] = rows;
  return row ? { ...row, order: row.order.map(([title, arm, round]) => ({ title, arm, round })) } : null;
}

export async function putCampaign(
  id: string,
  changed: { name?: string; order?: Slot[]; deleted?: boolean; plan?: Partial<CampaignPlan> },
): Promise<void> {
  await store().query(
    `update campaigns set name = coalesce($2, name), run_order = coalesce($3::jsonb, run_order), plan = plan || coalesce($5::jsonb, '{}'),
       deleted_at = case when $4::boolean is null then deleted_at when $4 then now() else null end where id = $1`,
    {
      bind: [
        id,
        changed.name ?? null,
        changed.order ? JSON.stringify(packOrder(changed.order)) : null,
        changed.deleted ?? null,
        changed.plan ? JSON.stringify(changed.plan) : null,
      ],
    },
  );
}

/** Campaigns with how many titles each has and how many of its runs have an answer. */
const listed = `select c.id, c.name, c.question, c.created_at as "createdAt", jsonb_array_length(c.plan -> 'arms') as arms, (c.plan ->> 'rounds')::int as rounds,
       (select count(*)::int from campaign_titles t where t.campaign_id = c.id) as titles,
       (select count(*)::int from campaign_jobs k join runs u on u.job_id = k.job_id and u.trial_id is not distinct from k.trial_id
        where k.campaign_id = c.id and u.deleted_at is null and u.state <> 'open') as runs,
       (select max(u.made_at) from campaign_jobs k join runs u on u.job_id = k.job_id where k.campaign_id = c.id and u.deleted_at is null) as "lastRunAt"
     from campaigns c where c.deleted_at is null`;

/** Campaigns, the newest first. */
export async function listCampaigns(limit = 200): Promise<CampaignListRow[]> {
  return store().query<CampaignListRow & object>(`${listed} order by c.created_at desc, c.id limit $1`, {
    bind: [limit],
    type: QueryTypes.SELECT,
  });
}

/** Campaigns that have evenings and runs left for them. */
export async function openCampaigns(limit: number): Promise<CampaignListRow[]> {
  return store().query<CampaignListRow & object>(
    `select * from (${listed} and c.plan ->> 'firstEvening' is not null) k where runs < titles * arms * rounds order by "createdAt" desc limit $1`,
    { bind: [limit], type: QueryTypes.SELECT },
  );
}

/** A title of a campaign, with what it asks of an engine. */
export interface CampaignTitleRow {
  titleId: string;
  name: string;
  system: string;
  systemId: string;
  hardness: NewTitle["hardness"];
  nativeFps: number;
  needs: string[];
  scene: string;
  extra: number;
  /** Seconds of the scene that is run, or of the title's worst; null where nobody wrote it down. */
  seconds: number | null;
}

export async function listCampaignTitles(campaignId: string): Promise<CampaignTitleRow[]> {
  return store().query<CampaignTitleRow & object>(
    `select k.title_id as "titleId", t.name, s.name as system, s.id as "systemId", t.hardness, t.native_fps as "nativeFps", t.needs, k.scene, k.extra,
       (select seconds from scenes z where z.title_id = t.id order by (z.name = k.scene) desc, z.worst desc, z.position limit 1) as seconds
     from campaign_titles k join titles t on t.id = k.title_id join systems s on s.id = t.system_id where k.campaign_id = $1 order by k.place`,
    { bind: [campaignId], type: QueryTypes.SELECT },
  );
}

/** A title's job on one rig, made for a campaign. */
export interface CampaignJobRow {
  /** Place of the title among the campaign's. */
  title: number;
  rigId: string;
  jobId: string;
  trialId: string | null;
  /** Places of its arms in the campaign, in the order that its trial has them. */
  arms: number[];
  /** Of which runs its pairs were made; null where none were yet. */
  fingerprint: string | null;
  pairs: CampaignPair[] | null;
}

export async function listCampaignJobs(campaignId: string): Promise<CampaignJobRow[]> {
  return store().query<CampaignJobRow & object>(
    `select k.place as title, k.rig_id as "rigId", k.job_id as "jobId", k.trial_id as "trialId", k.arms, k.fingerprint, k.pairs
     from campaign_jobs k join jobs j on j.id = k.job_id left join trials t on t.id = k.trial_id
     where k.campaign_id = $1 and j.deleted_at is null and (k.trial_id is null or t.deleted_at is null)`,
    { bind: [campaignId], type: QueryTypes.SELECT },
  );
}

export async function addCampaignJob(
  campaignId: string,
  { title, rigId, jobId, trialId, arms }: Omit<CampaignJobRow, "fingerprint" | "pairs">,
): Promise<void> {
  await store().query(
    `insert into campaign_jobs (campaign_id, place, rig_id, job_id, trial_id, arms) values ($1, $2, $3, $4, $5, $6::int[])
     on conflict (campaign_id, place, rig_id) do update set job_id = excluded.job_id, trial_id = excluded.trial_id, arms = excluded.arms, fingerprint = null, pairs = null`,
    { bind: [campaignId, title, rigId, jobId, trialId, arms] },
  );
}

export async function putCampaignPairs(
  campaignId: string,
  { title, rigId }: { title: number; rigId: string },
  fingerprint: string,
  pairs: CampaignPair[],
): Promise<void> {
  await store().query(
    `update campaign_jobs set fingerprint = $4, pairs = $5::jsonb where campaign_id = $1 and place = $2 and rig_id = $3`,
    { bind: [campaignId, title, rigId, fingerprint, JSON.stringify(pairs)] },
  );
}

/** A run of a campaign with where it belongs. */
export interface PlacedRun extends CampaignRun {
  title: number;
  rigId: string;
  /** Place of its arm in its trial; null outside one. */
  arm: number | null;
  reportedSpeedPercent: number | null;
  methodVersion: number;
  cold: boolean;
}

/** Runs made for a campaign, in their order. */
export async function listCampaignRuns(campaignId: string): Promise<PlacedRun[]> {
  return store().query<PlacedRun & object>(
    `select u.id, u.job_id as "jobId", u.number, k.place as title, k.rig_id as "rigId", u.arm, m.grade, m.verdict -> 'between' as between, m.average_fps as "averageFps", u.state = 'crashed' as crashed,
       coalesce((select jsonb_agg(severity) from faults where run_id = u.id and deleted_at is null), '[]') as faults,
       ${placesHeldIn("m")} as places, m.duration_ms as "durationMs", m.reported_speed as "reportedSpeedPercent",
       m.method_version as "methodVersion", u.cache_state = 'cold' or coalesce((m.summary #>> '{coldScenes,cold}')::int * 2 > (m.summary #>> '{coldScenes,revisited}')::int, false) as cold
     from campaign_jobs k join runs u on u.job_id = k.job_id and u.trial_id is not distinct from k.trial_id join run_summaries m on m.run_id = u.id
     where k.campaign_id = $1 and u.deleted_at is null and u.state <> 'open' order by u.made_at, u.number`,
    { bind: [campaignId], type: QueryTypes.SELECT },
  );
}

/** An answer that left no trace, and where. */
export interface AnswerRow {
  title: number;
  arm: number;
  round: number;
  answer: SlotAnswer;
  note: string;
  actor: string;
  at: string;
}

export async function listAnswers(campaignId: string): Promise<AnswerRow[]> {
  return store().query<AnswerRow & object>(
    `select place as title, arm, round, answer, note, actor, at from campaign_answers where campaign_id = $1 order by at, place, arm, round`,
    { bind: [campaignId], type: QueryTypes.SELECT },
  );
}

/** Puts an answer down; null takes back what stood there. */
export async function putAnswer(
  campaignId: string,
  { title, arm, round, note, actor, answer }: Omit<AnswerRow, "at" | "answer"> & { answer: SlotAnswer | null },
): Promise<void> {
  if (answer === null)
    await store().query(
      `delete from campaign_answers where campaign_id = $1 and place = $2 and arm = $3 and round = $4`,
      { bind: [campaignId, title, arm, round] },
    );
  else
    await store().query(
      `insert into campaign_answers (campaign_id, place, arm, round, answer, note, actor) values ($1, $2, $3, $4, $5, $6, $7)
       on conflict (campaign_id, place, arm, round) do update set answer = excluded.answer, note = excluded.note, actor = excluded.actor, at = now()`,
      { bind: [campaignId, title, arm, round, answer, note, actor] },
    );
}

export interface ClaimRow {
  title: number;
  arm: number;
  round: number;
  taker: string;
}

/** A run that was taken is somebody's for so long, minutes. */
const claimMinutes = 45;

export async function listClaims(campaignId: string): Promise<ClaimRow[]> {
  return store().query<ClaimRow & object>(
    `select place as title, arm, round, taker from campaign_claims where campaign_id = $1 and at > now() - interval '${claimMinutes} minutes'`,
    { bind: [campaignId], type: QueryTypes.SELECT },
  );
}

/** Gives up what somebody has taken. */
export async function dropClaims(id: string, taker: string): Promise<void> {
  await store().query(`delete from campaign_claims where campaign_id = $1 and taker = $2`, {
    bind: [id, taker],
  });
}

/** Takes a run for somebody, and lets go of what they had taken before. */
export async function putClaim(campaignId: string, { title, arm, round, taker }: ClaimRow): Promise<void> {
  await dropClaims(campaignId, taker);
  await store().query(
    `insert into campaign_claims (campaign_id, place, arm, round, taker) values ($1, $2, $3, $4, $5)
     on conflict (campaign_id, place, arm, round) do update set taker = excluded.taker, at = now()`,
    { bind: [campaignId, title, arm, round, taker] },
  );
}

export async function putExtra(campaignId: string, title: number, extra: number): Promise<void> {
  await store().query(`update campaign_titles set extra = $3 where campaign_id = $1 and place = $2`, {
    bind: [campaignId, title, extra],
  });
}

/** The campaign that a trial or a job outside any belongs to. */
export async function campaignOf(jobId: string): Promise<{ id: string; name: string; scene: string } | null> {
  const rows = await store().query<{ id: string; name: string; scene: string }>(
    `select c.id, c.name, t.scene from campaign_jobs k join campaigns c on c.id = k.campaign_id
     join campaign_titles t on t.campaign_id = k.campaign_id and t.place = k.place where k.job_id = $1 and c.deleted_at is null`,
    { bind: [jobId], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

/** Cool-down between runs that the newest heat sweep on every rig measured, minutes. */
export async function coolDowns(rigIds: string[]): Promise<Map<string, number>> {
  const rows = await store().query<{ rigId: string; minutes: number }>(
    `select distinct on (j.rig_id) j.rig_id as "rigId", (t.outcome ->> 'coolDownMinutes')::double precision as minutes
     from trials t join jobs j on j.id = t.job_id where j.rig_id = any($1::uuid[]) and t.kind = 'heat' and t.outcome ? 'coolDownMinutes' and t.deleted_at is null
     order by j.rig_id, t.decided_at desc`,
    { bind: [rigIds], type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ rigId, minutes }) => [rigId, minutes]));
}

/** What an engine was found to be able to. */
export interface AbilityRow {
  engineId: string;
  ability: string;
  able: boolean;
  note: string;
  checkedBy: string;
  checkedAt: string;
}

export async function listAbilities(): Promise<AbilityRow[]> {
  return store().query<AbilityRow & object>(
    `select engine_id as "engineId", ability, able, note, checked_by as "checkedBy", checked_at as "checkedAt" from engine_abilities order by lower(ability), engine_id`,
    { type: QueryTypes.SELECT },
  );
}

/** Puts down what an engine can or can't; null forgets it. */
export async function putAbility({
  engineId,
  ability,
  able,
  note,
  checkedBy,
}: Omit<AbilityRow, "checkedAt" | "able"> & { able: boolean | null }): Promise<void> {
  if (able === null)
    await store().query(`delete from engine_abilities where engine_id = $1 and ability = $2`, {
      bind: [engineId, ability],
    });
  else
    await store().query(
      `insert into engine_abilities (engine_id, ability, able, note, checked_by) values ($1, $2, $3, $4, $5)
       on conflict (engine_id, ability) do update set able = excluded.able, note = excluded.note, checked_by = excluded.checked_by, checked_at = now()`,
      { bind: [engineId, ability, able, note, checkedBy] },
    );
}
