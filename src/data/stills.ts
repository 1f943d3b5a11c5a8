import type { StillRow } from "@/core/records";
import { Still, store } from "./models";

/** Keeps a run's stills, in the order given. */
export async function putStills(
  runId: string,
  stills: (Omit<StillRow, "id"> & { png: Buffer })[],
): Promise<void> {
  store();
  await Still.bulkCreate(stills.map((still, position) => ({ runId, position, ...still })));
}

/** A run's stills in their order, without the pictures themselves. */
export async function listStills(runId: string): Promise<StillRow[]> {
  store();
  const rows = await Still.findAll({ where: { runId }, order: ["position"], attributes: { exclude: ["png"] } });
  return rows.map(({ id, atMs, why, label, lastsMs, width, height }) => ({
    id,
    atMs,
    why,
    label,
    lastsMs,
    width,
    height,
  }));
}

/** A still's picture; null where there is none. */
export async function findStill(id: string): Promise<Buffer | null> {
  store();
  const still = await Still.findByPk(id, { attributes: ["png"] });
  return still?.png ?? null;
}
