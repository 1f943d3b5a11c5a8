import { isDeepStrictEqual } from "node:util";
import { QueryTypes } from "sequelize";
import type { DeedRow, DeedThing } from "@/core/records";
import type { Topic } from "./changes";
import { store } from "./models";

/** One row that a deed changed: as it was, and as it became; null where it wasn't there. */
export interface DeedChange {
  nr: string;
  table: string;
  before: Record<string, unknown> | null;
  after: Record<string, unknown> | null;
}

/** Begins a deed in the transaction under way: every row changed from here on is written down under it. */
export async function beginDeed(actor: string, undoes: string | null): Promise<string> {
  const [row] = await store().query<{ id: string }>(
    `with made as (insert into deeds (actor, undoes) values ($1, $2) returning id)
     select set_config('lamp.deed', id::text, true) as id from made`,
    { bind: [actor, undoes], type: QueryTypes.SELECT },
  );
  return row?.id ?? "";
}

/** Ends a deed: kept with what it was about, or forgotten where it changed nothing. */
export async function endDeed(id: string, topics: Topic[]): Promise<void> {
  await store().query(
    `with ended as (select set_config('lamp.deed', '', true)),
          kept as (update deeds set topics = $2::jsonb where id = $1 and exists (select 1 from deed_rows where deed_id = $1) returning id)
     delete from deeds using ended where id = $1 and not exists (select 1 from kept)`,
    { bind: [id, JSON.stringify(topics)] },
  );
}

/** Deeds that are listed, at most. */
export const mostDeeds = 100;
/** Days that deeds are kept. */
const keptDays = 90;

/** Of what a deed changed, so many rows are named. */
const mostNamed = 40;

/** The newest deeds, of a topic or of all, with what they changed in short. @param actor of whom, where only one's are asked for */
export async function listDeeds(
  topic: Topic | null,
  { actor = null, limit = mostDeeds }: { actor?: string | null; limit?: number } = {},
): Promise<DeedRow[]> {
  const about = topic === null ? null : JSON.stringify([topic.id === "" ? { kind: topic.kind } : topic]);
  const rows = await store().query<Omit<DeedRow, "things"> & { things: (DeedThing & { nr: string })[] }>(
    `select d.id, d.at, d.actor, d.undone_by is not null as undone, d.undoes is not null as undoing,
       (select count(*)::int from deed_rows where deed_id = d.id) as rows,
       (select jsonb_agg(jsonb_build_object(
            'table', c.tbl,
            'id', coalesce(c.after ->> 'id', c.before ->> 'id'),
            'how', case when c.before is null then 'added' when c.after is null then 'removed' else 'changed' end,
            'name', coalesce(c.after ->> 'name', c.before ->> 'name', case when c.tbl = 'builds' then coalesce(c.after ->> 'version', c.before ->> 'version') end,
               c.after ->> 'key', c.before ->> 'key', (select t.name from titles t where c.tbl = 'jobs' and t.id = (coalesce(c.after, c.before) ->> 'title_id')::uuid), ''),
            'number', coalesce((c.after ->> 'number')::int, (c.before ->> 'number')::int),
            'fields', case when c.before is null or c.after is null then '[]'::jsonb else
              (select coalesce(jsonb_agg(k order by k), '[]') from jsonb_object_keys(c.after) k where k <> 'version' and c.after -> k is distinct from c.before -> k) end,
            'gone', case when c.before is null or c.after is null then null
                         when (c.after ->> 'deleted_at') is distinct from (c.before ->> 'deleted_at') then (c.after ->> 'deleted_at') is not null
                         when (c.after ->> 'retired_at') is distinct from (c.before ->> 'retired_at') then (c.after ->> 'retired_at') is not null end,
            'decided', case when c.tbl = 'trials' and (c.after ->> 'decided_at') is distinct from (c.before ->> 'decided_at') then (c.after ->> 'decided_at') is not null end,
            'kept', case when c.tbl = 'trials' and c.after ->> 'kept_arm' is not null then c.after -> 'arms' -> (c.after ->> 'kept_arm')::int ->> 'name' end,
            'closed', case when c.tbl = 'jobs' and (c.after ->> 'closed_at') is distinct from (c.before ->> 'closed_at') then (c.after ->> 'closed_at') is not null end
          ) order by c.nr)
        from (select * from deed_rows where deed_id = d.id order by tbl in ('rigs', 'titles', 'systems', 'engines', 'jobs', 'trials', 'runs', 'faults', 'campaigns') desc, nr limit ${mostNamed}) c) as things
     from deeds d
     where ($1::jsonb is null or d.topics @> $1::jsonb) and ($2::text is null or d.actor = $2)
       and exists (select 1 from deed_rows where deed_id = d.id)
     order by d.nr desc limit $3`,
    { bind: [about, actor, limit], type: QueryTypes.SELECT },
  );
  return rows;
}

