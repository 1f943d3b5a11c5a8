import { QueryTypes } from "sequelize";
import type { Publication } from "@/core/publication";
import type { OtherPublication, OtherView, HowRunsWereMade } from "@/core/records";
import { store } from "./models";

const head = `id, from_whom as "from", added_at as "addedAt", kind, name, made_at as "madeAt"`;

/** Publications of others, the last brought in first. */
export async function listOthers(): Promise<OtherPublication[]> {
  return store().query<OtherPublication & object>(
    `select ${head} from other_publications order by added_at desc, id`,
    { type: QueryTypes.SELECT },
  );
}

/** One of them, with so many rows of each table; null where there is none such. */
export async function findOther(id: string, rows: number): Promise<OtherView | null> {
  const [found] = await store().query<OtherView & object>(
    `select ${head}, publication || jsonb_build_object('tables', shown.tables) as publication, shown.in_all as "rowsInAll"
     from other_publications o cross join lateral (
       select coalesce(jsonb_agg(t || jsonb_build_object('rows', jsonb_path_query_array(t -> 'rows', ('$[0 to ' || $2::int - 1 || ']')::jsonpath)) order by nr), '[]') as tables,
              coalesce(array_agg(jsonb_array_length(t -> 'rows') order by nr), '{}') as in_all
       from jsonb_array_elements(o.publication -> 'tables') with ordinality as given (t, nr)) shown
     where id = $1`,
    { bind: [id, rows], type: QueryTypes.SELECT },
  );
  return found ?? null;
}

export async function addOther(from: string, publication: Publication): Promise<string> {
  const [made] = await store().query<{ id: string }>(
    `insert into other_publications (from_whom, publication) values ($1, $2::jsonb) returning id`,
    { bind: [from, JSON.stringify(publication)], type: QueryTypes.SELECT },
  );
  return made?.id ?? "";
}

export async function removeOther(id: string): Promise<boolean> {
  const gone = await store().query(`delete from other_publications where id = $1 returning id`, {
    bind: [id],
    type: QueryTypes.SELECT,
  });
  return gone.length > 0;
}

async function waysOf(where: string, bind: string[]): Promise<HowRunsWereMade> {
  const [sources, [rest]] = await Promise.all([
    store().query<HowRunsWereMade["sources"][number]>(
      `select u.source, count(*)::int as runs from runs u join jobs j on j.id = u.job_id where u.deleted_at is null and j.deleted_at is null and ${where} group by 1 order by 2 desc`,
      { bind, type: QueryTypes.SELECT },
    ),
    store().query<Omit<HowRunsWereMade, "sources">>(
      `select coalesce(array_agg(distinct u.conditions ->> 'capturePath') filter (where u.conditions ->> 'capturePath' <> ''), '{}') as paths, min(u.made_at) as "from", max(u.made_at) as "to"
       from runs u join jobs j on j.id = u.job_id where u.deleted_at is null and j.deleted_at is null and ${where}`,
      { bind, type: QueryTypes.SELECT },
    ),
  ]);
  return { sources, paths: rest?.paths ?? [], from: rest?.from ?? null, to: rest?.to ?? null };
}

/** How the runs of a campaign were made. */
export const waysOfCampaign = async (id: string) =>
  waysOf(`j.id in (select job_id from campaign_jobs where campaign_id = $1)`, [id]);

/** How the runs on a rig were made; on any where none is named. */
export const waysOnRig = async (rigId: string) => waysOf(`($1 = '' or j.rig_id::text = $1)`, [rigId]);
