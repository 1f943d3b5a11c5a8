import { QueryTypes } from "sequelize";
import type { Settings } from "@/core/kit";
import {
  heldIn,
  heldWithOrigins,
  type HeldValues,
  type LayerValue,
  type ProfileOf,
  type SetValue,
  type StoredValue,
  type ToldWithOrigin,
} from "@/core/profile";
import type { ProfileListRow, TrialRow } from "@/core/records";
import { store } from "./models";
import { driverOf } from "./rigs";
import { together } from "./transact";

/** A profile's place: a rig with an engine. */
export interface ProfilePlace {
  rigId: string;
  engineId: string;
}

const valueColumns = `id::int, layer, system_id as "systemId", title_id as "titleId", build_id as "buildId", key, value, origin,
            measured_on as "measuredOn", at, actor`;

const togetherOf = (columns: string) => `coalesce(json_agg(json_build_array(${columns})), '[]')`;
const told = `id, layer, system_id, title_id, build_id, key, value`,
  toldWithOrigin = `${told}, origin, measured_on, at, actor`;

/** What a row stands in, with the others of its place. */
const places = `rig_id, engine_id, layer, system_id, title_id, build_id, key`;

/** Ids of what was set last in each place. */
const newestOf = (where: string) =>
  `select distinct on (${places}) id from profile_values where ${where} order by ${places}, id desc`;

/** Rows of a place's values until a moment; moments are kept finer than they are asked for. */
const upTo = (nr: number) => `($${nr}::timestamptz is null or date_trunc('milliseconds', at) <= $${nr})`;

interface Standing {
  /** In the layers of this title and its system. */
  only?: Pick<ProfileOf, "systemId" | "titleId">;
  /** As it stood then. */
  until?: Date | null;
}

/** The newest row of every place and key of a profile that says something. */
const standing = `value is not null and id in (${newestOf(
  `rig_id = $1 and engine_id = $2 and ${upTo(3)} and (not $4 or layer = 'rig' or system_id = $5 or title_id = $6)`,
)})`;
const asStanding = ({ rigId, engineId }: ProfilePlace, { only, until = null }: Standing) => ({
  bind: [rigId, engineId, until, only !== undefined, only?.systemId ?? null, only?.titleId ?? null],
  type: QueryTypes.SELECT as const,
});

/** What stands in the layers of an engine on a rig. */
export async function standingValues(place: ProfilePlace, asked: Standing = {}): Promise<HeldValues<SetValue>> {
  const [found] = await store().query<{ held: StoredValue[] }>(
    `select ${togetherOf(told)} as held from profile_values where ${standing}`,
    asStanding(place, asked),
  );
  return heldIn(found?.held ?? []);
}

/** The same with where each came from, and when: as a text (JSON) that is read elsewhere. */
export async function standingAsText(place: ProfilePlace, asked: Standing = {}): Promise<string> {
  const [found] = await store().query<{ held: string }>(
    `select ${togetherOf(toldWithOrigin)}::text as held from profile_values where ${standing}`,
    asStanding(place, asked),
  );
  return found?.held ?? "[]";
}

/** The same, read. */
export const standingWithOrigins = async (place: ProfilePlace, asked: Standing = {}): Promise<HeldValues> =>
  heldWithOrigins(JSON.parse(await standingAsText(place, asked)) as ToldWithOrigin[]);

/** Every value ever set for an engine on a rig, the newest first. */
export async function valuesEverSet(
  { rigId, engineId }: ProfilePlace,
  { most = null, until = null }: { most?: number | null; until?: Date | null } = {},
): Promise<LayerValue[]> {
  return store().query<LayerValue & object>(
    `select ${valueColumns} from profile_values where rig_id = $1 and engine_id = $2 and ${upTo(3)} order by id desc limit $4`,
    { bind: [rigId, engineId, until, most], type: QueryTypes.SELECT },
  );
}

