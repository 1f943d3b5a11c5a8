import type { Body, HandedOut, Query } from "@/contract";
import { valueRefusal } from "@/core/kit";
import { placeName, type ProfileFile, type SetValue } from "@/core/profile";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { heavy } from "@/server/system/heavy";
import { notFound } from "@/server/problem";
import { writing } from "@/server/writing";
import { refuseStale, settableOn, touchedProfile } from "./changeProfile";

/** A profile as a file, written in UTF-8. */
export async function saveProfile(asked: Query<"saveProfile">): Promise<HandedOut> {
  const place = { rigId: asked.rig, engineId: asked.engine };
  const [rig, engine, builds, told, titles] = await data.together(
    async () => data.findRig(place.rigId),
    async () => data.findEngine(place.engineId),
    async () => data.listBuilds(),
    async () => data.standingAsText(place),
    async () => data.titlesOfEngine(place),
  );
  if (!rig) throw notFound("rig");
  if (!engine) throw notFound("engine");
  const names = new Map([
    ...titles.flatMap(({ id, name, systemId, system }) => [[id, name] as const, [systemId, system] as const]),
    ...builds.map(({ id, version }) => [id, version] as const),
  ]);
  return { content: await heavy("profileFile", [{ rig: rig.name, engine: engine.name }, told, names]) };
}

/** Values of a file that are taken in before whoever waits is answered. */
const valuesAtOnce = 2000;

/** Takes a profile file in: every value a hypothesis here, whatever it was where it comes from. */
export async function takeProfile(
  actor: Actor,
  input: Body<"takeProfile">,
): Promise<{ changed: number; unknown: string[] }> {
  const { rigId, engineId, file, saw } = input;
  const place = { rigId, engineId };
  return writing(actor, async (touch) => {
    await data.lockProfile(place);
    const [catalogue, engine, builds, held, titles] = await data.together(
      async () => settableOn(place),
      async () => data.findEngine(engineId),
      async () => data.listBuilds(),
      async () => data.standingValues(place),
      async () => data.titlesOfEngine(place),
    );
    if (!engine) throw notFound("engine");
    await refuseStale(place, [...new Set(file.values.map(({ key }) => key))], saw);
    const unknown = new Set<string>();
    // The first of a name where several have it.
    const named = <Row>(rows: Row[], nameOf: (row: Row) => string) =>
      new Map(rows.toReversed().map((row) => [nameOf(row), row]));
    const inSystem = (system: string, title: string) => JSON.stringify([system, title]);
    const byName = {
      titles: named(titles, ({ name }) => name),
      titlesOf: named(titles, ({ name, system }) => inSystem(system, name)),
      systems: named(titles, ({ system }) => system),
      builds: named(
        builds.filter((build) => build.engineId === engineId),
        ({ version }) => version,
      ),
      settings: named(catalogue, ({ key }) => key),
    };
    const read = ({ layer, system, title, build, key, value }: ProfileFile["values"][number]) => {
      const titleRow =
        title === null
          ? undefined
          : system === null
            ? byName.titles.get(title)
            : byName.titlesOf.get(inSystem(system, title));
      const systemId = (system !== null && byName.systems.get(system)?.systemId) || null;
      const buildId = (build !== null && byName.builds.get(build)?.id) || null;
      const setting = byName.settings.get(key);
      const missing = [
        ...(layer === "title" && !titleRow ? [`title ${title ?? "without a name"}`] : []),
        ...(layer === "system" && !systemId ? [`system ${system ?? "without a name"}`] : []),
        ...(build !== null && !buildId ? [`build ${build}`] : []),
        ...(!setting
          ? [`setting ${key}`]
          : valueRefusal(setting, value)
            ? [`value of ${key}: ${String(value)}`]
            : []),
      ];
      missing.forEach((each) => unknown.add(each));
      return missing.length > 0
        ? []
        : [
            {
              layer,
              systemId: layer === "system" ? systemId : null,
              titleId: layer === "title" ? (titleRow?.id ?? null) : null,
              buildId,
              key,
              value,
              origin: { kind: "carried" as const, from: file.rig || "a file" },
              measuredOn: null,
              actor: actor.name,
            },
          ];
    };
    // What stands there already is no hypothesis, and stays as it is; of a place that comes twice the last holds.
    const taken = new Map<string, SetValue["value"]>();
    const isOther = (each: Omit<SetValue, "id">) => {
      const name = placeName(each);
      const stands = taken.get(name) ?? held.at(each)?.value ?? null;
      taken.set(name, each.value);
      return stands !== each.value;
    };
    let changed = 0;
    for (let at = 0; at < file.values.length; at += valuesAtOnce) {
      const others = file.values
        .slice(at, at + valuesAtOnce)
        .flatMap(read)
        .filter(isOther);
      await data.addLayerValues(place, others);
      changed += others.length;
    }
    touch(touchedProfile);
    return { changed, unknown: [...unknown].slice(0, 100) };
  });
}
