import { QueryTypes, type Transaction } from "sequelize";
import type { NewEngine, NewRig, NewSystem, NewTitle, Setting } from "@/core/kit";
import type { BuildRow, HouseRulesRow, RigRow, SystemRow, TitleRow } from "@/core/records";
import type { HouseRules } from "@/core/verdict";
import { Build, CatalogueSetting, ConsoleSystem, Engine, EngineSystem, HouseRuleSet, Rig, RigRevision, Scene, Title, store } from "./models";

const newestRigs = `
  select r.id, r.name, v.id as "revisionId", v.number as revision, v.spec
  from rigs r join lateral (select * from rig_revisions where rig_id = r.id order by number desc limit 1) v on true`;

/** Rigs in use with their newest revision, by name. */
export function listRigs(): Promise<RigRow[]> {
  return store().query<RigRow & object>(`${newestRigs} where r.retired_at is null order by r.name`, { type: QueryTypes.SELECT });
}

export async function findRig(id: string): Promise<RigRow | null> {
  const rows = await store().query<RigRow & object>(`${newestRigs} where r.id = $1`, { bind: [id], type: QueryTypes.SELECT });
  return rows[0] ?? null;
}

export function addRig({ name, spec }: NewRig): Promise<string> {
  return store().transaction(async (transaction) => {
    const rig = await Rig.create({ name }, { transaction });
    await RigRevision.create({ rigId: rig.id, number: 1, spec }, { transaction });
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
export function listTitles(): Promise<TitleRow[]> {
  return store().query<TitleRow & object>(
    `select t.id, t.name, t.system_id as "systemId", s.name as system, t.native_fps as "nativeFps", t.tied, t.region, t.hardness
     from titles t join systems s on s.id = t.system_id where t.retired_at is null order by t.name`,
    { type: QueryTypes.SELECT },
  );
}

export function addTitle({ scenes, ...title }: NewTitle): Promise<string> {
  return store().transaction(async (transaction) => {
    const made = await Title.create(title, { transaction });
    await Scene.bulkCreate(scenes.map((scene, position) => ({ ...scene, position, titleId: made.id })), { transaction });
    return made.id;
  });
}

/** Every engine's builds with the systems the engine runs. */
export function listBuilds(): Promise<BuildRow[]> {
  return store().query<BuildRow & object>(
    `select b.id, e.id as "engineId", e.name as engine, b.version, b.branch,
            array(select system_id::text from engine_systems where engine_id = e.id) as "systemIds"
     from builds b join engines e on e.id = b.engine_id order by e.name, b.version`,
    { type: QueryTypes.SELECT },
  );
}

export function addEngine({ builds, catalogue, systemIds, ...engine }: NewEngine): Promise<{ id: string; buildIds: string[] }> {
  return store().transaction(async (transaction) => {
    const made = await Engine.create(engine, { transaction });
    await EngineSystem.bulkCreate(systemIds.map((systemId) => ({ engineId: made.id, systemId })), { transaction });
    const rows = await Build.bulkCreate(builds.map((build) => ({ ...build, engineId: made.id })), { transaction });
    await putCatalogue(made.id, catalogue, transaction);
    return { id: made.id, buildIds: rows.map(({ id }) => id) };
  });
}

async function putCatalogue(engineId: string, catalogue: Setting[], transaction: Transaction): Promise<void> {
  await CatalogueSetting.bulkCreate(catalogue.map((definition, position) => ({ engineId, position, key: definition.key, definition })), { transaction });
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
