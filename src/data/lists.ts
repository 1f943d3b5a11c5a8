import { QueryTypes } from "sequelize";
import type { Page, PageQuery, RigListRow, TitleListRow } from "@/core/records";
import { store } from "./models";

/** What may be sorted by, as SQL; nothing from outside reaches a statement but as a bound value. */
type Sortable = Record<string, string>;

async function page<Row extends object>(
  columns: string,
  from: string,
  where: string,
  sortable: Sortable,
  { search, filter, sort, descending, page: at, pageSize }: PageQuery,
): Promise<Page<Row>> {
  const term = search.replace(/[%_\\]/g, "\\$&");
  const order = `${sortable[sort] ?? Object.values(sortable)[0]} ${descending ? "desc" : "asc"} nulls last`;
  const rows = await store().query<Row & { total: number }>(
    `select ${columns}, count(*) over ()::int as total ${from} where ${where} order by ${order}, 1 limit $3 offset $4`,
    { bind: [term, filter, pageSize, (at - 1) * pageSize], type: QueryTypes.SELECT },
  );
  return { rows: rows.map(({ total: _total, ...row }) => row as unknown as Row), total: rows[0]?.total ?? 0 };
}

const shelf = (table: string) =>
  `case when $2 = 'retired' then ${table}.retired_at is not null else ${table}.retired_at is null end`;

/** Rigs on the shelf (or retired), a page. */
export function pageOfRigs(query: PageQuery): Promise<Page<RigListRow>> {
  return page<RigListRow>(
    `r.id, r.name, v.number as revision, v.spec, r.retired_at is not null as retired, (select count(*)::int from jobs where rig_id = r.id) as jobs`,
    `from rigs r join lateral (select * from rig_revisions where rig_id = r.id order by number desc limit 1) v on true`,
    `($1 = '' or concat_ws(' ', r.name, v.spec ->> 'kind') ilike '%' || $1 || '%') and ${shelf("r")}`,
    { name: "lower(r.name)", kind: "v.spec ->> 'kind'", memory: "(v.spec ->> 'memoryGb')::double precision" },
    query,
  );
}

/** Titles on the shelf, a page; the filter is a hardness, a system's id, or `retired`. */
export function pageOfTitles(query: PageQuery): Promise<Page<TitleListRow>> {
  return page<TitleListRow>(
    `t.id, t.name, t.system_id as "systemId", s.name as system, t.native_fps as "nativeFps", t.tied, t.region, t.hardness, t.retired_at is not null as retired,
     (select count(*)::int from jobs where title_id = t.id) as jobs`,
    `from titles t join systems s on s.id = t.system_id`,
    `($1 = '' or concat_ws(' ', t.name, s.name) ilike '%' || $1 || '%') and ${shelf("t")}
     and ($2 in ('', 'retired') or t.hardness = $2 or t.system_id::text = $2)`,
    {
      name: "lower(t.name)",
      system: "s.name",
      rate: "t.native_fps",
      hardness: "array_position(array['easy', 'typical', 'hard'], t.hardness)",
    },
    query,
  );
}
