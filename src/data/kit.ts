import { Op, QueryTypes } from "sequelize";
import type { NewEngine, NewRig, NewSystem, NewTitle, PreflightItem, Setting } from "@/core/kit";
import type {
  BuildRow,
  EngineDetail,
  HouseRulesRow,
  PreflightItemRow,
  RigDetail,
  RigRow,
  SystemRow,
  TitleDetail,
  TitleRow,
} from "@/core/records";
import type { HouseRules } from "@/core/verdict";
import {
  Build,
  CatalogueSetting,
  ConsoleSystem,
  Engine,
  EngineSystem,
  HouseRuleSet,
  PreflightRow,
  Rig,
  RigRevision,
  Scene,
  Title,
  store,
} from "./models";
import { together, transact } from "./transact";

const newestRigs = `
  select r.id, r.version, r.name, v.id as "revisionId", v.number as revision, v.spec
  from rigs r join lateral (select * from rig_revisions where rig_id = r.id order by number desc limit 1) v on true`;

/** Rigs in use with their newest revision, by name. */
export async function listRigs(): Promise<RigRow[]> {
  return store().query<RigRow & object>(`${newestRigs} where r.retired_at is null order by r.name`, {
    type: QueryTypes.SELECT,
  });
}

export async function findRig(id: string): Promise<RigRow | null> {
  const rows = await store().query<RigRow & object>(`${newestRigs} where r.id = $1`, {
    bind: [id],
    type: QueryTypes.SELECT,
  });
  return rows[0] ?? null;
}

export async function addRig({ name, spec }: NewRig): Promise<string> {
  return transact(async () => {
    const rig = await Rig.create({ name });
    await RigRevision.create({ rigId: rig.id, number: 1, spec });
    return rig.id;
  });
}

export async function listSystems(): Promise<SystemRow[]> {
  store();
  const rows = await ConsoleSystem.findAll({ order: ["name"] });
  return rows.map((row) => row.get({ plain: true }));
}

export async function addSystem(system: NewSystem): Promise<string> {
  store();
  return (await ConsoleSystem.create(system)).id;
}

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

/** Every engine's builds with the systems the engine runs. */
export async function listBuilds(): Promise<BuildRow[]> {
  return store().query<BuildRow & object>(
    `select b.id, e.id as "engineId", e.name as engine, b.version, b.branch,
            array(select system_id::text from engine_systems where engine_id = e.id) as "systemIds"
     from builds b join engines e on e.id = b.engine_id order by e.name, b.version`,
    { type: QueryTypes.SELECT },
  );
}

export async function addEngine({
  builds,
  catalogue,
  systemIds,
  ...engine
}: NewEngine): Promise<{ id: string; buildIds: string[] }> {
  return transact(async () => {
    const made = await Engine.create(engine);
    await EngineSystem.bulkCreate(systemIds.map((systemId) => ({ engineId: made.id, systemId })));
    const rows = await Build.bulkCreate(builds.map((build) => ({ ...build, engineId: made.id })));
    await putCatalogue(made.id, catalogue);
    return { id: made.id, buildIds: rows.map(({ id }) => id) };
  });
}

async function putCatalogue(engineId: string, catalogue: Setting[]): Promise<void> {
  await CatalogueSetting.bulkCreate(
    catalogue.map((definition, position) => ({ engineId, position, key: definition.key, definition })),
  );
}

/** An engine's settings in their order. */
export async function catalogueOf(engineId: string): Promise<Setting[]> {
  store();
  const rows = await CatalogueSetting.findAll({ where: { engineId }, order: ["position"] });
  return rows.map(({ definition }) => definition);
}

export async function listHouseRules(): Promise<HouseRulesRow[]> {
  store();
  const rows = await HouseRuleSet.findAll({ order: [["isDefault", "DESC"], "name"] });
  return rows.map((row) => row.get({ plain: true }));
}

export async function addHouseRules(name: string, rules: HouseRules, isDefault: boolean): Promise<string> {
  store();
  return (await HouseRuleSet.create({ name, rules, isDefault })).id;
}

