import { QueryTypes } from "sequelize";
import type { DeedChange } from "./deeds";
import { store } from "./models";

const run = async (statement: string, bind: unknown[]) => store().query(statement, { bind });

/** What the deed under way has changed so far, the last first; nothing where none is. */
export const changesSoFar = async (): Promise<DeedChange[]> =>
  store().query<DeedChange & object>(
    `select nr::text, tbl as "table", before, after from deed_rows r
     where deed_id = nullif(current_setting('lamp.deed', true), '')::uuid order by r.nr desc`,
    { type: QueryTypes.SELECT },
  );

/** Notes that runs of these trials were mended: their decisions are to be looked at again. */
export async function markMended(trialIds: string[]): Promise<void> {
  if (trialIds.length > 0)
    await run(`update trials set mended_at = now() where id = any($1::uuid[])`, [trialIds]);
}

/** Puts runs into a job under its next numbers, out of any trial; on another rig they are of its newest revision. */
export async function putRunsInto(
  ids: string[],
  jobId: string,
  of: { rigRevisionId: string | null; buildId: string | null },
): Promise<void> {
  await run(
    `update runs r set job_id = $2, trial_id = null, arm = null, rig_revision_id = coalesce($3::uuid, r.rig_revision_id), build_id = coalesce($4::uuid, r.build_id),
       number = (select coalesce(max(number), 0) from runs where job_id = $2) + o.nr
     from (select id, row_number() over (order by made_at, number) as nr from runs where id = any($1::uuid[])) o where o.id = r.id`,
    [ids, jobId, of.rigRevisionId, of.buildId],
  );
}

export const putScene = async (ids: string[], scene: string) =>
  run(`update runs set scene = $2 where id = any($1::uuid[]) and scene <> $2`, [ids, scene]);

/** Makes a job one of another title, rig or build; its runs follow where they were of what it was. */
export async function putJobOf(
  id: string,
  was: { rigId: string; buildId: string },
  now: { rigId: string; titleId: string; buildId: string; rigRevisionId: string },
): Promise<void> {
  await run(`update jobs set rig_id = $2, title_id = $3, build_id = $4 where id = $1`, [
    id,
    now.rigId,
    now.titleId,
    now.buildId,
  ]);
  if (now.rigId !== was.rigId)
    await run(`update runs set rig_revision_id = $2 where job_id = $1`, [id, now.rigRevisionId]);
  if (now.buildId !== was.buildId)
    await run(`update runs set build_id = $3 where job_id = $1 and build_id = $2`, [
      id,
      was.buildId,
      now.buildId,
    ]);
}

/** Sets again what stood before a job's decisions landed, wherever what they set still stands. */
export async function takeLandedBack(jobId: string, actor: string): Promise<void> {
  const place = `rig_id, engine_id, layer, system_id, title_id, build_id, key`;
  const same = place
    .split(", ")
    .map((column) => `p.${column} is not distinct from v.${column}`)
    .join(" and ");
  await run(
    `insert into profile_values (rig_id, engine_id, layer, system_id, title_id, build_id, key, value, origin, measured_on, actor, at)
     select v.rig_id, v.engine_id, v.layer, v.system_id, v.title_id, v.build_id, v.key, b.value, coalesce(b.origin, '{"kind": "by hand"}'), b.measured_on, $2, now()
     from (select distinct on (${place}) * from profile_values where (rig_id, engine_id) in
             (select rig_id, engine_id from profile_values where origin ->> 'kind' = 'trial' and origin ->> 'jobId' = $1)
           order by ${place}, id desc) v
     left join lateral (select * from profile_values p where ${same} and p.id < v.id and not (p.origin ->> 'kind' = 'trial' and p.origin ->> 'jobId' = $1) order by p.id desc limit 1) b on true
     where v.value is not null and v.origin ->> 'kind' = 'trial' and v.origin ->> 'jobId' = $1`,
    [jobId, actor],
  );
}

export const mergeable = ["title", "system", "rig", "engine"] as const;
export type Mergeable = (typeof mergeable)[number];

/** What would move with a merge, counted; and what stands in its way. */
export interface MergeFacts {
  moves: { what: string; count: number }[];
  against: string[];
}

