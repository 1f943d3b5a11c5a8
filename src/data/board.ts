import { QueryTypes } from "sequelize";
import type { BoardAsked, BoardCell, BoardShare, BoardTitle, BoardTitles, BoardView } from "@/core/records";
import { grades, type Grade } from "@/core/verdict";
import { cursorOf, keyset } from "@/core/schema";
import { wilson } from "@/core/stats";
import { store } from "./models";

/** A run with its figures, as a board tells of it; what holds in its job is there as `o`. */
const toldRun = `u.id as run_id, u.number, u.trial_id, u.arm, u.made_at, u.settings, u.conditions, (u.yardstick ->> 'targetFps')::double precision as target, m.grade, m.average_fps
    from runs u join run_summaries m on m.run_id = u.id where u.job_id = j.id and u.deleted_at is null and u.state <> 'open'`;

/** How many places of a run hold, of the summary named so; null where it names fewer than two. */
export const placesHeldIn = (summary: string) =>
  `(select case when count(*) > 1 then jsonb_build_object('hold', count(*) filter (where coalesce(p ->> 'grade', 'steady') in ('steady', 'flickers')), 'of', count(*)) end from jsonb_array_elements(${summary}.verdict -> 'scenes') p)`;

/** Lights by their places, the best first; none is past them all. */
const gradePlace = `coalesce(array_position(array[${grades.map((grade) => `'${grade}'`).join(", ")}], m.grade), ${grades.length + 1})`;

/**
 * The newest work on every title on every rig. Of a closed job its confirmed light speaks, of an open one the
 * newest run that was made under what was decided, and before any decision its newest run outside a trial. Where there is none, as in a campaign, the arm that shone brightest speaks, and
 * of arms as bright the fastest, by its newest run.
 * @param which narrows the jobs
 */
const telling = (which: string) => `
  select distinct on (j.title_id, j.rig_id) j.title_id, j.rig_id, j.id as job_id, l.run_id, l.made_at, l.settings, l.conditions, l.target, l.average_fps, b.engine_id,
    coalesce(j.closing ->> 'grade', l.grade) as grade, j.closed_at is not null as confirmed, coalesce(j.closing -> 'conditions' ->> 'powerMode', l.conditions ->> 'powerMode') as power_mode
  from jobs j join builds b on b.id = j.build_id
  left join job_holds o on o.job_id = j.id
  left join lateral (select ${toldRun} and (u.trial_id is null or u.id = o.run_id) order by u.id is not distinct from o.run_id desc, u.number desc limit 1) own on true
  join lateral (
    select own.* where own.run_id is not null
    union all
    (select run_id, number, trial_id, arm, made_at, settings, conditions, target, grade, average_fps from (
       select avg(${gradePlace}) over arms as light, avg(m.average_fps) over arms as speed, ${toldRun} and own.run_id is null
       window arms as (partition by u.trial_id, u.arm)) by_arm
     order by light, speed desc, number desc limit 1)) l on true
  where j.deleted_at is null ${which}
  order by j.title_id, j.rig_id, l.made_at desc`;

/** How many titles of every system are at which verdict on every rig. */
export async function boardShares(): Promise<BoardShare[]> {
  const rows = await store().query<{ systemId: string; rigId: string; grade: Grade | null; titles: number }>(
    `select t.system_id as "systemId", k.rig_id as "rigId", k.grade, count(*)::int as titles from (${telling("")}) k
     join titles t on t.id = k.title_id where t.retired_at is null and k.grade is not null group by 1, 2, 3`,
    { type: QueryTypes.SELECT },
  );
  const shares = new Map<string, Omit<BoardShare, "holds">>();
  for (const { systemId, rigId, grade, titles } of rows) {
    const key = `${systemId} ${rigId}`;
    const share = shares.get(key) ?? { systemId, rigId, grades: {} };
    if (grade) share.grades[grade] = titles;
    shares.set(key, share);
  }
  return [...shares.values()].map((share) => {
    const judged = Object.values(share.grades).reduce((sum, each) => sum + each, 0);
    return { ...share, holds: wilson(share.grades.steady ?? 0, judged) };
  });
}

/** Titles in a page, at most. */
const pageTitles = 200;

