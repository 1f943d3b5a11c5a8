import { QueryTypes, type Transaction } from "sequelize";
import type { NewRun } from "@/core/kit";
import type { RunRow } from "@/core/records";
import { methodVersion, type Summary, type Yardstick } from "@/core/metrics";
import { interleave, separate, traceFrom, valuesOf, type Channel, type Trace } from "@/core/trace";
import type { HouseRules, Verdict } from "@/core/verdict";
import { Run, RunMark, RunSummary, Telemetry, TraceChunk, store } from "./models";

/** Bytes of a trace in one row; a million frames are four of them. */
const chunkBytes = 1 << 20;

export interface RunToKeep extends NewRun {
  rigRevisionId: string;
  buildId: string;
  rules: HouseRules;
  yardstick: Yardstick;
  trace: Trace;
  summary: Summary;
  verdict: Verdict;
  madeAt?: Date;
}

function asBytes(values: Float32Array): Buffer {
  return Buffer.from(values.buffer, values.byteOffset, values.byteLength);
}

function asFloats(bytes: Buffer): Float32Array {
  return new Float32Array(Uint8Array.from(bytes).buffer);
}

/** Keeps a whole run or nothing; resolves with its id and its number in the job. */
export function addRun({
  trace,
  summary,
  verdict,
  ...run
}: RunToKeep): Promise<{ id: string; number: number }> {
  const sequelize = store();
  return sequelize.transaction(async (transaction) => {
    // The job's row is the lock that keeps two imports from taking one number.
    await sequelize.query(`select id from jobs where id = $1 for update`, {
      bind: [run.jobId],
      transaction,
      type: QueryTypes.SELECT,
    });
    const [{ next }] = await sequelize.query<{ next: number }>(
      `select coalesce(max(number), 0)::int + 1 as next from runs where job_id = $1`,
      { bind: [run.jobId], transaction, type: QueryTypes.SELECT },
    );
    const made = await Run.create({ ...run, number: next, form: trace.form }, { transaction });
    await keepTrace(made.id, trace, transaction);
    await RunSummary.create(
      { runId: made.id, methodVersion, grade: verdict.grade, averageFps: summary.averageFps, summary, verdict },
      { transaction },
    );
    return { id: made.id, number: next };
  });
}

async function keepTrace(runId: string, trace: Trace, transaction: Transaction): Promise<void> {
  const bytes = asBytes(valuesOf(trace));
  for (let at = 0, sequence = 0; at < bytes.length; at += chunkBytes, sequence++) {
    await TraceChunk.create({ runId, sequence, bytes: bytes.subarray(at, at + chunkBytes) }, { transaction });
  }
  await Telemetry.bulkCreate(
    trace.channels.map(({ role, times, values }) => ({
      runId,
      role,
      bytes: asBytes(interleave(times, values)),
    })),
    { transaction },
  );
  await RunMark.bulkCreate(
    trace.marks.map((mark, position) => ({ runId, position, ...mark })),
    { transaction },
  );
}

/** A run's trace as kept, with channels and marks; null when there is no such run. */
export async function findTrace(runId: string): Promise<Trace | null> {
  store();
  const run = await Run.findOne({ where: { id: runId, deletedAt: null }, attributes: ["id", "form"] });
  if (!run) return null;
  const [chunks, telemetry, marks] = await Promise.all([
    TraceChunk.findAll({ where: { runId }, order: ["sequence"] }),
    Telemetry.findAll({ where: { runId }, order: ["role"] }),
    RunMark.findAll({ where: { runId }, order: ["position"] }),
  ]);
  const channels: Channel[] = telemetry.map(({ role, bytes }) => {
    const [times, values] = separate(asFloats(bytes));
    return { role, times, values };
  });
  return traceFrom(
    run.form,
    asFloats(Buffer.concat(chunks.map(({ bytes }) => bytes))),
    channels,
    marks.map(({ label, startMs, endMs }) => ({ label, startMs, endMs })),
  );
}