/** The newest change of a profile; 0 where there was none. */
export async function newestValue({ rigId, engineId }: ProfilePlace): Promise<number> {
  const [found] = await store().query<{ id: number }>(
    `select coalesce(max(id), 0)::int as id from profile_values where rig_id = $1 and engine_id = $2`,
    { bind: [rigId, engineId], type: QueryTypes.SELECT },
  );
  return found?.id ?? 0;
}

/** The first change of any of these settings after one that was seen, or null. */
export async function changedSince(
  { rigId, engineId }: ProfilePlace,
  keys: string[],
  saw: number,
): Promise<Pick<LayerValue, "key" | "value"> | null> {
  const [found] = await store().query<Pick<LayerValue, "key" | "value"> & object>(
    `select key, value from profile_values where rig_id = $1 and engine_id = $2 and id > $3 and key = any ($4) order by id limit 1`,
    { bind: [rigId, engineId, saw, keys], type: QueryTypes.SELECT },
  );
  return found ?? null;
}

/** A change, and what stood in its place before it. */
export async function valueAndBefore(
  { rigId, engineId }: ProfilePlace,
  id: number,
): Promise<{ change: LayerValue; before: LayerValue | null } | null> {
  const rows = await store().query<LayerValue & object>(
    `select ${valueColumns} from profile_values v
     where rig_id = $1 and engine_id = $2 and id <= $3
       and exists (select 1 from profile_values c where c.id = $3 and (c.layer, c.key) = (v.layer, v.key)
                     and (c.system_id, c.title_id, c.build_id) is not distinct from (v.system_id, v.title_id, v.build_id))
     order by id desc limit 2`,
    { bind: [rigId, engineId, id], type: QueryTypes.SELECT },
  );
  const [change, before = null] = rows;
  return change?.id === id ? { change, before } : null;
}

/** Every value ever set in a title's own layer, for every build, the oldest first. */
export async function valuesOfTitle({ rigId, engineId }: ProfilePlace, titleId: string): Promise<LayerValue[]> {
  return store().query<LayerValue & object>(
    `select ${valueColumns} from profile_values where rig_id = $1 and engine_id = $2 and title_id = $3 and build_id is null order by id`,
    { bind: [rigId, engineId, titleId], type: QueryTypes.SELECT },
  );
}

/** Writes values down over what was there; nothing is overwritten. */
export async function addLayerValues(
  { rigId, engineId }: ProfilePlace,
  values: (Omit<LayerValue, "id" | "at"> & { at?: string })[],
): Promise<void> {
  await store().query(
    `insert into profile_values (rig_id, engine_id, layer, system_id, title_id, build_id, key, value, origin, measured_on, actor, at)
     select $1, $2, v ->> 'layer', (v ->> 'systemId')::uuid, (v ->> 'titleId')::uuid, (v ->> 'buildId')::uuid, v ->> 'key',
            nullif(v -> 'value', 'null'), v -> 'origin', nullif(v -> 'measuredOn', 'null'), v ->> 'actor', coalesce((v ->> 'at')::timestamptz, now())
     from jsonb_array_elements($3::jsonb) with ordinality as given (v, nr) order by nr`,
    { bind: [rigId, engineId, JSON.stringify(values)] },
  );
}

/** One writer at a time for a rig's profile of an engine, until the transaction is over. */
export async function lockProfile({ rigId, engineId }: ProfilePlace): Promise<void> {
  await store().query(`select pg_advisory_xact_lock(hashtextextended($1, 0))`, {
    bind: [`profile ${rigId} ${engineId}`],
    type: QueryTypes.SELECT,
  });
}

/** A decided trial with what it was measured on. */
export type DecidedOnRig = Omit<TrialRow, "runs"> & {
  titleId: string;
  engineId: string;
  revisionId: string;
  revision: number;
  driver: string;
  setUp: string | null;
  ranBuildId: string;
};