/** Titles by system and name with how each fares on every rig, a page. */
export async function boardTitles({ search, system, hardness, cursor }: BoardAsked): Promise<BoardTitles> {
  const after = keyset(cursor);
  const where = `t.retired_at is null and ($1 = '' or concat_ws(' ', t.name, s.name) ilike '%' || $1 || '%') and ($2 = '' or s.id::text = $2) and ($3 = '' or t.hardness = $3)`;
  const key = `lower(s.name) || ' ' || lower(t.name)`;
  const bind = [search.replace(/[%_\\]/g, "\\$&"), system, hardness];
  const [titles, [counted]] = await Promise.all([
    store().query<Omit<BoardTitle, "cells"> & { key: string }>(
      `select t.id, t.name, s.name as system, s.id as "systemId", t.hardness, (${key}) collate "C" as key from titles t join systems s on s.id = t.system_id
       where ${where} and ($4::text is null or ((${key}) collate "C", t.id::text) > ($4, $5)) order by key, t.id::text limit ${pageTitles + 1}`,
      { bind: [...bind, after?.value ?? null, after?.id ?? null], type: QueryTypes.SELECT },
    ),
    store().query<{ total: number }>(
      `select count(*)::int as total from titles t join systems s on s.id = t.system_id where ${where}`,
      { bind, type: QueryTypes.SELECT },
    ),
  ]);
  const shown = titles.slice(0, pageTitles);
  const last = titles.length > pageTitles ? shown.at(-1) : undefined;
  return {
    rows: await withCells(shown.map(({ key: _key, ...title }) => title)),
    total: counted?.total ?? 0,
    next: last ? cursorOf(last.key, last.id) : null,
  };
}

/**
 * How some titles fare, on every rig that they were run on.
 * @param only a rig and an engine: the newest work with them, whatever was done with others since
 */
async function boardCells(
  titleIds: string[],
  only: { rigId: string; engineId: string } | null = null,
): Promise<BoardCell[]> {
  const which = only ? "and j.rig_id = $2 and b.engine_id = $3" : "";
  return store().query<BoardCell & object>(
    `select k.title_id as "titleId", k.rig_id as "rigId", k.job_id as "jobId", k.run_id as "runId", k.grade, k.average_fps as "averageFps", k.target as "targetFps", k.power_mode as "powerMode", k.confirmed, k.made_at as at,
       (select case when jsonb_typeof(k.settings -> s.key) = 'number' then (k.settings ->> s.key)::double precision end
        from settings s where s.engine_id = k.engine_id and s.definition ->> 'purpose' = 'scale' order by s.position limit 1) as scale,
       (select count(*)::int from runs u where u.job_id = k.job_id and u.deleted_at is null and u.state = 'whole') as runs,
       (select u.overruled from runs u where u.id = k.run_id) as overruled,
       (select s.verdict -> 'between' from run_summaries s where s.run_id = k.run_id and s.grade = k.grade) as between,
       (select ${placesHeldIn("s")} from run_summaries s where s.run_id = k.run_id) as places
     from (${telling(`and j.title_id = any($1::uuid[]) ${which}`)}) k`,
    { bind: [titleIds, ...(only ? [only.rigId, only.engineId] : [])], type: QueryTypes.SELECT },
  );
}

/** How a title fares on a rig with an engine, by the run that tells; null where none does. */
export async function cellOf(
  titleId: string,
  where: { rigId: string; engineId: string },
): Promise<BoardCell | null> {
  const [cell] = await boardCells([titleId], where);
  return cell ?? null;
}

/** Titles with how each fares. */
async function withCells(titles: Omit<BoardTitle, "cells">[]): Promise<BoardTitle[]> {
  const byTitle = new Map<string, BoardCell[]>();
  for (const cell of await boardCells(titles.map(({ id }) => id)))
    byTitle.set(cell.titleId, [...(byTitle.get(cell.titleId) ?? []), cell]);
  return titles.map((title) => ({ ...title, cells: byTitle.get(title.id) ?? [] }));
}

/** Titles of a whole board, at most: what is handed on is read by people. */
const mostPublished = 5000;

/** Every title that was run on a rig, or on any where none is named, with how it fares. */
export async function wholeBoard(rigId: string): Promise<BoardTitle[]> {
  const titles = await store().query<Omit<BoardTitle, "cells"> & object>(
    `select t.id, t.name, s.name as system, s.id as "systemId", t.hardness from titles t join systems s on s.id = t.system_id
     where t.retired_at is null and exists (select 1 from jobs j where j.title_id = t.id and j.deleted_at is null and ($1 = '' or j.rig_id::text = $1))
     order by lower(s.name), lower(t.name), t.id limit ${mostPublished}`,
    { bind: [rigId], type: QueryTypes.SELECT },
  );
  return withCells(titles);
}

/** Rigs that anything was run on, and systems with how many titles each has in use. */
export async function boardFrame(): Promise<Pick<BoardView, "rigs" | "systems">> {
  const [rigs, systems] = await Promise.all([
    store().query<{ id: string; name: string; used: boolean }>(
      `select id, name, exists (select 1 from jobs where rig_id = r.id and deleted_at is null) as used from rigs r where retired_at is null order by name limit 400`,
      { type: QueryTypes.SELECT },
    ),
    store().query<BoardView["systems"][number] & object>(
      `select s.id, s.name, count(t.id)::int as titles from systems s left join titles t on t.system_id = s.id and t.retired_at is null group by s.id, s.name order by s.name`,
      { type: QueryTypes.SELECT },
    ),
  ]);
  const used = rigs.filter((rig) => rig.used);
  const shown = used.length > 0 ? used : rigs;
  return { rigs: shown.map(({ id, name }) => ({ id, name })), systems };
}
