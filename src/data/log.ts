import { QueryTypes } from "sequelize";
import type { CrashRow, LogAsked, LogRow } from "@/core/records";
import { cursorOf, keyset } from "@/core/schema";
import { store } from "./models";
import { driverOf } from "./rigs";

/** Everything that went wrong: faults as noted, and runs that ended in a crash without one. */
const happened = `
  select f.id as fault_id, f.run_id, f.kind, f.severity, f.scene, f.note, f.workaround, f.at_ms, f.said
  from faults f where f.deleted_at is null
  union all
  select null, u.id, 'crash', 'blocking', u.scene, '', '', null, 'crash blocking ' || lower(u.scene)
  from runs u where u.state = 'crashed' and u.deleted_at is null
    and not exists (select 1 from faults f where f.run_id = u.id and f.kind = 'crash' and f.deleted_at is null)`;

const joined = `
  join runs u on u.id = h.run_id join jobs j on j.id = u.job_id join titles t on t.id = j.title_id join systems s on s.id = t.system_id
  join rigs r on r.id = j.rig_id join builds b on b.id = u.build_id join engines e on e.id = b.engine_id
  join rig_revisions v on v.id = u.rig_revision_id`;

/**
 * Words to be found as they begin, all of them: "ma roo" finds "map room". Nothing of what is typed is read as
 * an operator.
 */
export const prefixQuery = (search: string): string =>
  (search.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [])
    .slice(0, 12)
    .map((word) => `${word}:*`)
    .join(" & ");

/** Runs of the same title with the same engine on the same rig since something was seen last. */
const since = `
  from jobs j2 join runs u2 on u2.job_id = j2.id join builds b2 on b2.id = u2.build_id
  where j2.title_id = x.title_id and j2.rig_id = x.rig_id and j2.deleted_at is null and b2.engine_id = x.engine_id
    and u2.deleted_at is null and u2.state <> 'open' and u2.made_at > g.last_at`;
const whether = {
  "": "",
  still: `and not exists (select 1 ${since})`,
  gone: `and exists (select 1 ${since})`,
};

/** Rows of the log that are shown at once. */
const pageRows = 60;

/**
 * What went wrong, one row for each kind of it at a title with an engine on a rig, the last seen first. Found
 * by the beginnings of words, by title, engine and rig, and where a word is misspelt by its letters (trigrams).
 */
export async function listLog({
  search,
  kind,
  severity,
  rig,
  engine,
  still,
  cursor,
}: LogAsked): Promise<{ rows: LogRow[]; next: string | null }> {
  const after = keyset(cursor);
  const rows = await store().query<LogRow & object>(
    `with told as materialized (
       select h.*, u.made_at, u.number, u.job_id, u.build_id, b.version as build, b.engine_id, e.name as engine, j.title_id, t.name as title, s.name as system, j.rig_id, r.name as rig,
         ${driverOf} as driver,
         md5(concat_ws('|', j.title_id, b.engine_id, j.rig_id, h.kind, lower(h.scene), lower(h.note))) as key
       from (${happened}) h ${joined}
       where u.deleted_at is null and j.deleted_at is null and ($1 = '' or h.kind = $1) and ($2 = '' or h.severity = $2)
         and ($3 = '' or j.rig_id::text = $3) and ($4 = '' or b.engine_id::text = $4)
         and ($5 = '' or ($6 <> '' and to_tsvector('simple', h.said || ' ' || lower(t.name || ' ' || e.name || ' ' || r.name)) @@ to_tsquery('simple', $6))
           or h.fault_id in (select id from faults where lower($5) <% said) or (h.fault_id is null and lower($5) <% h.said)
           or t.id in (select id from titles where lower($5) <% lower(name)))
     ), grouped as materialized (
       select key, min(made_at) as first_at, max(made_at) as last_at, count(*)::int as times,
         array_agg(distinct build) as builds, array_agg(distinct driver) filter (where driver <> '') as drivers
       from told group by key
     ), newest as materialized (
       select distinct on (key) * from told order by key, made_at desc
     ), around as materialized (
       select distinct on (title_id, engine_id, kind, lower(note)) title_id, engine_id, kind, lower(note) as about, workaround
       from told where workaround <> '' order by title_id, engine_id, kind, lower(note), made_at desc
     ), page as materialized (
       select g.*, x.kind, x.severity, x.scene, x.note, x.title_id, x.title, x.system, x.rig_id, x.rig, x.engine_id, x.engine, x.run_id, x.job_id, x.number, x.at_ms
       from grouped g join newest x on x.key = g.key
       where ($7::text is null or (g.last_at, g.key) < ($7::timestamptz, $8)) ${whether[still]}
       order by g.last_at desc, g.key desc limit ${pageRows + 1}
     )
     select x.key, x.kind, x.severity, x.scene, x.note, coalesce(a.workaround, '') as workaround,
       x.title_id as "titleId", x.title, x.system, x.rig_id as "rigId", x.rig, x.engine_id as "engineId", x.engine, x.builds, coalesce(x.drivers, '{}') as drivers, x.times,
       x.first_at as "firstAt", x.last_at as "lastAt", x.run_id as "runId", x.job_id as "jobId", x.number as run, x.at_ms as "atMs",
       (select count(*)::int ${since.replace("g.last_at", "x.last_at")}) as "runsSince"
     from page x
     left join around a on a.title_id = x.title_id and a.engine_id = x.engine_id and a.kind = x.kind and a.about = lower(x.note)
     order by x.last_at desc, x.key desc`,
    {
      bind: [kind, severity, rig, engine, search, prefixQuery(search), after?.value ?? null, after?.id ?? null],
      type: QueryTypes.SELECT,
    },
  );
  const shown = rows.slice(0, pageRows);
  const last = rows.length > pageRows ? shown.at(-1) : undefined;
  return { rows: shown, next: last ? cursorOf(new Date(last.lastAt).toISOString(), last.key) : null };
}

