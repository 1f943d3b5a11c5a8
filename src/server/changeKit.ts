import { isDeepStrictEqual } from "node:util";
import { z } from "zod";
import {
  hardnesses,
  newEngineSchema,
  newRigSchema,
  newSystemSchema,
  newTitleSchema,
  preflightItemSchema,
  readCatalogue,
  type Catalogue,
} from "@/core/kit";
import type { EngineDetail, RigDetail, SystemRow, TitleDetail } from "@/core/records";
import * as data from "@/data";
import { Problem, notFound } from "./problem";

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

const revisionSchema = newRigSchema.extend({ note: z.string().trim().max(200).default("") });

/** Changes a rig: another description is another revision, and runs keep theirs. */
export async function reviseRig(id: string, input: unknown): Promise<{ revision: number }> {
  const { note, ...rig } = revisionSchema.parse(input);
  const before = await viewRig(id);
  await data.reviseRig(id, rig, note, isDeepStrictEqual(before.spec, rig.spec));
  return { revision: (await viewRig(id)).revision };
}

/** A rig like another, under a name not taken yet. */
export async function duplicateRig(id: string): Promise<string> {
  const { name, spec } = await viewRig(id);
  const taken = new Set((await data.listRigs()).map((rig) => rig.name.toLowerCase()));
  for (let k = 2; ; k++) {
    const candidate = `${name.slice(0, 70)} ${k}`;
    if (!taken.has(candidate.toLowerCase())) return data.addRig({ name: candidate, spec });
  }
}

export async function changeTitle(id: string, input: unknown): Promise<void> {
  await viewTitle(id);
  await data.putTitle(id, newTitleSchema.parse(input));
}

export async function changeSystem(id: string, input: unknown): Promise<void> {
  await viewSystem(id);
  await data.putSystem(id, newSystemSchema.parse(input));
}

export async function changeEngine(id: string, input: unknown): Promise<void> {
  await viewEngine(id);
  await data.putEngine(id, newEngineSchema.parse(input));
}

const manySchema = z.object({
  ids: z.array(z.uuid()).min(1).max(5000),
  retired: z.boolean().optional(),
  hardness: z.enum(hardnesses).optional(),
});

/** Changes many titles at once. */
export async function changeTitles(input: unknown): Promise<{ changed: number }> {
  const { ids, retired, hardness } = manySchema.parse(input);
  let changed = 0;
  if (hardness !== undefined) changed = await data.setHardness(ids, hardness);
  if (retired !== undefined) changed = await data.setRetired("titles", ids, retired);
  return { changed };
}

/** Takes rigs off the shelf or puts them back; their runs stay. */
export async function changeRigs(input: unknown): Promise<{ changed: number }> {
  const { ids, retired } = manySchema.omit({ hardness: true }).parse(input);
  return { changed: retired === undefined ? 0 : await data.setRetired("rigs", ids, retired) };
}

export async function exportCatalogue(engineId: string): Promise<Catalogue> {
  const { name, catalogue } = await viewEngine(engineId);
  return { format: "velvet-lamp-catalogue/1", engine: name, settings: catalogue };
}

/** Replaces an engine's catalogue by a file's; a refusal names the path of every fault, and nothing is changed. */
export async function importCatalogue(engineId: string, text: string): Promise<{ settings: number }> {
  const engine = await viewEngine(engineId);
  const read = readCatalogue(text);
  if (!read.ok) {
    const fields = Object.fromEntries(read.faults.map(({ path, message }) => [path || "file", message]));
    const [first] = read.faults;
    throw new Problem(
      422,
      `${first.path ? `${first.path}: ` : ""}${first.message}`,
      read.faults.length > 1
        ? `${read.faults.length} faults in all; nothing was changed.`
        : "Correct the file and choose it again; nothing was changed.",
      fields,
    );
  }
  await data.putEngine(engineId, { ...engine, catalogue: read.catalogue.settings });
  return { settings: read.catalogue.settings.length };
}

export const viewPreflight = data.listPreflight;
export const addPreflight = async (input: unknown) =>
  data.addPreflight([preflightItemSchema.parse(input)], true);
export async function removePreflight(id: string): Promise<void> {
  if (!(await data.removePreflight(id))) throw notFound("item");
}
