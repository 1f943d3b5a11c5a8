import { QueryTypes } from "sequelize";
import type { LeftOut, TrialRow } from "@/core/records";
import type { Before, Choice, NewTrial, TrialOutcome, Understood } from "@/core/trial";
import { Trial, store } from "./models";
import { transact } from "./transact";

const columns = `t.id, t.version, t.job_id as "jobId", t.number, t.kind, t.name, t.arms, t.rounds, t.cold, t.plan, t.before, t.created_at as "createdAt", t.choice, t.kept_arm as "keptArm", t.reason, t.outcome, t.decided_at as "decidedAt", t.decided_by as "decidedBy", t.mended_at > t.decided_at as "mendedSince"`;

/** Keeps a trial under the job's next number; the job's row must be locked. */
export async function addTrial(
  trial: NewTrial,
  before: Before,
  createdAt?: Date,
): Promise<{ id: string; number: number }> {
  const [counted] = await store().query<{ next: number }>(
    `select coalesce(max(number), 0)::int + 1 as next from trials where job_id = $1`,
    { bind: [trial.jobId], type: QueryTypes.SELECT },
  );
  const number = counted?.next ?? 1;
  const made = await Trial.create({
    ...trial,
    before,
    number,
    createdAt: (createdAt ?? new Date()).toISOString(),
  });
  return { id: made.id, number };
}

export async function findTrial(id: string): Promise<TrialRow | null> {
  const rows = await store().query<TrialRow & object>(
    `select ${columns} from trials t where t.id = $1 and t.deleted_at is null`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

/** Job and kind of a trial, left out or not. */
export async function placeOfTrial(id: string): Promise<{ jobId: string; kind: string } | null> {
  store();
  return Trial.findByPk(id, { attributes: ["id", "jobId", "kind"] });
}

/** A job's trials in the order they were begun. */
export async function listTrials(jobId: string): Promise<TrialRow[]> {
  return store().query<TrialRow & object>(
    `select ${columns} from trials t where t.job_id = $1 and t.deleted_at is null order by t.number`,
    { bind: [jobId], type: QueryTypes.SELECT },
  );
}

/**
 * A moment after the last decision of a trial's job, whatever this machine's clock says: one set back would put
 * the newest before the others.
 */
async function afterTheLast(trialId: string, at: Date): Promise<string> {
  const [last] = await store().query<{ at: string | null }>(
    `select max(decided_at) as at from trials where job_id = (select job_id from trials where id = $1)`,
    { bind: [trialId], type: QueryTypes.SELECT },
  );
  return new Date(last?.at ? Math.max(at.getTime(), Date.parse(last.at) + 1) : at).toISOString();
}

/**
 * Puts a decision down with what it rests on, or takes it back; it lands in the layers in the same transaction.
 */
export async function putDecision(
  id: string,
  decision: (Choice & { outcome: TrialOutcome; by: string; decidedAt?: Date }) | null,
): Promise<void> {
  store();
  const values = decision
    ? {
        choice: decision.choice,
        keptArm: decision.arm,
        reason: decision.reason,
        outcome: decision.outcome,
        decidedAt: await afterTheLast(id, decision.decidedAt ?? new Date()),
        decidedBy: decision.by,
      }
    : { choice: null, keptArm: null, reason: "", outcome: null, decidedAt: null, decidedBy: null };
  await Trial.update({ ...values, landed: true }, { where: { id } });
}

/**
 * More runs of every arm than planned at first, or arms with another at the end; runs name arms by their place.
 */
export async function putPlanned(
  id: string,
  changed: Partial<Pick<TrialRow, "rounds" | "arms">>,
): Promise<void> {
  store();
  await Trial.update(changed, { where: { id } });
}

/**
 * Takes a trial out of the story, or puts it back. Its runs go with it; those left out before by themselves
 * stay so.
 */
export async function setTrialDeleted(id: string, deleted: boolean): Promise<boolean> {
  return transact(async () => {
    const sequelize = store();
    const trial = await Trial.findByPk(id);
    if (!trial || (trial.deletedAt !== null) === deleted) return trial !== null;
    if (deleted) {
      const at = new Date().toISOString();
      await trial.update({ deletedAt: at });
      await sequelize.query(`update runs set deleted_at = $2 where trial_id = $1 and deleted_at is null`, {
        bind: [id, at],
      });
    } else {
      // Runs that went with the trial bear its own moment.
      await sequelize.query(`update runs set deleted_at = null where trial_id = $1 and deleted_at = $2`, {
        bind: [id, trial.deletedAt],
      });
      await trial.update({ deletedAt: null });
    }
    return true;
  });
}

/** Trials not decided yet, over all jobs, the newest first; those of campaigns are its own to go on with. */
export async function openTrials(limit: number): Promise<
  (Pick<TrialRow, "id" | "jobId" | "number" | "kind" | "name" | "createdAt"> & {
    title: string;
    rig: string;
    runs: number;
    planned: number;
  })[]
> {
  return store().query(
    `select t.id, t.job_id as "jobId", t.number, t.kind, t.name, t.created_at as "createdAt", i.name as title, r.name as rig,
            (select count(*)::int from runs u where u.trial_id = t.id and u.deleted_at is null) as runs, t.rounds * jsonb_array_length(t.arms) as planned
     from trials t join jobs j on j.id = t.job_id join titles i on i.id = j.title_id join rigs r on r.id = j.rig_id
     where t.decided_at is null and t.deleted_at is null and j.closed_at is null and j.deleted_at is null
       and not exists (select 1 from campaign_jobs k where k.trial_id = t.id) order by t.created_at desc limit $1`,
    { bind: [limit], type: QueryTypes.SELECT },
  );
}

/** A job's trials that are left out, the last first. */
export async function leftOutTrials(jobId: string): Promise<LeftOut[]> {
  return store().query<LeftOut & object>(
    `select id, version, number, name, deleted_at as at from trials where job_id = $1 and deleted_at is not null order by deleted_at desc`,
    { bind: [jobId], type: QueryTypes.SELECT },
  );
}

/** What was made of a trial's runs, and of which state of them; null where nothing was yet. */
export async function findUnderstood(
  trialId: string,
): Promise<{ fingerprint: string; understood: Understood } | null> {
  const rows = await store().query<{ fingerprint: string; understood: Understood }>(
    `select fingerprint, understood from trial_outcomes where trial_id = $1`,
    { bind: [trialId], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

export async function putUnderstood(
  trialId: string,
  fingerprint: string,
  understood: Understood,
): Promise<void> {
  await store().query(
    `insert into trial_outcomes (trial_id, fingerprint, understood) values ($1, $2, $3::jsonb)
     on conflict (trial_id) do update set fingerprint = excluded.fingerprint, understood = excluded.understood, made_at = now()`,
    { bind: [trialId, fingerprint, JSON.stringify(understood)] },
  );
}

/** Decided comparisons of two arms on a rig, for what they taught. */
export async function comparedOnRig(
  rigId: string,
): Promise<(Pick<TrialRow, "jobId" | "arms" | "before" | "outcome"> & { engineId: string })[]> {
  return store().query(
    `select t.job_id as "jobId", t.arms, t.before, t.outcome, b.engine_id as "engineId" from trials t join jobs j on j.id = t.job_id join builds b on b.id = j.build_id
     where j.rig_id = $1 and t.kind = 'compare' and t.decided_at is not null and t.deleted_at is null and jsonb_array_length(t.arms) = 2 order by t.decided_at, t.id`,
    { bind: [rigId], type: QueryTypes.SELECT },
  );
}