/** Decided trials by the revision and build of the kept arm's newest run, in the order they were decided. */
const decided = (where: string) => `
  select t.id, t.version, t.job_id as "jobId", t.number, t.kind, t.name, t.arms, t.rounds, t.cold, t.plan, t.before, t.created_at as "createdAt",
         t.choice, t.kept_arm as "keptArm", t.reason, t.outcome, t.decided_at as "decidedAt", j.title_id as "titleId", j.rig_id as "rigId", b.engine_id as "engineId",
         u.rig_revision_id as "revisionId", v.number as revision, ${driverOf} as driver,
         u.conditions ->> 'setUp' as "setUp", u.build_id as "ranBuildId"
  from trials t join jobs j on j.id = t.job_id join builds b on b.id = j.build_id
  join lateral (select rig_revision_id, build_id, conditions, settings from runs where trial_id = t.id and deleted_at is null order by (arm is not distinct from t.kept_arm) desc, number desc limit 1) u on true
  join rig_revisions v on v.id = u.rig_revision_id
  where ${where} and t.decided_at is not null and t.deleted_at is null and j.deleted_at is null
  order by t.decided_at, t.id`;

/** Decided trials of an engine on a rig. */
export async function decidedOnRig({ rigId, engineId }: ProfilePlace): Promise<DecidedOnRig[]> {
  return store().query<DecidedOnRig & object>(decided("j.rig_id = $1 and b.engine_id = $2"), {
    bind: [rigId, engineId],
    type: QueryTypes.SELECT,
  });
}

/** What the profiles of one rig, or of every rig, are made of: all of it in three statements. */
export async function profilesWhole(rigId: string | null): Promise<{
  standing: ({ held: HeldValues<SetValue> } & ProfilePlace)[];
  decided: (DecidedOnRig & ProfilePlace)[];
  /** Titles that were worked on there. */
  titles: ({ id: string; name: string; systemId: string } & ProfilePlace)[];
}> {
  const asked = { bind: [rigId], type: QueryTypes.SELECT as const };
  const [standing, trials, titles] = await together(
    async () =>
      store().query<{ held: StoredValue[] } & ProfilePlace>(
        `select rig_id as "rigId", engine_id as "engineId", ${togetherOf(told)} as held
         from profile_values where value is not null and id in (${newestOf("$1::uuid is null or rig_id = $1")}) group by 1, 2`,
        asked,
      ),
    async () =>
      store().query<DecidedOnRig & ProfilePlace & object>(
        decided("($1::uuid is null or j.rig_id = $1)"),
        asked,
      ),
    async () =>
      store().query<{ id: string; name: string; systemId: string } & ProfilePlace>(
        `select distinct j.rig_id as "rigId", b.engine_id as "engineId", t.id, t.name, t.system_id as "systemId"
         from jobs j join builds b on b.id = j.build_id join titles t on t.id = j.title_id
         where ($1::uuid is null or j.rig_id = $1) and j.deleted_at is null and t.retired_at is null`,
        asked,
      ),
  );
  return {
    standing: standing.map(({ held, ...place }) => ({ ...place, held: heldIn(held) })),
    decided: trials,
    titles,
  };
}

/** Notes that what a decision of before there were layers keeps has reached them. */
export async function markLanded(trialId: string): Promise<void> {
  await store().query(`update trials set landed = true where id = $1`, { bind: [trialId] });
}

const toLand = `trials t join jobs j on j.id = t.job_id
  where not t.landed and t.kept_arm is not null and t.decided_at is not null and t.deleted_at is null and j.deleted_at is null`;

/** Decisions that never reached the layers, the earliest first. */
export async function decisionsToLand(most: number): Promise<{ id: string; jobId: string }[]> {
  return store().query(`select t.id, t.job_id as "jobId" from ${toLand} order by t.decided_at, t.id limit $1`, {
    bind: [most],
    type: QueryTypes.SELECT,
  });
}

export async function decisionsToLandCount(): Promise<number> {
  const [found] = await store().query<{ waiting: number }>(`select count(*)::int as waiting from ${toLand}`, {
    type: QueryTypes.SELECT,
  });
  return found?.waiting ?? 0;
}

