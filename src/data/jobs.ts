import { QueryTypes } from "sequelize";
import type { NewJob } from "@/core/kit";
import type { JobClosing, JobListRow, JobRow } from "@/core/records";
import { Job, store } from "./models";

const columns = `
  j.id, j.rig_id as "rigId", r.name as rig, j.title_id as "titleId", t.name as title, s.name as system, t.hardness,
  e.id as "engineId", e.name as engine, b.id as "buildId", b.version, j.aim, t.native_fps as "nativeFps", t.tied, j.target_fps as "targetFps",
  h.id as "houseRulesId", h.name as "houseRules", j.strategy, j.created_at as "createdAt", j.closed_at as "closedAt", j.closing`;
const joined = `
  from jobs j join rigs r on r.id = j.rig_id join titles t on t.id = j.title_id join systems s on s.id = t.system_id
  join builds b on b.id = j.build_id join engines e on e.id = b.engine_id join house_rules h on h.id = j.house_rules_id`;

export async function addJob(job: NewJob): Promise<string> {
  store();
  return (await Job.create(job)).id;
}

export async function findJob(id: string): Promise<JobRow | null> {
  const rows = await store().query<JobRow & object>(`select ${columns}, h.rules ${joined} where j.id = $1`, {
    bind: [id],
    type: QueryTypes.SELECT,
  });
  return rows[0] ?? null;
}

/** Jobs with their newest run's light, the last worked on first. */
export async function listJobs({ search = "", limit = 50, offset = 0 } = {}): Promise<{
  rows: JobListRow[];
  total: number;
}> {
  const where = `where ($1 = '' or concat_ws(' ', r.name, t.name, s.name, e.name) ilike '%' || $1 || '%')`;
  const term = search.replace(/[%_\\]/g, "\\$&");
  const rows = await store().query<JobListRow & object>(
    `select ${columns}, coalesce(n.runs, 0)::int as runs, l.made_at as "lastRunAt", l.grade, l.average_fps as "averageFps"
     ${joined}
     left join lateral (select count(*) as runs from runs where job_id = j.id and deleted_at is null) n on true
     left join lateral (
       select u.made_at, m.grade, m.average_fps from runs u left join run_summaries m on m.run_id = u.id
       where u.job_id = j.id and u.deleted_at is null order by u.number desc limit 1) l on true
     ${where} order by greatest(j.created_at, l.made_at) desc, j.id limit $2 offset $3`,
    { bind: [term, limit, offset], type: QueryTypes.SELECT },
  );
  const [{ total }] = await store().query<{ total: number }>(
    `select count(*)::int as total ${joined} ${where}`,
    { bind: [term], type: QueryTypes.SELECT },
  );
  return { rows, total };
}

/** Closes a job with what it came to, or opens it again. */
export async function putClosing(id: string, closing: JobClosing | null, at: Date = new Date()): Promise<void> {
  store();
  await Job.update({ closing, closedAt: closing ? at : null }, { where: { id } });
}

export async function putStrategy(id: string, strategy: NewJob["strategy"]): Promise<boolean> {
  store();
  const [changed] = await Job.update({ strategy }, { where: { id } });
  return changed > 0;
}
