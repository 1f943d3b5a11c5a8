import { jsonFile } from "@/server/request/jsonFile";
import type { HandedOut, Body } from "@/contract";
import { isDeepStrictEqual } from "node:util";
import { readCatalogue, type Catalogue } from "@/core/kit";
import type { EngineDetail, RigDetail, SystemRow, TitleDetail } from "@/core/records";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { Problem, notFound } from "@/server/problem";
import { queueWork } from "@/server/system/workQueue";
import { editing, writing } from "@/server/writing";

const found = <Thing>(thing: Thing | null, what: string): Thing => {
  if (thing === null) throw notFound(what);
  return thing;
};

export const viewRig = async (id: string): Promise<RigDetail> => found(await data.rigDetail(id), "rig");
export const viewTitle = async (id: string): Promise<TitleDetail> => found(await data.findTitle(id), "title");
export const viewEngine = async (id: string): Promise<EngineDetail> =>
  found(await data.findEngine(id), "engine");

export const viewSystems = data.listSystems;
export const viewSystem = async (id: string): Promise<SystemRow> =>
  found((await data.listSystems()).find((system) => system.id === id) ?? null, "system");

/** One write to the kit: whatever shows it is told. */
const toKit = async <T>(actor: Actor, what: string, work: () => Promise<T>): Promise<T> =>
  writing(actor, async (touch) => {
    touch({ kind: "kit", id: what });
    return work();
  });

/** Each adds one thing to the kit, and resolves with its id. */
export const addRig = async (actor: Actor, input: Body<"addRig">) =>
  toKit(actor, "rigs", async () => data.addRig(input));
export const addSystem = async (actor: Actor, input: Body<"addSystem">) =>
  toKit(actor, "systems", async () => data.addSystem(input));
export const addTitle = async (actor: Actor, input: Body<"addTitle">) =>
  toKit(actor, "titles", async () => data.addTitle(input));
export const addEngine = async (actor: Actor, input: Body<"addEngine">) =>
  toKit(actor, "engines", async () => (await data.addEngine(input)).id);

/** Changes a rig: another description is another revision, and runs keep theirs. */
export async function reviseRig(
  actor: Actor,
  id: string,
  input: Body<"reviseRig">,
  saw: number | null = null,
): Promise<{ revision: number }> {
  const { note, ...rig } = input;
  return toKit(actor, "rigs", async () => {
    await editing("rigs", id, "rig", saw);
    const before = await viewRig(id);
    const isSame = isDeepStrictEqual(before.spec, rig.spec);
    await data.reviseRig(id, rig, note, isSame);
    if (!isSame) {
      // With another driver other runs are made under what holds.
      await data.forgetHolds(id);
      await queueWork("keep-holds", { batch: 0 });
    }
    return { revision: (await viewRig(id)).revision };
  });
}

/** A rig like another, under a name not taken yet. */
export async function duplicateRig(actor: Actor, id: string): Promise<string> {
  return toKit(actor, "rigs", async () => {
    const { name, spec } = await viewRig(id);
    const taken = new Set((await data.listRigs()).map((rig) => rig.name.toLowerCase()));
    for (let k = 2; ; k++) {
      const candidate = `${name.slice(0, 70)} ${k}`;
      if (!taken.has(candidate.toLowerCase())) return data.addRig({ name: candidate, spec });
    }
  });
}

export const changeTitle = async (
  actor: Actor,
  id: string,
  input: Body<"changeTitle">,
  saw: number | null = null,
): Promise<void> =>
  toKit(actor, "titles", async () => {
    const title = input;
    await editing("titles", id, "title", saw);
    await data.putTitle(id, title);
  });

export const changeSystem = async (
  actor: Actor,
  id: string,
  input: Body<"changeSystem">,
  saw: number | null = null,
): Promise<void> =>
  toKit(actor, "systems", async () => {
    const system = input;
    await editing("systems", id, "system", saw);
    await data.putSystem(id, system);
  });

export const changeEngine = async (
  actor: Actor,
  id: string,
  input: Body<"changeEngine">,
  saw: number | null = null,
): Promise<void> =>
  toKit(actor, "engines", async () => {
    const engine = input;
    await editing("engines", id, "engine", saw);
    await data.putEngine(id, engine);
  });

/** Changes many titles at once. */
export async function changeTitles(actor: Actor, input: Body<"changeTitles">): Promise<{ changed: number }> {
  const { ids, retired, hardness } = input;
  return toKit(actor, "titles", async () => {
    const hardened = hardness === undefined ? 0 : await data.setHardness(ids, hardness);
    return { changed: retired === undefined ? hardened : await data.setRetired("titles", ids, retired) };
  });
}

/** Takes rigs off the shelf or puts them back; their runs stay. */
export async function changeRigs(actor: Actor, input: Body<"changeRigs">): Promise<{ changed: number }> {
  const { ids, retired } = input;
  return toKit(actor, "rigs", async () => ({
    changed: retired === undefined ? 0 : await data.setRetired("rigs", ids, retired),
  }));
}

export async function exportCatalogue(engineId: string): Promise<HandedOut> {
  const { name, catalogue } = await viewEngine(engineId);
  const file: Catalogue = { format: "velvet-lamp-catalogue/1", engine: name, settings: catalogue };
  const saved = name.replace(/[^A-Za-z0-9]+/g, "-").toLowerCase();
  return { name: `${saved}-catalogue.json`, ...jsonFile(file) };
}

/**
 * Replaces an engine's catalogue by a file's; a refusal names the path of every mistake, and nothing is
 * changed.
 */
export async function importCatalogue(
  actor: Actor,
  engineId: string,
  file: Uint8Array,
  saw: number | null = null,
): Promise<{ settings: number }> {
  const read = readCatalogue(new TextDecoder().decode(file));
  return toKit(actor, "engines", async () => {
    await editing("engines", engineId, "engine", saw);
    const engine = await viewEngine(engineId);
    if (!read.ok) throw refusedCatalogue(read.mistakes);
    await data.putEngine(engineId, { ...engine, catalogue: read.catalogue.settings });
    return { settings: read.catalogue.settings.length };
  });
}

function refusedCatalogue(mistakes: { path: string; message: string }[]): Problem {
  const fields = Object.fromEntries(mistakes.map(({ path, message }) => [path || "file", message]));
  const [first] = mistakes;
  const fix =
    mistakes.length > 1
      ? `${mistakes.length} mistakes in all; nothing was changed.`
      : "Correct the file and choose it again; nothing was changed.";
  return new Problem(422, first ? `${first.path ? `${first.path}: ` : ""}${first.message}` : "", fix, fields);
}

export const viewPreflight = data.listPreflight;
export const addPreflight = async (actor: Actor, input: Body<"addPreflight">) =>
  toKit(actor, "preflight", async () => data.addPreflight([input], true));
export const removePreflight = async (actor: Actor, id: string): Promise<void> =>
  toKit(actor, "preflight", async () => {
    if (!(await data.removePreflight(id))) throw notFound("item");
  });