/** A deed that is to be undone, locked; null where there is none. */
export async function lockDeed(
  id: string,
): Promise<{ topics: Topic[]; undone: boolean; actor: string } | null> {
  const [row] = await store().query<{ topics: Topic[]; undone: boolean; actor: string }>(
    `select topics, undone_by is not null as undone, actor from deeds where id = $1 for update`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return row ?? null;
}

/** Tables whose rows take others with them when they are removed. */
const parents = `('rigs', 'systems', 'titles', 'engines', 'house_rules', 'campaigns')`;

/**
 * What a deed changed, in the order in which it is taken back: the last first, but removed things before what was
 * removed with them, which the database notes after.
 */
export const deedChanges = async (id: string): Promise<DeedChange[]> =>
  store().query<DeedChange & object>(
    `select nr::text, tbl as "table", before, after from deed_rows r where deed_id = $1 order by (after is null and tbl in ${parents}) desc, r.nr desc`,
    { bind: [id], type: QueryTypes.SELECT },
  );

export async function markUndone(id: string, by: string): Promise<void> {
  await store().query(`update deeds set undone_by = $2 where id = $1`, { bind: [id, by] });
}

interface Columns {
  /** Those that tell its rows apart. */
  keys: string[];
  /** Those that can be written: not made from others. */
  own: string[];
}

/** A table's columns, as the database has them. */
async function columnsOf(table: string): Promise<Columns> {
  const [row] = await store().query<Columns>(
    `select array(select a.attname::text from pg_index i join pg_attribute a on a.attrelid = i.indrelid and a.attnum = any(i.indkey)
                  where i.indrelid = $1::regclass and i.indisprimary) as keys,
            array(select attname::text from pg_attribute where attrelid = $1::regclass and attnum > 0 and not attisdropped and attgenerated = '' order by attnum) as own`,
    { bind: [table], type: QueryTypes.SELECT },
  );
  return row ?? { keys: [], own: [] };
}

const listed = (columns: string[]) => columns.map((column) => `"${column}"`).join(", ");

/** Tables whose rows are never removed, but marked as left out or off the shelf. */
const markedGone: Record<string, string> = {
  runs: "deleted_at",
  trials: "deleted_at",
  faults: "deleted_at",
  jobs: "deleted_at",
  campaigns: "deleted_at",
  titles: "retired_at",
  rigs: "retired_at",
};

/** Columns of a place in a profile, beside its rig and engine. */
const profilePlace = ["rig_id", "engine_id", "layer", "system_id", "title_id", "build_id", "key"];

/**
 * Takes one row's change back, where the row still is what the change made of it.
 * @returns false where it was changed again since
 */
export async function revertChange({ table, before, after }: DeedChange): Promise<boolean> {
  const { keys, own } = await columnsOf(table);
  const same = keys.map((key) => `t.${key} = r.${key}`).join(" and ");
  const of = (row: Record<string, unknown>) => JSON.stringify(row);
  if (before && after) {
    const changed = own.filter(
      (column) => column !== "version" && !isDeepStrictEqual(after[column], before[column]),
    );
    if (changed.length === 0) return true;
    const rows = await store().query<{ done: number }>(
      `update ${table} t set ${changed.map((column) => `"${column}" = b."${column}"`).join(", ")}
       from jsonb_populate_record(null::${table}, $1::jsonb) b, jsonb_populate_record(null::${table}, $2::jsonb) r
       where ${same} and ${changed.map((column) => `t."${column}" is not distinct from r."${column}"`).join(" and ")} returning 1 as done`,
      { bind: [of(before), of(after)], type: QueryTypes.SELECT },
    );
    return rows.length === 1;
  }
  if (before) {
    const rows = await store().query<{ done: number }>(
      `insert into ${table} (${listed(own)}) overriding system value select ${listed(own)} from jsonb_populate_record(null::${table}, $1::jsonb)
       on conflict do nothing returning 1 as done`,
      { bind: [of(before)], type: QueryTypes.SELECT },
    );
    return rows.length === 1;
  }
  if (!after) return true;
  const gone = markedGone[table];
  const rows = await store().query<{ done: number }>(
    gone
      ? `update ${table} t set ${gone} = now() from jsonb_populate_record(null::${table}, $1::jsonb) r where ${same} and t.${gone} is null returning 1 as done`
      : `delete from ${table} t using jsonb_populate_record(null::${table}, $1::jsonb) r where ${same} returning 1 as done`,
    { bind: [of(after)], type: QueryTypes.SELECT },
  );
  return rows.length === 1;
}

const samePlace = (a: string, b: string) =>
  profilePlace.map((column) => `${a}.${column} is not distinct from ${b}.${column}`).join(" and ");
const valuesOfDeed = `(select r.* from deed_rows c, jsonb_populate_record(null::profile_values, c.after) r
  where c.deed_id = $1 and c.tbl = 'profile_values' and c.before is null)`;

/**
 * Sets again what stood in a profile before a deed set other values: nothing is taken out of its history.
 * @returns false where one of its places was set again since
 */
export async function revertValues(deedId: string, actor: string): Promise<boolean> {
  const [since] = await store().query<{ since: boolean }>(
    `select exists (select 1 from profile_values p, ${valuesOfDeed} r where p.id > r.id and ${samePlace("p", "r")}
       and not exists (select 1 from ${valuesOfDeed} o where o.id = p.id)) as since`,
    { bind: [deedId], type: QueryTypes.SELECT },
  );
  if (since?.since) return false;
  await store().query(
    `insert into profile_values (rig_id, engine_id, layer, system_id, title_id, build_id, key, value, origin, measured_on, actor, at)
     select f.rig_id, f.engine_id, f.layer, f.system_id, f.title_id, f.build_id, f.key, b.value, coalesce(b.origin, '{"kind": "by hand"}'), b.measured_on, $2, now()
     from (select distinct on (${profilePlace.join(", ")}) * from ${valuesOfDeed} r order by ${profilePlace.join(", ")}, id) f
     left join lateral (select * from profile_values p where p.id < f.id and ${samePlace("p", "f")} order by p.id desc limit 1) b on true`,
    { bind: [deedId, actor] },
  );
  return true;
}

/** Forgets deeds that are too old to be undone. */
export async function forgetDeeds(): Promise<void> {
  await store().query(`delete from deeds where at < now() - make_interval(days => ${keptDays})`);
}
