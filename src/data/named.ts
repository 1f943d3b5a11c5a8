import { QueryTypes } from "sequelize";
import type { TitleRow } from "@/core/records";
import { Build, ConsoleSystem, Engine, EngineSystem, Rig, store } from "./models";
import { transact } from "./transact";

/** Finding by name passes over case, as the rule that names are unique does. */
const called = (name: string) => store().where(store().fn("lower", store().col("name")), name.toLowerCase());

/** Id of a rig, system or engine by its name; null where there is none. */
export async function idOfNamed(what: "rig" | "system" | "engine", name: string): Promise<string | null> {
  store();
  const where = called(name);
  const found = await (what === "rig"
    ? Rig.findOne({ where })
    : what === "system"
      ? ConsoleSystem.findOne({ where })
      : Engine.findOne({ where }));
  return found?.id ?? null;
}

/** Titles of a name, of one system or of all. */
export async function titlesNamed(
  name: string,
  systemId: string | null,
): Promise<Pick<TitleRow, "id" | "systemId">[]> {
  return store().query(
    `select id, system_id as "systemId" from titles where lower(name) = lower($1) and ($2::uuid is null or system_id = $2) order by created_at`,
    { bind: [name, systemId], type: QueryTypes.SELECT },
  );
}

/**
 * Titles that have one of these names already on a system of that name, whatever their case, spaces and signs; the
 * one with the same name first.
 */
export async function titlesLike(
  named: readonly { name: string; system: string }[],
): Promise<{ at: number; id: string; name: string; same: boolean }[]> {
  return store().query(
    `with asked as (
       select nr - 1 as at, lower(each ->> 'name') as name, lower(each ->> 'system') as system
         from jsonb_array_elements($1::jsonb) with ordinality as given (each, nr)
     ), shelf as (
       select titles.id, titles.name, titles.created_at, lower(systems.name) as system,
              regexp_replace(lower(titles.name), '[^[:alnum:]]', '', 'g') as plain
         from titles join systems on systems.id = titles.system_id
     )
     select distinct on (asked.at) asked.at::int, shelf.id, shelf.name, lower(shelf.name) = asked.name as same
       from asked join shelf on shelf.system = asked.system
        and (lower(shelf.name) = asked.name
          or (shelf.plain <> '' and shelf.plain = regexp_replace(asked.name, '[^[:alnum:]]', '', 'g')))
      order by asked.at, lower(shelf.name) = asked.name desc, shelf.created_at`,
    { bind: [JSON.stringify(named)], type: QueryTypes.SELECT },
  );
}

/** Says that an engine runs a system, where it wasn't said. */
export async function linkEngine(engineId: string, systemId: string): Promise<void> {
  store();
  await EngineSystem.findOrCreate({ where: { engineId, systemId } });
}

/** A build of an engine by its number, made where it isn't there; without a number the first one there is. */
export async function buildNamed(engineId: string, version: string): Promise<string> {
  return transact(async () => {
    const builds = await Build.findAll({ where: { engineId }, order: ["version"] });
    const wanted = version === "" ? builds[0] : builds.find((build) => build.version === version);
    const made =
      wanted ??
      (await Build.create({ engineId, version: version || "(build not said)", branch: "stable", date: null }));
    return made.id;
  });
}

/** Titles in use of a name, whatever its capitals, with their systems. */
export async function titlesCalled(name: string): Promise<{ id: string; name: string; system: string }[]> {
  return store().query(
    `select t.id, t.name, s.name as system from titles t join systems s on s.id = t.system_id
     where lower(t.name) = lower($1) and t.retired_at is null order by s.name, t.id limit 20`,
    { bind: [name], type: QueryTypes.SELECT },
  );
}
