import { QueryTypes } from "sequelize";
import type { Page, PageQuery, RigListRow, TitleListRow } from "@/core/records";
import { cursorOf, keyset } from "@/core/schema";
import { store } from "./models";

/**
 * What may be sorted by, as SQL that gives a text without nulls; nothing from outside reaches a statement but
 * as a bound value.
 */
type Sortable = ReadonlyMap<string, string>;

/** Numbers as texts of one width, so that texts sort as numbers do; unknown ones last. */
const numeric = (of: string) => `coalesce(to_char(${of}, 'FM0000000000.000000'), '~')`;

async function page<Row extends { id: string }>(
  columns: string,
  from: string,
  where: string,
  sortable: Sortable,
  { search, filter, sort, descending, cursor, limit }: PageQuery,
): Promise<Page<Row>> {
  const term = search.replace(/[%_\\]/g, "\\$&");
  const by = sortable.get(sort) ?? [...sortable.values()][0] ?? "''";
  const [order, beyond] = descending ? ["desc", "<"] : ["asc", ">"];
  const after = keyset(cursor);
  const rows = await store().query<Row & { total: number; sorted: string }>(
    `with listed as (select ${columns}, (${by}) collate "C" as sorted ${from} where ${where})
     select *, (select count(*)::int from listed) as total from listed
     where $3::text is null or (sorted, id::text collate "C") ${beyond} ($3::text, $4::text)
     order by sorted ${order}, id::text collate "C" ${order} limit $5`,
    { bind: [term, filter, after?.value ?? null, after?.id ?? null, limit + 1], type: QueryTypes.SELECT },
  );
  const shown = rows.slice(0, limit);
  const last = rows.length > limit ? shown.at(-1) : undefined;
  return {
    rows: shown.map(({ total: _total, sorted: _sorted, ...row }) => row as unknown as Row),
    total: rows[0]?.total ?? (after ? await countOf(from, where, term, filter) : 0),
    next: last ? cursorOf(last.sorted, last.id) : null,
  };
}

async function countOf(from: string, where: string, term: string, filter: string): Promise<number> {
  const [found] = await store().query<{ total: number }>(
    `select count(*)::int as total ${from} where ${where}`,
    { bind: [term, filter], type: QueryTypes.SELECT },
  );
  return found?.total ?? 0;
}

const shelf = (table: string) =>
  `case when $2 = 'retired' then ${table}.retired_at is not null else ${table}.retired_at is null end`;

const rigsBy: Sortable = new Map([
  ["name", "lower(r.name)"],
  ["kind", "coalesce(v.spec ->> 'kind', '')"],
  ["memory", numeric("(v.spec ->> 'memoryGb')::numeric")],
]);

/** Rigs on the shelf (or retired), a page. */
export async function pageOfRigs(query: PageQuery): Promise<Page<RigListRow>> {
  return page<RigListRow>(
    `r.id, v.number as revision, r.name, v.spec, r.retired_at is not null as retired, (select count(*)::int from jobs where rig_id = r.id) as jobs`,
    `from rigs r join lateral (select * from rig_revisions where rig_id = r.id order by number desc limit 1) v on true`,
    `($1 = '' or concat_ws(' ', r.name, v.spec ->> 'kind') ilike '%' || $1 || '%') and ${shelf("r")}`,
    rigsBy,
    query,
  );
}

const titlesBy: Sortable = new Map([
  ["name", "lower(t.name)"],
  ["system", "lower(s.name)"],
  ["rate", numeric("t.native_fps::numeric")],
  ["hardness", "array_position(array['easy', 'typical', 'hard'], t.hardness)::text"],
]);

/** Titles on the shelf, a page; the filter is a hardness, a system's or an engine's id, or `retired`. */
export async function pageOfTitles(query: PageQuery): Promise<Page<TitleListRow>> {
  return page<TitleListRow>(
    `t.id, t.name, t.system_id as "systemId", s.name as system, t.native_fps as "nativeFps", t.tied, t.region, t.hardness, t.retired_at is not null as retired,
     (select count(*)::int from jobs where title_id = t.id) as jobs`,
    `from titles t join systems s on s.id = t.system_id`,
    `($1 = '' or concat_ws(' ', t.name, s.name) ilike '%' || $1 || '%') and ${shelf("t")}
     and ($2 in ('', 'retired') or t.hardness = $2 or t.system_id::text = $2
       or exists (select 1 from engine_systems l where l.system_id = t.system_id and l.engine_id::text = $2))`,
    titlesBy,
    query,
  );
}
