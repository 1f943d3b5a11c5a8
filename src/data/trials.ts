import { QueryTypes } from "sequelize";
import type { TrialOutcome, Tried } from "@/core/advise";
import type { Choice, NewTrial } from "@/core/kit";
import type { TrialRow } from "@/core/records";
import { Job, Trial, store } from "./models";

const columns = `t.id, t.job_id as "jobId", t.number, t.kind, t.name, t.arms, t.rounds, t.cold, t.plan, t.before, t.created_at as "createdAt", t.choice, t.kept_arm as "keptArm", t.reason, t.outcome, t.decided_at as "decidedAt"`;

export function addTrial(
  trial: NewTrial,
  before: TrialRow["before"],
  createdAt?: Date,
): Promise<{ id: string; number: number }> {
  const sequelize = store();
  return sequelize.transaction(async (transaction) => {
    await sequelize.query(`select id from jobs where id = $1 for update`, {
      bind: [trial.jobId],
      transaction,
      type: QueryTypes.SELECT,
    });
    const [{ next }] = await sequelize.query<{ next: number }>(
      `select coalesce(max(number), 0)::int + 1 as next from trials where job_id = $1`,
      { bind: [trial.jobId], transaction, type: QueryTypes.SELECT },
    );
    const made = await Trial.create(
      { ...trial, before, number: next, createdAt: createdAt ?? new Date() },
      { transaction },
    );
    return { id: made.id, number: next };
  });
}

