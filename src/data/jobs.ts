import { QueryTypes } from "sequelize";
import type { NewJob } from "@/core/kit";
import type { Holding } from "@/core/job";
import type { Standing } from "@/core/profile";
import type { JobClosing, JobListRow, JobRow } from "@/core/records";
import { cursorOf, keyset } from "@/core/schema";
import { Job, store } from "./models";

const columns = `
  j.id, j.version, j.rig_id as "rigId", r.name as rig, j.title_id as "titleId", t.name as title, s.name as system, t.hardness,
  e.id as "engineId", e.name as engine, b.id as "buildId", b.version as build, j.aim, t.native_fps as "nativeFps", t.tied, (select jsonb_object_agg(z.name, z.fps) from scenes z where z.title_id = t.id and z.fps is not null) as "sceneFps", j.target_fps as "targetFps",
  h.id as "houseRulesId", h.name as "houseRules", j.strategy, j.created_at as "createdAt", j.closed_at as "closedAt", j.deleted_at as "deletedAt"`;
const joined = `
  from jobs j join rigs r on r.id = j.rig_id join titles t on t.id = j.title_id join systems s on s.id = t.system_id
  join builds b on b.id = j.build_id join engines e on e.id = b.engine_id join house_rules h on h.id = j.house_rules_id`;

export async function addJob(job: NewJob, createdAt: Date = new Date()): Promise<string> {
  store();
  return (await Job.create({ ...job, createdAt: createdAt.toISOString() })).id;
}

/** The newest job of the same that isn't closed; null where there is none. */
export async function openJobOf(
  of: Pick<NewJob, "rigId" | "titleId" | "buildId" | "houseRulesId" | "targetFps">,
): Promise<string | null> {
  store();
  const found = await Job.findOne({
    where: { ...of, closedAt: null, deletedAt: null },
    order: [["createdAt", "DESC"]],
    attributes: ["id"],
  });
  return found?.id ?? null;
}