const counts: Record<Mergeable, [what: string, statement: string][]> = {
  title: [
    ["job", "select count(*) from jobs where title_id = $1"],
    ["run", "select count(*) from runs r join jobs j on j.id = r.job_id where j.title_id = $1"],
    ["campaign", "select count(*) from campaign_titles where title_id = $1"],
    ["value of profiles", "select count(*) from profile_values where title_id = $1"],
    [
      "scene that the other hasn't",
      "select count(*) from scenes s where s.title_id = $1 and not exists (select 1 from scenes o where o.title_id = $2 and lower(o.name) = lower(s.name))",
    ],
  ],
  system: [
    ["title", "select count(*) from titles where system_id = $1"],
    ["engine that runs it", "select count(*) from engine_systems where system_id = $1"],
    ["value of profiles", "select count(*) from profile_values where system_id = $1"],
  ],
  rig: [
    ["job", "select count(*) from jobs where rig_id = $1"],
    ["run", "select count(*) from runs r join jobs j on j.id = r.job_id where j.rig_id = $1"],
    ["revision", "select count(*) from rig_revisions where rig_id = $1"],
    ["campaign's job", "select count(*) from campaign_jobs where rig_id = $1"],
    ["value of profiles", "select count(*) from profile_values where rig_id = $1"],
  ],
  engine: [
    ["build", "select count(*) from builds where engine_id = $1"],
    ["job", "select count(*) from jobs j join builds b on b.id = j.build_id where b.engine_id = $1"],
    ["value of profiles", "select count(*) from profile_values where engine_id = $1"],
    [
      "setting that the other hasn't",
      "select count(*) from settings s where s.engine_id = $1 and not exists (select 1 from settings o where o.engine_id = $2 and o.key = s.key)",
    ],
  ],
};

/** What a merge would move. @param from goes; @param into stays */
export async function mergeFacts(what: Mergeable, from: string, into: string): Promise<MergeFacts> {
  const moves: MergeFacts["moves"] = [];
  for (const [name, statement] of counts[what]) {
    const bind = statement.includes("$2") ? [from, into] : [from];
    const [row] = await store().query<{ count: string }>(statement, { bind, type: QueryTypes.SELECT });
    moves.push({ what: name, count: Number(row?.count ?? 0) });
  }
  const twins =
    what === "system"
      ? await store().query<{ name: string }>(
          `select t.name from titles t join titles o on lower(o.name) = lower(t.name) and lower(o.region) = lower(t.region) and o.system_id = $2 where t.system_id = $1 order by 1 limit 20`,
          { bind: [from, into], type: QueryTypes.SELECT },
        )
      : [];
  return { moves, against: twins.map(({ name }) => name) };
}

const steps: Record<Mergeable, string[]> = {
  title: [
    `update jobs set title_id = $2 where title_id = $1`,
    `update campaign_titles c set title_id = $2 where title_id = $1
       and not exists (select 1 from campaign_titles o where o.campaign_id = c.campaign_id and o.title_id = $2 and o.scene = c.scene)`,
    `update profile_values set title_id = $2 where title_id = $1`,
    `insert into scenes (title_id, position, name, how, seconds, worst, fps)
       select $2, (select coalesce(max(position), -1) from scenes where title_id = $2) + row_number() over (order by s.position), s.name, s.how, s.seconds, false, s.fps
       from scenes s where s.title_id = $1 and not exists (select 1 from scenes o where o.title_id = $2 and lower(o.name) = lower(s.name))`,
    `update titles set retired_at = now() where id = $1 and retired_at is null and $2::uuid is not null`,
  ],
  system: [
    `update titles set system_id = $2 where system_id = $1`,
    `insert into engine_systems (engine_id, system_id) select engine_id, $2 from engine_systems where system_id = $1 on conflict do nothing`,
    `delete from engine_systems where system_id = $1 and $2::uuid is not null`,
    `update profile_values set system_id = $2 where system_id = $1`,
    `delete from systems where id = $1 and $2::uuid is not null`,
  ],
  rig: [
    `update jobs set rig_id = $2 where rig_id = $1`,
    // The revisions that move come before those that are there: what stays keeps its newest description.
    `update rig_revisions set number = number + 1000000 where rig_id = $2 and $1::uuid is not null`,
    `update rig_revisions set rig_id = $2 where rig_id = $1`,
    `update rig_revisions r set number = o.nr from (select id, row_number() over (order by number) as nr from rig_revisions where rig_id = $2 and $1::uuid is not null) o where o.id = r.id`,
    `update campaign_jobs set rig_id = $2 where rig_id = $1`,
    `update campaigns set plan = replace(plan::text, $1::uuid::text, $2::uuid::text)::jsonb where plan::text like '%' || $1::uuid::text || '%'`,
    `update profile_values set rig_id = $2 where rig_id = $1`,
    `update bench_state set rig_id = $2 where rig_id = $1`,
    `delete from bench_rigs where rig_id = $1 and $2::uuid is not null`,
    // A rig has a description: the one that goes keeps the newest of the one that stays.
    `insert into rig_revisions (rig_id, number, note, spec) select $1, 1, 'merged into another rig', spec from rig_revisions where rig_id = $2 order by number desc limit 1`,
    `update rigs set retired_at = now() where id = $1 and retired_at is null and $2::uuid is not null`,
  ],
  engine: [
    ...(["runs", "jobs", "profile_values"] as const).map(
      (table) =>
        `update ${table} t set build_id = o.id from builds b join builds o on o.engine_id = $2 and o.version = b.version and o.branch = b.branch
         where b.engine_id = $1 and t.build_id = b.id`,
    ),
    `delete from builds b where b.engine_id = $1 and exists (select 1 from builds o where o.engine_id = $2 and o.version = b.version and o.branch = b.branch)`,
    `update builds set engine_id = $2 where engine_id = $1 and not exists (select 1 from builds o where o.engine_id = $2 and o.version = builds.version and o.branch = builds.branch)`,
    `update profile_values set engine_id = $2 where engine_id = $1`,
    `insert into settings (engine_id, position, key, definition)
       select $2, (select coalesce(max(position), -1) from settings where engine_id = $2) + row_number() over (order by s.position), s.key, s.definition
       from settings s where s.engine_id = $1 and not exists (select 1 from settings o where o.engine_id = $2 and o.key = s.key)`,
    `insert into engine_systems (engine_id, system_id) select $2, system_id from engine_systems where engine_id = $1 on conflict do nothing`,
    `insert into engine_abilities (engine_id, ability, able, note, checked_by, checked_at)
       select $2, ability, able, note, checked_by, checked_at from engine_abilities where engine_id = $1 on conflict do nothing`,
    `delete from engines where id = $1 and $2::uuid is not null and not exists (select 1 from builds where engine_id = $1)`,
  ],
};

