import { QueryTypes } from "sequelize";
import {
  backEndSettings,
  layerSettings,
  rigSettings,
  titleSettings,
  type NewEngine,
  type Setting,
} from "@/core/kit";
import type { BuildRow, EngineDetail } from "@/core/records";
import { Build, CatalogueSetting, Engine, EngineSystem, Title, store } from "./models";
import { findRig } from "./rigs";
import { together, transact } from "./transact";

/** Every engine's builds with the systems the engine runs. */
export async function listBuilds(): Promise<BuildRow[]> {
  return store().query<BuildRow & object>(
    `select b.id, e.id as "engineId", e.name as engine, b.version, b.branch,
            array(select system_id::text from engine_systems where engine_id = e.id) as "systemIds"
     from builds b join engines e on e.id = b.engine_id order by e.name, b.version`,
    { type: QueryTypes.SELECT },
  );
}

/** A build with its engine's name; null where there is none. */
export async function findBuild(id: string): Promise<{ engine: string; version: string } | null> {
  const rows = await store().query<{ engine: string; version: string }>(
    `select e.name as engine, b.version from builds b join engines e on e.id = b.engine_id where b.id = $1`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

/**
 * The build that was last used for a system on a rig; where none was, a stable one of an engine that runs it.
 */
export async function usualBuild(
  rigId: string,
  systemId: string,
): Promise<{ buildId: string; engineId: string } | null> {
  const rows = await store().query<{ buildId: string; engineId: string }>(
    `select b.id as "buildId", b.engine_id as "engineId" from builds b join engines e on e.id = b.engine_id join engine_systems s on s.engine_id = e.id and s.system_id = $2
     left join lateral (select max(j.created_at) as at from jobs j join titles t on t.id = j.title_id
       where j.build_id = b.id and j.rig_id = $1 and t.system_id = $2 and j.deleted_at is null) l on true
     order by l.at desc nulls last, b.branch = 'stable' desc, e.name, b.version desc limit 1`,
    { bind: [rigId, systemId], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

/** The build that was used last for every system on every rig. */
export async function lastBuilds(): Promise<{ rigId: string; systemId: string; buildId: string }[]> {
  return store().query(
    `select distinct on (j.rig_id, t.system_id) j.rig_id as "rigId", t.system_id as "systemId", j.build_id as "buildId"
     from jobs j join titles t on t.id = j.title_id where j.deleted_at is null
     order by j.rig_id, t.system_id, j.created_at desc`,
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

/**
 * Everything that can be set for a title with an engine on a rig: the engine's settings, what it runs through, the
 * device's own switches, and the title's options and patches where a title is named.
 */
export async function catalogueAt({ engineId, rigId, titleId = null }: SettablePlace): Promise<Setting[]> {
  const [own, engine, rig, title] = await together(
    async () => catalogueOf(engineId),
    async () => Engine.findByPk(engineId, { attributes: ["layers", "backEnds"] }),
    async () => findRig(rigId),
    async () =>
      titleId === null ? null : Title.findByPk(titleId, { attributes: ["options", "patches", "copy"] }),
  );
  return [
    ...own,
    ...backEndSettings(engine?.backEnds.map(({ name }) => name) ?? [], own),
    ...layerSettings(engine?.layers),
    ...(rig ? rigSettings(rig.spec) : []),
    ...(title ? titleSettings({ ...title.get({ plain: true }), copy: title.copy ?? undefined }) : []),
  ];
}

/** Where something can be set. */
export interface SettablePlace {
  engineId: string;
  rigId: string;
  titleId?: string | null;
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
    configFiles: engine.configFiles,
    layers: engine.layers,
    catalogue,
    systemIds: systems.map(({ systemId }) => systemId),
    builds: builds.map(({ version, branch, date, notes, link, sha256 }) => ({
      version,
      branch,
      date,
      notes,
      link,
      sha256,
    })),
  };
}

/** Puts an engine down anew. Builds that jobs hang from stay even when the list no longer names them. */
export async function putEngine(
  id: string,
  { name, notes, backEnds, configFiles, layers = [], builds, systemIds, catalogue }: NewEngine,
): Promise<void> {
  return transact(async () => {
    await Engine.update({ name, notes, backEnds, configFiles, layers }, { where: { id } });
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

/** Engines with the names of their config files and the keys that stand in them. */
export async function enginesByKeys(): Promise<
  { id: string; name: string; files: string[]; keys: string[] }[]
> {
  return store().query(
    `select e.id, e.name, array(select f ->> 'name' from jsonb_array_elements(e.config_files) f) as files,
       array(select coalesce(nullif(c.definition ->> 'configKey', ''), c.key) from settings c where c.engine_id = e.id order by c.position) as keys
     from engines e order by e.name`,
    { type: QueryTypes.SELECT },
  );
}
