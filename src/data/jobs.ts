import { QueryTypes } from "sequelize";
import type { NewJob } from "@/core/kit";
import type { Standing } from "@/core/profile";
import type { JobClosing, JobListRow, JobRow } from "@/core/records";
import { cursorOf, keyset } from "./cursor";
import { Job, store } from "./models";

const columns = `
  j.id, j.version, j.rig_id as "rigId", r.name as rig, j.title_id as "titleId", t.name as title, s.name as system, t.hardness,
  e.id as "engineId", e.name as engine, b.id as "buildId", b.version as build, j.aim, t.native_fps as "nativeFps", t.tied, j.target_fps as "targetFps",
  h.id as "houseRulesId", h.name as "houseRules", j.strategy, j.created_at as "createdAt", j.closed_at as "closedAt"`;
const joined = `
  from jobs j join rigs r on r.id = j.rig_id join titles t on t.id = j.title_id join systems s on s.id = t.system_id
  join builds b on b.id = j.build_id join engines e on e.id = b.engine_id join house_rules h on h.id = j.house_rules_id`;

export async function addJob(job: NewJob): Promise<string> {
  store();
  return (await Job.create(job)).id;
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

/** Jobs with their newest run's light, the last worked on first. */
export async function listJobs({
  search = "",
  limit = 50,
  cursor = "",
}: { search?: string; limit?: number; cursor?: string } = {}): Promise<{
  rows: JobListRow[];
  total: number;
  next: string | null;
}> {
  const where = `where ($1 = '' or concat_ws(' ', r.name, t.name, s.name, e.name) ilike '%' || $1 || '%')`;
  const term = search.replace(/[%_\\]/g, "\\$&");
  const after = keyset(cursor);
  const rows = await store().query<JobListRow & { worked: string }>(
    `select * from (
       select ${columns}, coalesce(n.runs, 0)::int as runs, l.made_at as "lastRunAt", l.grade, l.average_fps as "averageFps",
         to_char(greatest(j.created_at, l.made_at) at time zone 'UTC', 'YYYY-MM-DD HH24:MI:SS.US') as worked
       ${joined}
       left join lateral (select count(*) as runs from runs where job_id = j.id and deleted_at is null) n on true
       left join lateral (
         select u.made_at, m.grade, m.average_fps from runs u join run_summaries m on m.run_id = u.id
         where u.job_id = j.id and u.deleted_at is null order by u.number desc limit 1) l on true
       ${where}) as listed
     where $3::text is null or (worked, id::text) < ($3, $4) order by worked desc, id::text desc limit $2`,
    { bind: [term, limit + 1, after?.value ?? null, after?.id ?? null], type: QueryTypes.SELECT },
  );
  const [counted] = await store().query<{ total: number }>(`select count(*)::int as total ${joined} ${where}`, {
    bind: [term],
    type: QueryTypes.SELECT,
  });
  const last = rows.length > limit ? rows[limit - 1] : undefined;
  return {
    rows: rows.slice(0, limit).map(({ worked: _worked, ...row }) => row),
    total: counted?.total ?? 0,
    next: last ? cursorOf(last.worked, last.id) : null,
  };
}

/** Closes a job with what it came to, or opens it again. */
export async function putClosing(id: string, closing: JobClosing | null, at: Date = new Date()): Promise<void> {
  store();
  await Job.update({ closing, closedAt: closing ? at : null }, { where: { id } });
}

export async function putStrategy(id: string, strategy: NewJob["strategy"]): Promise<void> {
  store();
  await Job.update({ strategy }, { where: { id } });
}

/** Puts down what a job begins from. */
export async function putBaseline(id: string, baseline: Standing): Promise<void> {
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
