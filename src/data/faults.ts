import { QueryTypes } from "sequelize";
import type { NewFault } from "@/core/kit";
import type { FaultRow } from "@/core/records";
import { Fault, store } from "./models";

export async function addFault(fault: NewFault): Promise<string> {
  store();
  return (await Fault.create(fault)).id;
}

/** The run that a fault belongs to; null when there is no such fault. */
export async function runOfFault(id: string): Promise<string | null> {
  store();
  return (await Fault.findByPk(id))?.runId ?? null;
}

/** Hides a fault that was a mistake, or brings it back. */
export async function setFaultDeleted(id: string, deleted: boolean): Promise<void> {
  store();
  await Fault.update({ deletedAt: deleted ? new Date().toISOString() : null }, { where: { id } });
}

/** A job's faults, by run and time. */
export async function listFaults(jobId: string): Promise<FaultRow[]> {
  return store().query<FaultRow & object>(
    `select f.id, f.run_id as "runId", f.kind, f.severity, f.scene, f.at_ms as "atMs", f.note, f.workaround, f.created_at as "createdAt"
     from faults f join runs r on r.id = f.run_id where r.job_id = $1 and r.deleted_at is null and f.deleted_at is null order by r.number, f.at_ms nulls last, f.created_at`,
    { bind: [jobId], type: QueryTypes.SELECT },
  );
}
