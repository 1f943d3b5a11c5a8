import { QueryTypes } from "sequelize";
import type { FoundRow } from "@/core/records";
import { store } from "./models";

/** Of each kind, at most. */
const mostOfAKind = 8;

/** Names that hold all the words that are looked for, those that begin with them first. */
const kinds: Record<FoundRow["kind"], string> = {
  job: `select j.id, '/jobs/' || j.id as path, t.name as name, r.name || ', ' || e.name as note, coalesce(l.made_at, j.created_at) as at
    from jobs j join titles t on t.id = j.title_id join rigs r on r.id = j.rig_id join builds b on b.id = j.build_id join engines e on e.id = b.engine_id
    left join lateral (select max(made_at) as made_at from runs where job_id = j.id) l on true where j.deleted_at is null`,
  trial: `select x.id, '/jobs/' || x.job_id || '/trials/' || x.id as path, x.name as name, t.name || ' on ' || r.name as note, x.created_at as at
    from trials x join jobs j on j.id = x.job_id join titles t on t.id = j.title_id join rigs r on r.id = j.rig_id where x.deleted_at is null and j.deleted_at is null`,
  title: `select t.id, '/kit/titles/' || t.id as path, t.name as name, s.name as note, t.created_at as at from titles t join systems s on s.id = t.system_id where t.retired_at is null`,
  rig: `select id, '/kit/rigs/' || id as path, name, 'rig' as note, created_at as at from rigs where retired_at is null`,
  system: `select id, '/kit/systems/' || id as path, name, 'system' as note, now() as at from systems`,
  engine: `select id, '/kit/engines/' || id as path, name, 'engine' as note, now() as at from engines`,
  campaign: `select id, '/campaigns/' || id as path, name, 'campaign' as note, created_at as at from campaigns where deleted_at is null`,
  setting: `select c.id, '/kit/engines/' || e.id || '?setting=' || (c.definition ->> 'key') as path, c.definition ->> 'label' as name, e.name || ', ' || (c.definition ->> 'key') as note, now() as at
    from settings c join engines e on e.id = c.engine_id`,
};

/** Things by name, a few of each kind. */
export async function find(search: string): Promise<FoundRow[]> {
  const patterns = search
    .split(/\s+/)
    .filter(Boolean)
    .map((word) => `%${word.replace(/[%_\\]/g, "\\$&")}%`);
  const found: FoundRow[] = [];
  for (const [kind, statement] of Object.entries(kinds))
    found.push(
      ...(await store().query<FoundRow & object>(
        `select '${kind}' as kind, id, path, name, note from (${statement}) k
         where (name || ' ' || note) ilike all($1::text[]) order by name ilike $2 || '%' desc, at desc, name limit ${mostOfAKind}`,
        { bind: [patterns, search.replace(/[%_\\]/g, "\\$&")], type: QueryTypes.SELECT },
      )),
    );
  return found;
}
