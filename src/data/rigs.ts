import { Op, QueryTypes } from "sequelize";
import { driverKey, type NewRig, type RigSpec } from "@/core/kit";
import type { RigDetail, RigRow } from "@/core/records";
import { Rig, RigRevision, Title, store } from "./models";
import { transact } from "./transact";

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

/** What can be set on a rig, listed further: it is the device it was, and keeps its revision. */
export async function listSwitches(id: string, spec: RigSpec): Promise<void> {
  return transact(async () => {
    const number = await RigRevision.max<number, RigRevision>("number", { where: { rigId: id } });
    await RigRevision.update({ spec }, { where: { rigId: id, number } });
  });
}

/**
 * SQL of the driver that a run (u) was made with: the one chosen of several, that of its set-up, else that of the rig's revision (v);
 * never null.
 */
export const driverOf = `coalesce(nullif(u.settings ->> '${driverKey}', ''), (select x -> 'driver' ->> 'version' from jsonb_array_elements(v.spec -> 'setUps') x
  where x ->> 'name' = u.conditions ->> 'setUp'), v.spec -> 'driver' ->> 'version', '')`;

/** A rig as it was at a revision; null where there is none. */
export async function findRevision(id: string): Promise<{ number: number; spec: RigSpec } | null> {
  store();
  return RigRevision.findByPk(id, { attributes: ["id", "number", "spec"] });
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
  const values = { retiredAt: retired ? new Date().toISOString() : null };
  const where = { id: { [Op.in]: ids } };
  const [count] = kind === "rigs" ? await Rig.update(values, { where }) : await Title.update(values, { where });
  return count;
}