export async function findJob(id: string): Promise<JobRow | null> {
  const rows = await store().query<JobRow & object>(
    `select ${columns}, j.closing, j.baseline, h.rules ${joined} where j.id = $1`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

const states = {
  "": "j.deleted_at is null",
  open: "j.deleted_at is null and j.closed_at is null",
  closed: "j.deleted_at is null and j.closed_at is not null",
  "left out": "j.deleted_at is not null",
};
const moment = (of: string) => `to_char(${of} at time zone 'UTC', 'YYYY-MM-DD HH24:MI:SS.US')`;
/** What a list is sorted by, as text, and which way. */
const orders = {
  worked: { by: moment("greatest(j.created_at, l.made_at)"), descending: true },
  opened: { by: moment("j.created_at"), descending: true },
  title: { by: `lower(t.name) || ' ' || ${moment("j.created_at")}`, descending: false },
  rig: { by: `lower(r.name) || ' ' || lower(t.name)`, descending: false },
};

/** Jobs with the light of the run that tells how each stands, else of its newest, the last worked on first unless asked otherwise. */
export async function listJobs({
  search = "",
  filter = "",
  sort = "worked",
  limit = 50,
  cursor = "",
}: {
  search?: string;
  filter?: keyof typeof states;
  sort?: keyof typeof orders;
  limit?: number;
  cursor?: string;
} = {}): Promise<{
  rows: JobListRow[];
  total: number;
  next: string | null;
}> {
  const where = `where ${states[filter]} and ($1 = '' or concat_ws(' ', r.name, t.name, s.name, e.name) ilike '%' || $1 || '%')`;
  const term = search.replace(/[%_\\]/g, "\\$&");
  const after = keyset(cursor);
  const { by, descending } = orders[sort];
  const way = descending ? "desc" : "asc";
  const rows = await store().query<JobListRow & { key: string }>(
    `select * from (
       select ${columns}, coalesce(n.runs, 0)::int as runs, l.made_at as "lastRunAt", w.grade, w.between, w.average_fps as "averageFps",
         (${by}) collate "C" as key
       ${joined}
       left join lateral (select count(*) as runs from runs where job_id = j.id and deleted_at is null) n on true
       left join lateral (
         select u.made_at from runs u where u.job_id = j.id and u.deleted_at is null order by u.number desc limit 1) l on true
       left join job_holds o on o.job_id = j.id
       left join lateral (
         select m.grade, m.verdict -> 'between' as between, m.average_fps from runs u join run_summaries m on m.run_id = u.id
         where u.job_id = j.id and u.deleted_at is null order by u.id is not distinct from o.run_id desc, u.number desc limit 1) w on true
       ${where}) as listed
     where $3::text is null or (key, id::text) ${descending ? "<" : ">"} ($3, $4) order by key ${way}, id::text ${way} limit $2`,
    { bind: [term, limit + 1, after?.value ?? null, after?.id ?? null], type: QueryTypes.SELECT },
  );
  const [counted] = await store().query<{ total: number }>(`select count(*)::int as total ${joined} ${where}`, {
    bind: [term],
    type: QueryTypes.SELECT,
  });
  const last = rows.length > limit ? rows[limit - 1] : undefined;
  return {
    rows: rows.slice(0, limit).map(({ key: _key, ...row }) => row),
    total: counted?.total ?? 0,
    next: last ? cursorOf(last.key, last.id) : null,
  };
}

/** Closes a job with what it came to, or opens it again. */
export async function putClosing(id: string, closing: JobClosing | null, at: Date = new Date()): Promise<void> {
  store();
  await Job.update({ closing, closedAt: closing ? at.toISOString() : null }, { where: { id } });
}

/** Changes what a job is made from, or hides it and brings it back: nothing that was measured is destroyed. */
export async function putJob(
  id: string,
  { deleted, ...changed }: Partial<NewJob> & { deleted?: boolean },
): Promise<void> {
  store();
  const hidden = deleted === undefined ? {} : { deletedAt: deleted ? new Date().toISOString() : null };
  await Job.update({ ...changed, ...hidden }, { where: { id } });
}

/** Puts down what a job begins from. */
export async function putBaseline(id: string, baseline: Standing | null): Promise<void> {
  store();
  await Job.update({ baseline }, { where: { id } });
}

/** Whether a job has begun: a trial was planned, or a run that isn't left out stands outside any. */
export async function hasBegun(id: string): Promise<boolean> {
  const [found] = await store().query<{ begun: boolean }>(
    `select exists (select 1 from trials where job_id = $1 and deleted_at is null)
       or exists (select 1 from runs where job_id = $1 and trial_id is null and deleted_at is null) as begun`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return found?.begun ?? false;
}

/** Keeps what holds in a job, and which run tells how it stands; null where its newest one does. */
export async function putHolds(
  jobId: string,
  { settings, conditions, targetFps, runId }: Holding & { runId: string | null },
): Promise<void> {
  await store().query(
    `insert into job_holds (job_id, run_id, settings, conditions, target) values ($1, $2, $3, $4, $5)
     on conflict (job_id) do update set run_id = excluded.run_id, settings = excluded.settings, conditions = excluded.conditions, target = excluded.target`,
    { bind: [jobId, runId, JSON.stringify(settings), JSON.stringify(conditions), targetFps] },
  );
}

/** Jobs of which what holds isn't kept, so many of them, and how many there are beyond. */
export async function jobsWithoutHolds(most: number): Promise<{ ids: string[]; left: number }> {
  const rows = await store().query<{ id: string; all: number }>(
    `select j.id, count(*) over ()::int as all from jobs j where not exists (select 1 from job_holds h where h.job_id = j.id) limit $1`,
    { bind: [most], type: QueryTypes.SELECT },
  );
  return { ids: rows.map(({ id }) => id), left: Math.max(0, (rows[0]?.all ?? 0) - rows.length) };
}

/** Has what holds in a rig's jobs kept anew: its drivers may be others. */
export async function forgetHolds(rigId: string): Promise<void> {
  await store().query(`delete from job_holds h using jobs j where j.id = h.job_id and j.rig_id = $1`, {
    bind: [rigId],
  });
}

/** Jobs of some titles that aren't left out. */
export async function jobsOfTitles(titleIds: string[]): Promise<string[]> {
  if (titleIds.length === 0) return [];
  const rows = await store().query<{ id: string }>(
    `select id from jobs where title_id = any($1::uuid[]) and deleted_at is null order by created_at`,
    { bind: [titleIds], type: QueryTypes.SELECT },
  );
  return rows.map(({ id }) => id);
}
