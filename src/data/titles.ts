import { Op, QueryTypes } from "sequelize";
import type { NewTitle } from "@/core/kit";
import type { TitleDetail, TitleRow } from "@/core/records";
import { Scene, Title, store } from "./models";
import { transact } from "./transact";

/** Titles in use with their system's name, by name. */
export async function listTitles(): Promise<TitleRow[]> {
  return store().query<TitleRow & object>(
    `select t.id, t.name, t.system_id as "systemId", s.name as system, t.native_fps as "nativeFps", t.tied, t.region, t.hardness
     from titles t join systems s on s.id = t.system_id where t.retired_at is null order by t.name`,
    { type: QueryTypes.SELECT },
  );
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
  const { retiredAt, ...title } = row.get({ plain: true });
  return {
    ...title,
    retired: retiredAt !== null,
    scenes: scenes.map(({ name, how, seconds, worst }) => ({ name, how, seconds, worst })),
  };
}

export async function putTitle(id: string, { scenes, ...title }: NewTitle): Promise<void> {
  return transact(async () => {
    await Title.update(title, { where: { id } });
    await Scene.destroy({ where: { titleId: id } });
    await Scene.bulkCreate(scenes.map((scene, position) => ({ ...scene, position, titleId: id })));
  });
}