/** A run as kept; segments are read by diagnosis alone, and are most of a summary. */
const runColumns = (
  segments: boolean,
) => `r.id, r.job_id as "jobId", r.number, r.label, r.source, r.form, r.file_name as "fileName", r.made_at as "madeAt", r.settings, r.conditions, r.rules, r.yardstick,
  r.cache_state as "cacheState", r.crashed, r.skipped_rows as "skippedRows", r.preflight, r.notes, r.trial_id as "trialId", r.arm, r.build_id as "buildId", r.rig_revision_id as "rigRevisionId",
  m.method_version as "methodVersion", ${segments ? "m.summary" : `m.summary || '{"segments": []}'::jsonb as summary`}, m.verdict,
  coalesce((select jsonb_agg(severity) from faults where run_id = r.id and deleted_at is null), '[]') as faults`;

/** A job's runs in their order, with figures and without traces; `segments` asks for those of every run. */
export function listRuns(jobId: string, { segments = false } = {}): Promise<RunRow[]> {
  return store().query<RunRow & object>(
    `select ${runColumns(segments)} from runs r left join run_summaries m on m.run_id = r.id where r.job_id = $1 and r.deleted_at is null order by r.number`,
    { bind: [jobId], type: QueryTypes.SELECT },
  );
}

export async function findRun(id: string): Promise<RunRow | null> {
  const rows = await store().query<RunRow & object>(
    `select ${runColumns(true)} from runs r left join run_summaries m on m.run_id = r.id where r.id = $1 and r.deleted_at is null`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

/** Replaces a run's figures, made by a newer method or under other rules. */
export async function putSummary(runId: string, summary: Summary, verdict: Verdict): Promise<void> {
  store();
  await RunSummary.upsert({
    runId,
    methodVersion,
    grade: verdict.grade,
    averageFps: summary.averageFps,
    summary,
    verdict,
  });
}

export async function putLabel(runId: string, label: string): Promise<boolean> {
  store();
  const [changed] = await Run.update({ label }, { where: { id: runId, deletedAt: null } });
  return changed > 0;
}

/** Hides a run, or brings it back: nothing that was measured is destroyed. */
export async function setDeleted(runId: string, deleted: boolean): Promise<boolean> {
  store();
  const [changed] = await Run.update({ deletedAt: deleted ? new Date() : null }, { where: { id: runId } });
  return changed > 0;
}

/** Every run made under some house rules, for judging anew. */
export function runsUnder(
  houseRulesId: string,
): Promise<
  (Pick<RunRow, "id" | "number" | "crashed" | "faults" | "summary" | "verdict" | "yardstick" | "rules"> & {
    jobId: string;
    title: string;
    rig: string;
  })[]
> {
  return store().query(
    `select r.id, r.number, r.crashed, coalesce((select jsonb_agg(severity) from faults where run_id = r.id and deleted_at is null), '[]') as faults, r.yardstick, r.rules, m.summary, m.verdict, j.id as "jobId", t.name as title, g.name as rig
     from runs r join jobs j on j.id = r.job_id join titles t on t.id = j.title_id join rigs g on g.id = j.rig_id join run_summaries m on m.run_id = r.id
     where j.house_rules_id = $1 and r.deleted_at is null order by t.name, r.number`,
    { bind: [houseRulesId], type: QueryTypes.SELECT },
  );
}

/** Puts down figures and verdicts made anew under other rules, with the rules; all or none. */
export function putRejudged(
  runs: { id: string; rules: HouseRules; summary: Summary; verdict: Verdict }[],
): Promise<void> {
  return store().transaction(async (transaction) => {
    for (const { id, rules, summary, verdict } of runs) {
      await Run.update({ rules }, { where: { id }, transaction });
      await RunSummary.update(
        { methodVersion, grade: verdict.grade, averageFps: summary.averageFps, summary, verdict },
        { where: { runId: id }, transaction },
      );
    }
  });
}