/**
 * What whole runs of a title with some settings, power mode and clocks came to under each driver of a rig, the
 * newest last.
 */
export async function ratesByDriver({
  rigId,
  titleId,
  buildId,
  settings,
  powerMode,
  clocks,
}: {
  rigId: string;
  titleId: string;
  buildId: string;
  settings: Settings;
  powerMode: string | null;
  clocks: string | null;
}): Promise<{ driver: string; runs: number; averageFps: number }[]> {
  return store().query(
    `select ${driverOf} as driver, count(*)::int as runs, avg((m.summary ->> 'averageFps')::float)::float as "averageFps"
     from runs u join jobs j on j.id = u.job_id join rig_revisions v on v.id = u.rig_revision_id join run_summaries m on m.run_id = u.id
     where j.rig_id = $1 and j.title_id = $2 and u.build_id = $3 and u.settings @> $4::jsonb and u.state = 'whole'
       and u.conditions ->> 'powerMode' is not distinct from $5 and u.conditions ->> 'clocks' is not distinct from $6
       and ${driverOf} <> '' and u.deleted_at is null and j.deleted_at is null
     group by 1 order by max(u.made_at)`,
    {
      bind: [rigId, titleId, buildId, JSON.stringify(settings), powerMode, clocks],
      type: QueryTypes.SELECT,
    },
  );
}

/**
 * Where profiles can be: every rig in use with every engine that jobs or values are of, with how much stands
 * there.
 */
export async function listProfiles(): Promise<Omit<ProfileListRow, "toConfirm" | "lastTitleId">[]> {
  return store().query<Omit<ProfileListRow, "toConfirm" | "lastTitleId"> & object>(
    `with held as (
       select rig_id, engine_id, count(value)::int as values from profile_values where id in (${newestOf("true")})
       group by rig_id, engine_id),
     worked as (
       select j.rig_id, b.engine_id, count(*)::int as jobs, count(distinct j.title_id)::int as titles
       from jobs j join builds b on b.id = j.build_id where j.deleted_at is null group by 1, 2)
     select r.id as "rigId", r.name as rig, e.id as "engineId", e.name as engine, coalesce(h.values, 0) as values,
            coalesce(w.jobs, 0) as jobs, coalesce(w.titles, 0) as titles
     from rigs r cross join engines e
     left join held h on h.rig_id = r.id and h.engine_id = e.id left join worked w on w.rig_id = r.id and w.engine_id = e.id
     where r.retired_at is null and (h.values is not null or w.jobs is not null) order by r.name, e.name`,
    { type: QueryTypes.SELECT },
  );
}

/** Titles of an engine's systems, those with jobs on the rig first marked. */
export async function titlesOfEngine({
  rigId,
  engineId,
}: ProfilePlace): Promise<
  { id: string; name: string; systemId: string; system: string; nativeFps: number; worked: boolean }[]
> {
  return store().query(
    `select t.id, t.name, t.system_id as "systemId", s.name as system, t.native_fps as "nativeFps",
            exists (select 1 from jobs j join builds b on b.id = j.build_id
                    where j.title_id = t.id and j.rig_id = $1 and b.engine_id = $2 and j.deleted_at is null) as worked
     from titles t join systems s on s.id = t.system_id join engine_systems l on l.system_id = s.id and l.engine_id = $2
     where t.retired_at is null order by s.name, t.name`,
    { bind: [rigId, engineId], type: QueryTypes.SELECT },
  );
}

/** The newest open job of a title on a rig with an engine. */
export async function openJobOn({ rigId, engineId }: ProfilePlace, titleId: string): Promise<string | null> {
  const rows = await store().query<{ id: string }>(
    `select j.id from jobs j join builds b on b.id = j.build_id
     where j.rig_id = $1 and b.engine_id = $2 and j.title_id = $3 and j.closed_at is null and j.deleted_at is null
     order by j.created_at desc limit 1`,
    { bind: [rigId, engineId, titleId], type: QueryTypes.SELECT },
  );
  return rows[0]?.id ?? null;
}