/** Running time and crashes of every title with a build that ever crashed, or of one engine's all. */
export async function crashCounts(engine: string): Promise<Omit<CrashRow, "perHour" | "low" | "high">[]> {
  return store().query(
    `select j.title_id as "titleId", t.name as title, e.id as "engineId", e.name as engine, b.id as "buildId", b.version as build, count(*)::int as runs,
       (count(*) filter (where u.state = 'crashed'))::int as crashes, coalesce(sum(m.duration_ms), 0) / 3600000 as hours
     from runs u join run_summaries m on m.run_id = u.id join jobs j on j.id = u.job_id join titles t on t.id = j.title_id join builds b on b.id = u.build_id join engines e on e.id = b.engine_id
     where u.deleted_at is null and j.deleted_at is null and u.state <> 'open' and ($1 = '' or e.id::text = $1)
     group by 1, 2, 3, 4, 5, 6 having $1 <> '' or count(*) filter (where u.state = 'crashed') > 0
     order by crashes desc, hours desc, title limit 200`,
    { bind: [engine], type: QueryTypes.SELECT },
  );
}

/** Engines and rigs that something went wrong with. */
export async function logFilters(): Promise<{
  rigs: { id: string; name: string }[];
  engines: { id: string; name: string }[];
}> {
  const [rigs, engines] = await Promise.all(
    [
      `select id, name from rigs r where exists (select 1 from jobs where rig_id = r.id) order by name limit 500`,
      `select id, name from engines order by name limit 500`,
    ].map(async (statement) =>
      store().query<{ id: string; name: string }>(statement, { type: QueryTypes.SELECT }),
    ),
  );
  return { rigs: rigs ?? [], engines: engines ?? [] };
}

export interface BuildRowOf {
  id: string;
  version: string;
  branch: "stable" | "experimental";
  date: string | null;
  engineId: string;
  engine: string;
}

/** Every build of the engine that one belongs to, the oldest first: by date, then by version. */
export async function buildsBeside(buildId: string): Promise<BuildRowOf[]> {
  return store().query<BuildRowOf & object>(
    `select b.id, b.version, b.branch, b.date::text, e.id as "engineId", e.name as engine from builds b join engines e on e.id = b.engine_id
     where b.engine_id = (select engine_id from builds where id::text = $1) order by b.date nulls first, b.version, b.id`,
    { bind: [buildId], type: QueryTypes.SELECT },
  );
}

/** One title on one rig with a build: its newest light, and the faults noted in its runs. */
export interface BuildFare {
  titleId: string;
  title: string;
  rigId: string;
  rig: string;
  buildId: string;
  grade: string | null;
  runs: number;
  faults: string[];
  jobId: string;
}

export async function faresOf(buildIds: string[]): Promise<BuildFare[]> {
  return store().query<BuildFare & object>(
    `select j.title_id as "titleId", t.name as title, j.rig_id as "rigId", r.name as rig, u.build_id as "buildId", count(*)::int as runs,
       (array_agg(m.grade order by u.made_at desc))[1] as grade, (array_agg(j.id::text order by u.made_at desc))[1] as "jobId",
       coalesce((select array_agg(distinct f.kind || case when f.note = '' then '' else ': ' || f.note end) from faults f join runs u2 on u2.id = f.run_id join jobs j2 on j2.id = u2.job_id
         where f.deleted_at is null and u2.deleted_at is null and u2.build_id = u.build_id and j2.title_id = j.title_id and j2.rig_id = j.rig_id), '{}') as faults
     from runs u join run_summaries m on m.run_id = u.id join jobs j on j.id = u.job_id join titles t on t.id = j.title_id join rigs r on r.id = j.rig_id
     where u.build_id = any($1::uuid[]) and u.deleted_at is null and j.deleted_at is null and u.state <> 'open'
     group by j.title_id, t.name, j.rig_id, r.name, u.build_id order by t.name, r.name limit 2000`,
    { bind: [buildIds], type: QueryTypes.SELECT },
  );
}

/** Values of an engine's profiles that hold now and were measured with another build. */
export async function valuesStaleBy(
  engineId: string,
  buildId: string,
): Promise<{ rigId: string; rig: string; values: number }[]> {
  return store().query(
    `select p.rig_id as "rigId", r.name as rig, count(*)::int as values from (
       select distinct on (rig_id, layer, system_id, title_id, build_id, key) rig_id, value, measured_on, build_id from profile_values where engine_id = $1
       order by rig_id, layer, system_id, title_id, build_id, key, id desc) p
     join rigs r on r.id = p.rig_id where p.value is not null and p.measured_on is not null and p.measured_on ->> 'buildId' <> $2 and (p.build_id is null or p.build_id::text = $2)
     group by 1, 2 order by r.name`,
    { bind: [engineId, buildId], type: QueryTypes.SELECT },
  );
}