/** Renames a rig, and puts its description down as a new revision; runs keep the one they were made on. */
export async function reviseRig(
  id: string,
  { name, spec }: NewRig,
  note: string,
  sameSpec: boolean,
): Promise<void> {
  return transact(async () => {
    await Rig.update({ name }, { where: { id } });
    if (sameSpec) return;
    const newest = await RigRevision.max<number, RigRevision>("number", { where: { rigId: id } });
    await RigRevision.create({ rigId: id, number: (newest ?? 0) + 1, note, spec });
  });
}

export async function rigDetail(id: string): Promise<RigDetail | null> {
  const rig = await findRig(id);
  if (!rig) return null;
  const row = await Rig.findByPk(id);
  const revisions = await store().query<RigDetail["revisions"][number]>(
    `select number, note, created_at as "createdAt", (select count(*)::int from runs where rig_revision_id = v.id) as runs from rig_revisions v where rig_id = $1 order by number desc`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return { ...rig, retired: row?.retiredAt !== null, revisions };
}

/** Takes things off the shelf, or puts them back; what hangs from them stays. @returns how many */
export async function setRetired(kind: "rigs" | "titles", ids: string[], retired: boolean): Promise<number> {
  store();
  const values = { retiredAt: retired ? new Date() : null };
  const where = { id: { [Op.in]: ids } };
  const [count] = kind === "rigs" ? await Rig.update(values, { where }) : await Title.update(values, { where });
  return count;
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

export async function putSystem(id: string, system: NewSystem): Promise<void> {
  store();
  await ConsoleSystem.update(system, { where: { id } });
}

export async function findEngine(id: string): Promise<EngineDetail | null> {
  store();
  const engine = await Engine.findByPk(id);
  if (!engine) return null;
  const [builds, systems, catalogue] = await together(
    async () => Build.findAll({ where: { engineId: id }, order: ["version"] }),
    async () => EngineSystem.findAll({ where: { engineId: id } }),
    async () => catalogueOf(id),
  );
  return {
    id,
    version: engine.version,
    name: engine.name,
    notes: engine.notes,
    backEnds: engine.backEnds,
    catalogue,
    systemIds: systems.map(({ systemId }) => systemId),
    builds: builds.map(({ version, branch, date, notes }) => ({ version, branch, date, notes })),
  };
}

/** Puts an engine down anew. Builds that jobs hang from stay even when the list no longer names them. */
export async function putEngine(
  id: string,
  { name, notes, backEnds, builds, systemIds, catalogue }: NewEngine,
): Promise<void> {
  return transact(async () => {
    await Engine.update({ name, notes, backEnds }, { where: { id } });
    await EngineSystem.destroy({ where: { engineId: id } });
    await EngineSystem.bulkCreate(systemIds.map((systemId) => ({ engineId: id, systemId })));
    const held = await Build.findAll({ where: { engineId: id } });
    const same = (a: { version: string; branch: string }, b: { version: string; branch: string }) =>
      a.version === b.version && a.branch === b.branch;
    for (const build of builds) {
      const known = held.find((row) => same(row, build));
      if (known) await known.update(build);
      else await Build.create({ ...build, engineId: id });
    }
    const dropped = held.filter((row) => !builds.some((build) => same(row, build))).map((row) => row.id);
    if (dropped.length > 0)
      await store().query(
        `delete from builds b where id = any($1::uuid[]) and not exists (select 1 from jobs where build_id = b.id) and not exists (select 1 from runs where build_id = b.id)`,
        { bind: [dropped] },
      );
    await CatalogueSetting.destroy({ where: { engineId: id } });
    await putCatalogue(id, catalogue);
  });
}

export async function putHouseRules(id: string, name: string, rules: HouseRules): Promise<boolean> {
  store();
  const [count] = await HouseRuleSet.update({ name, rules }, { where: { id } });
  return count > 0;
}

export async function listPreflight(): Promise<PreflightItemRow[]> {
  store();
  const rows = await PreflightRow.findAll({ order: ["position", "id"] });
  return rows.map(({ id, own, definition }) => ({ id, own, ...definition }));
}

export async function addPreflight(items: PreflightItem[], own: boolean): Promise<void> {
  store();
  const from = (await PreflightRow.max<number, PreflightRow>("position")) ?? -1;
  await PreflightRow.bulkCreate(
    items.map((definition, index) => ({ definition, own, position: from + 1 + index })),
  );
}

export async function removePreflight(id: string): Promise<boolean> {
  store();
  return (await PreflightRow.destroy({ where: { id } })) > 0;
}