export async function findTrial(id: string): Promise<TrialRow | null> {
  const rows = await store().query<TrialRow & object>(
    `select ${columns} from trials t where t.id = $1 and t.deleted_at is null`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

/** A job's trials in the order they were begun. */
export function listTrials(jobId: string): Promise<TrialRow[]> {
  return store().query<TrialRow & object>(
    `select ${columns} from trials t where t.job_id = $1 and t.deleted_at is null order by t.number`,
    { bind: [jobId], type: QueryTypes.SELECT },
  );
}

/** Puts a decision down with what it rests on, or takes it back; the job's target goes with it. */
export function putDecision(
  trial: Pick<TrialRow, "id" | "jobId">,
  decision: (Choice & { outcome: TrialOutcome; decidedAt?: Date }) | null,
  targetFps: number | null | undefined,
): Promise<void> {
  return store().transaction(async (transaction) => {
    const values = decision
      ? {
          choice: decision.choice,
          keptArm: decision.arm,
          reason: decision.reason,
          outcome: decision.outcome,
          decidedAt: decision.decidedAt ?? new Date(),
        }
      : { choice: null, keptArm: null, reason: "", outcome: null, decidedAt: null };
    await Trial.update(values, { where: { id: trial.id }, transaction });
    if (targetFps !== undefined) await Job.update({ targetFps }, { where: { id: trial.jobId }, transaction });
  });
}

/** More runs of every arm than planned at first. */
export async function putRounds(id: string, rounds: number): Promise<void> {
  store();
  await Trial.update({ rounds }, { where: { id } });
}

/** A trial's arms with another at the end; runs name arms by their place. */
export async function putArms(id: string, arms: TrialRow["arms"]): Promise<void> {
  store();
  await Trial.update({ arms }, { where: { id } });
}

/** Takes a trial out of the story, or puts it back; its runs go with it. */
export function setTrialDeleted(id: string, deleted: boolean): Promise<boolean> {
  const at = deleted ? new Date() : null;
  return store().transaction(async (transaction) => {
    const [changed] = await Trial.update({ deletedAt: at }, { where: { id }, transaction });
    await store().query(
      deleted
        ? `update runs set deleted_at = $2 where trial_id = $1 and deleted_at is null`
        : `update runs set deleted_at = null where trial_id = $1`,
      { bind: deleted ? [id, at] : [id], transaction },
    );
    return changed > 0;
  });
}

/** The build that a job's decisions put in force, or null while it is the job's own. */
export async function keptBuild(jobId: string): Promise<string | null> {
  const rows = await store().query<{ build: string }>(
    `select arms -> kept_arm ->> 'buildId' as build from trials where job_id = $1 and choice = 'keep' and deleted_at is null and arms -> kept_arm ->> 'buildId' is not null order by decided_at desc limit 1`,
    { bind: [jobId], type: QueryTypes.SELECT },
  );
  return rows[0]?.build ?? null;
}

/** Trials not decided yet, over all jobs, the newest first. */
export function openTrials(
  limit: number,
): Promise<
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
     where t.decided_at is null and t.deleted_at is null and j.closed_at is null order by t.created_at desc limit $1`,
    { bind: [limit], type: QueryTypes.SELECT },
  );
}

/** What a rig's decided comparisons taught: one row for each that changed one thing. */
export async function triedOnRig(rigId: string): Promise<(Omit<Tried, "relieves"> & { engineId: string })[]> {
  const rows = await store().query<{
    arms: TrialRow["arms"];
    before: TrialRow["before"];
    outcome: TrialOutcome;
    engineId: string;
  }>(
    `select t.arms, t.before, t.outcome, b.engine_id as "engineId" from trials t join jobs j on j.id = t.job_id join builds b on b.id = j.build_id
     where j.rig_id = $1 and t.kind = 'compare' and t.decided_at is not null and t.deleted_at is null and jsonb_array_length(t.arms) = 2`,
    { bind: [rigId], type: QueryTypes.SELECT },
  );
  return rows.flatMap(({ arms, before, outcome, engineId }) => {
    const pair = outcome?.pairs[0];
    if (!pair) return [];
    const changed = Object.entries(arms[1].settings)
      .filter(([key, value]) => before.settings[key] !== value)
      .map(([key, to]) => ({ key, from: before.settings[key] ?? null, to }));
    const conditions = (
      [
        ["powerMode", "power mode"],
        ["clocks", "clocks"],
        ["cooler", "cooler"],
      ] as const
    )
      .map(([name, key]) => ({
        key,
        from: arms[0].conditions[name] ?? null,
        to: arms[1].conditions[name] ?? null,
      }))
      .filter(({ from, to }) => to !== null && to !== from);
    // Of several changes at once nothing is learnt about any.
    const only = [...changed, ...conditions];
    return only.length === 1
      ? [{ ...only[0], engineId, helped: pair.decision === "better", logGain: Math.log(pair.ratio) }]
      : [];
  });
}

/** Rates of repeats on a rig: runs of one job with the same settings, conditions and build, in groups of two and more. */
export async function repeatsOnRig(rigId: string): Promise<number[][]> {
  const rows = await store().query<{ rates: number[] }>(
    `select array_agg(case when (m.summary ->> 'reportedSpeedPercent') is not null then (m.summary ->> 'reportedSpeedPercent')::double precision else m.average_fps end) as rates
     from runs r join run_summaries m on m.run_id = r.id join jobs j on j.id = r.job_id
     where j.rig_id = $1 and r.deleted_at is null and not r.crashed and r.cache_state <> 'cold' and r.source <> 'tally' and m.average_fps > 0
       -- Runs held by a cap show no spread: they would make the rig look quieter than it is.
       and case when (m.summary ->> 'reportedSpeedPercent') is not null then (m.summary ->> 'reportedSpeedPercent')::double precision < 99 else coalesce((m.summary -> 'pacing' ->> 'cadenceShare')::double precision, 0) < 0.97 or coalesce((m.summary -> 'pacing' ->> 'cadenceErrorRms')::double precision, 1) > 0.12 end
     group by r.job_id, r.build_id, r.rig_revision_id, md5(r.settings::text), md5((r.conditions - 'roomC' - 'capturePath')::text)
     having count(*) > 1`,
    { bind: [rigId], type: QueryTypes.SELECT },
  );
  return rows.map(({ rates }) => rates);
}
