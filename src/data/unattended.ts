import { QueryTypes } from "sequelize";
import type { Unattended, UnattendedEvent, UnattendedTerms } from "@/core/records";
import { store } from "./models";

/** Sets a trial to run by itself, also one that did before. */
export async function putUnattended(trialId: string, terms: UnattendedTerms, by: string): Promise<void> {
  await store().query(
    `insert into unattended (trial_id, terms, set_by) values ($1, $2::jsonb, $3)
     on conflict (trial_id) do update set terms = excluded.terms, set_by = excluded.set_by, set_at = now(), ended_at = null, ended_why = '', taken_by = null, taken_at = null`,
    { bind: [trialId, JSON.stringify(terms), by] },
  );
}

/** Ends it, with the reason. @returns false where it had ended before, or was never set */
export async function closeUnattended(trialId: string, why: string): Promise<boolean> {
  const rows = await store().query(
    `update unattended set ended_at = now(), ended_why = $2 where trial_id = $1 and ended_at is null returning trial_id`,
    { bind: [trialId, why], type: QueryTypes.SELECT },
  );
  return rows.length > 0;
}

export async function noteUnattended(
  trialId: string,
  {
    what,
    text = "",
    runId = null,
    temperatureC = null,
  }: Pick<UnattendedEvent, "what"> & {
    text?: string;
    runId?: string | null;
    temperatureC?: number | null;
  },
): Promise<void> {
  await store().query(
    `insert into unattended_events (trial_id, what, text, run_id, temperature_c) values ($1, $2, $3, $4, $5)`,
    { bind: [trialId, what, text, runId, temperatureC] },
  );
}

/** Events that are shown of one trial, at most: the newest. */
const mostEvents = 1000;

export async function findUnattended(trialId: string): Promise<Unattended | null> {
  const [found] = await store().query<Omit<Unattended, "events">>(
    `select u.terms, u.set_by as "setBy", u.set_at as "setAt", u.ended_at as "endedAt", u.ended_why as "endedWhy", p.name as "takenBy"
     from unattended u left join programs p on p.id = u.taken_by where u.trial_id = $1`,
    { bind: [trialId], type: QueryTypes.SELECT },
  );
  if (!found) return null;
  const events = await store().query<UnattendedEvent>(
    `select e.at, e.what, e.text, r.number as "runNumber", e.temperature_c as "temperatureC"
     from (select * from unattended_events where trial_id = $1 order by id desc limit $2) e left join runs r on r.id = e.run_id order by e.id`,
    { bind: [trialId, mostEvents], type: QueryTypes.SELECT },
  );
  return { ...found, events };
}

/** A lease that wasn't renewed for so long is free again, minutes: the device that had it is gone. */
const leaseMinutes = 10;

/** Trials that wait to be run on a rig, the first that was set first; none that another device has taken. */
export async function waitingOn(rigId: string, deviceId: string): Promise<string[]> {
  const rows = await store().query<{ id: string }>(
    `select u.trial_id as id from unattended u join trials t on t.id = u.trial_id join jobs j on j.id = t.job_id
     where u.ended_at is null and t.decided_at is null and t.deleted_at is null and j.rig_id = $1 and j.closed_at is null and j.deleted_at is null
       and (u.taken_by is null or u.taken_by = $2 or u.taken_at < now() - make_interval(mins => $3)) order by u.set_at limit 50`,
    { bind: [rigId, deviceId, leaseMinutes], type: QueryTypes.SELECT },
  );
  return rows.map(({ id }) => id);
}

/** Takes a trial for a device, or renews that. @returns false where another has it, or it has ended */
export async function takeUnattended(trialId: string, deviceId: string): Promise<boolean> {
  const rows = await store().query(
    `update unattended set taken_by = $2, taken_at = now() where trial_id = $1 and ended_at is null
       and (taken_by is null or taken_by = $2 or taken_at < now() - make_interval(mins => $3)) returning trial_id`,
    { bind: [trialId, deviceId, leaseMinutes], type: QueryTypes.SELECT },
  );
  return rows.length > 0;
}
