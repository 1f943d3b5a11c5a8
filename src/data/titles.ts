import { Op, QueryTypes } from "sequelize";
import type { NewTitle } from "@/core/kit";
import type { TitleDetail, TitleRow, TitlesToPlan } from "@/core/records";
import { Scene, Title, store } from "./models";
import { transact } from "./transact";

/** Titles in use with their system's name, by name. @param limit how many at most */
export async function listTitles(limit = 100_000): Promise<TitleRow[]> {
  return store().query<TitleRow & object>(
    `select t.id, t.name, t.system_id as "systemId", s.name as system, t.native_fps as "nativeFps", t.tied, t.region, t.hardness
     from titles t join systems s on s.id = t.system_id where t.retired_at is null order by t.name limit $1`,
    { bind: [limit], type: QueryTypes.SELECT },
  );
}

/** Titles of one filter that are shown by name; the others by id alone. */
const mostNamed = 200;
/** Titles that a campaign may hold. */
const mostPlanned = 2000;

/** Titles in use that a campaign may be planned over, by system and name. */
export async function titlesToPlan({
  search,
  system,
  hardness,
}: Record<"search" | "system" | "hardness", string>): Promise<TitlesToPlan> {
  const rows = await store().query<{ id: string }>(
    `select t.id from titles t join systems s on s.id = t.system_id where t.retired_at is null
       and ($1 = '' or concat_ws(' ', t.name, s.name) ilike '%' || $1 || '%') and ($2 = '' or s.id::text = $2) and ($3 = '' or t.hardness = $3)
     order by s.name, t.name, t.id limit ${mostPlanned}`,
    { bind: [search.replace(/[%_\\]/g, "\\$&"), system, hardness], type: QueryTypes.SELECT },
  );
  const ids = rows.map(({ id }) => id);
  const named = await store().query<TitlesToPlan["rows"][number] & object>(
    `select t.id, t.name, s.name as system, t.hardness, array(select z.name from scenes z where z.title_id = t.id order by z.worst desc, z.position) as scenes
     from titles t join systems s on s.id = t.system_id where t.id = any($1::uuid[]) order by s.name, t.name, t.id`,
    { bind: [ids.slice(0, mostNamed)], type: QueryTypes.SELECT },
  );
  return { rows: named, ids };
}

/** Titles in use that ask something of an engine. */
export async function titlesThatNeed(): Promise<{ name: string; needs: string[] }[]> {
  return store().query(
    `select name, needs from titles where retired_at is null and needs <> '[]' order by name limit 500`,
    { type: QueryTypes.SELECT },
  );
}

/**
 * Seconds of some titles' scenes, or of their worst where none is named, by their places in the list; null
 * where nobody wrote it down.
 */
export async function sceneSeconds(
  titles: { titleId: string; scene: string }[],
): Promise<Map<number, number | null>> {
  const rows = await store().query<{ place: number; seconds: number | null }>(
    `select nr::int - 1 as place, (select z.seconds from scenes z where z.title_id = t.id order by (z.name = w ->> 'scene') desc, z.worst desc, z.position limit 1) as seconds
     from jsonb_array_elements($1::jsonb) with ordinality as wanted (w, nr) join titles t on t.id = (w ->> 'titleId')::uuid`,
    { bind: [JSON.stringify(titles)], type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ place, seconds }) => [place, seconds]));
}

export async function addTitle({ scenes, ...title }: NewTitle): Promise<string> {
  return transact(async () => {
    const made = await Title.create(title);
    await Scene.bulkCreate(scenes.map((scene, position) => ({ ...scene, position, titleId: made.id })));
    return made.id;
  });
}

export async function setHardness(ids: string[], hardness: NewTitle["hardness"]): Promise<number> {
  store();
  const [count] = await Title.update({ hardness }, { where: { id: { [Op.in]: ids } } });
  return count;
}

export async function findTitle(id: string): Promise<TitleDetail | null> {
  store();
  const row = await Title.findByPk(id);
  if (!row) return null;
  const scenes = await Scene.findAll({ where: { titleId: id }, order: ["position"] });
  const { retiredAt, copy, ...title } = row.get({ plain: true });
  return {
    ...title,
    ...(copy && { copy }),
    retired: retiredAt !== null,
    scenes: scenes.map(({ name, how, seconds, worst, fps }) => ({ name, how, seconds, worst, fps })),
  };
}

export async function putTitle(id: string, { scenes, ...title }: NewTitle): Promise<void> {
  return transact(async () => {
    await Title.update({ ...title, options: title.options ?? [], copy: title.copy ?? null }, { where: { id } });
    await Scene.destroy({ where: { titleId: id } });
    await Scene.bulkCreate(scenes.map((scene, position) => ({ ...scene, position, titleId: id })));
  });
}