/** Merges one thing into another of its kind: what belonged to the first belongs to the second. */
export async function mergeInto(what: Mergeable, from: string, into: string): Promise<void> {
  if (what === "engine") {
    const doubles = await store().query<{ gone: string; stays: string }>(
      `select b.id as gone, o.id as stays from builds b join builds o on o.engine_id = $2 and o.version = b.version and o.branch = b.branch where b.engine_id = $1`,
      { bind: [from, into], type: QueryTypes.SELECT },
    );
    for (const { gone, stays } of doubles)
      await run(
        `update campaigns set plan = replace(plan::text, $1::text, $2::text)::jsonb where plan::text like '%' || $1::text || '%'`,
        [gone, stays],
      );
  }
  for (const statement of steps[what]) await run(statement, [from, into]);
}

/** Keeps the log that a run was read from, packed; once. */
export async function putRunFile(runId: string, name: string, bytes: Buffer): Promise<void> {
  await run(`insert into run_files (run_id, name, bytes) values ($1, $2, $3) on conflict (run_id) do nothing`, [
    runId,
    name,
    bytes,
  ]);
}

export async function findRunFile(runId: string): Promise<{ name: string; bytes: Buffer } | null> {
  const [row] = await store().query<{ name: string; bytes: Buffer }>(
    `select name, bytes from run_files where run_id = $1`,
    { bind: [runId], type: QueryTypes.SELECT },
  );
  return row ?? null;
}

/** Another run with everything that is said about one, open and without a trace. @returns its id */
export async function openRunLike(
  id: string,
  { form, skippedRows }: { form: string; skippedRows: number },
): Promise<string> {
  const said = `job_id, rig_revision_id, build_id, source, label, file_name, made_at, settings, conditions, rules, yardstick, cache_state,
    preflight, notes, trial_id, arm, file_hash, scene, tags, capture, overruled, from_memory`;
  const [row] = await store().query<{ id: string }>(
    `insert into runs (${said}, number, form, skipped_rows, state)
     select ${said}, (select max(number) + 1 from runs o where o.job_id = r.job_id), $2, $3, 'open' from runs r where r.id = $1 returning id`,
    { bind: [id, form, skippedRows], type: QueryTypes.SELECT },
  );
  return row?.id ?? "";
}

/** Puts a run in another's place: under its number, with its faults, stills and file; the other is left out. */
export async function putInPlaceOf(old: string, made: string): Promise<void> {
  const [numbers] = await store().query<{ old: number; made: number }>(
    `select (select number from runs where id = $1) as old, (select number from runs where id = $2) as made`,
    { bind: [old, made], type: QueryTypes.SELECT },
  );
  if (!numbers) return;
  await run(`update runs set number = number + 1000000, deleted_at = now() where id = $1`, [old]);
  await run(`update runs set number = $2 where id = $1`, [made, numbers.old]);
  await run(`update runs set number = $2 where id = $1`, [old, numbers.made]);
  await run(`update faults set run_id = $2 where run_id = $1`, [old, made]);
  await run(`update stills set run_id = $2 where run_id = $1`, [old, made]);
  await run(
    `insert into run_files (run_id, name, bytes) select $2, name, bytes from run_files where run_id = $1 on conflict do nothing`,
    [old, made],
  );
}
