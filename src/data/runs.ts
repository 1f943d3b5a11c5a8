import { QueryTypes } from "sequelize";
import type { NewRun } from "@/core/kit";
import type { LeftOut, RunEditsView, RunRow, RunState } from "@/core/records";
import { methodVersion, type Summary, type Yardstick } from "@/core/metrics";
import type { Mark, Trace } from "@/core/trace";
import type { HouseRules, Verdict } from "@/core/verdict";
import { Run, RunSummary, store } from "./models";
import { driverOf } from "./rigs";

export interface RunToOpen extends Omit<NewRun, "crashed" | "again"> {
  rigRevisionId: string;
  buildId: string;
  rules: HouseRules;
  yardstick: Yardstick;
  form: Trace["form"];
  madeAt?: string;
}

/** Opens a run under the job's next number, with nothing in it yet; the job's row must be locked. */
export async function openRun(run: RunToOpen): Promise<{ id: string; number: number }> {
  const [counted] = await store().query<{ next: number }>(
    `select coalesce(max(number), 0)::int + 1 as next from runs where job_id = $1`,
    { bind: [run.jobId], type: QueryTypes.SELECT },
  );
  const number = counted?.next ?? 1;
  const made = await Run.create({ ...run, number, state: "open" });
  return { id: made.id, number };
}

/** Ends a run: its state, its marks and its figures, all with it. */
export async function finishRun(
  runId: string,
  state: Exclude<RunState, "open">,
  marks: Mark[],
  figures: { summary: Summary; verdict: Verdict },
): Promise<void> {
  await Run.update({ state }, { where: { id: runId } });
  // Those that a page made meanwhile are among these.
  await store().query(`delete from marks where run_id = $1`, { bind: [runId] });
  // There may be ten thousand: a row each of the models would hold everybody up.
  if (marks.length > 0)
    await store().query(
      `insert into marks (run_id, position, label, start_ms, end_ms)
       select $1, nr - 1, m ->> 'label', (m ->> 'startMs')::float8, (m ->> 'endMs')::float8
       from jsonb_array_elements($2::jsonb) with ordinality as given (m, nr)`,
      { bind: [runId, JSON.stringify(marks)] },
    );
  await putSummary(runId, figures);
}

/**
 * Marks an open run from a moment on, ms from its start; the mark that was open ends there. One that is open ends where
 * it begins, until the next or the run's end tells.
 * @param label null opens none
 */
export async function markOpenRun(runId: string, label: string | null, atMs: number): Promise<void> {
  await store().query(
    `update marks set end_ms = greatest(start_ms, $2) where run_id = $1 and end_ms = start_ms
       and position = (select max(position) from marks where run_id = $1)`,
    { bind: [runId, atMs] },
  );
  if (label === null) return;
  await store().query(
    `insert into marks (run_id, position, label, start_ms, end_ms)
     select $1, coalesce(max(position), -1) + 1, $3, greatest($2, max(end_ms)), greatest($2, max(end_ms)) from marks where run_id = $1`,
    { bind: [runId, atMs, label] },
  );
}

/** Open runs that nothing has touched for so many hours, the oldest first. */
export async function staleRuns(hours: number): Promise<string[]> {
  const rows = await store().query<{ id: string }>(
    `select r.id from runs r left join lateral (select max(at) as at from trace_chunks where run_id = r.id) c on true
     where r.state = 'open' and r.deleted_at is null and greatest(r.made_at, c.at) < now() - make_interval(hours => $1) order by r.made_at limit 200`,
    { bind: [hours], type: QueryTypes.SELECT },
  );
  return rows.map(({ id }) => id);
}

/** A run as kept; segments are read by diagnosis alone, and are most of a summary. */
const runColumns = (segments: boolean) =>
  `r.id, r.version, r.job_id as "jobId", r.number, r.label, r.source, r.form, r.file_name as "fileName", r.made_at as "madeAt", r.settings, r.conditions, r.rules, r.yardstick,
  r.cache_state as "cacheState", r.state, r.state = 'crashed' as crashed, r.skipped_rows as "skippedRows", r.preflight, r.notes, r.trial_id as "trialId", r.arm, r.file_hash as "fileHash", r.tags, r.capture, r.overruled, r.from_memory as "fromMemory", r.scene, r.build_id as "buildId", r.rig_revision_id as "rigRevisionId",
  (select ${driverOf} from rig_revisions v, lateral (select r.conditions, r.settings) u where v.id = r.rig_revision_id) as driver,
  ${segments ? "m.summary" : `(m.summary - 'scenes') || '{"segments": []}'::jsonb as summary`}, m.verdict,
  coalesce((select jsonb_agg(severity) from faults where run_id = r.id and deleted_at is null), '[]') as faults`;

/** A job's runs in their order, with figures and without traces; `segments` asks for those of every run. */
export async function listRuns(jobId: string, { segments = false } = {}): Promise<RunRow[]> {
  return store().query<RunRow & object>(
    `select ${runColumns(segments)} from runs r left join run_summaries m on m.run_id = r.id where r.job_id = $1 and r.deleted_at is null order by r.number`,
    { bind: [jobId], type: QueryTypes.SELECT },
  );
}

export async function findRun(id: string): Promise<(RunRow & { jobId: string }) | null> {
  const rows = await store().query<RunRow & { jobId: string }>(
    `select ${runColumns(true)} from runs r left join run_summaries m on m.run_id = r.id where r.id = $1 and r.deleted_at is null`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

/** A run as kept, left out or not. */
export async function findRunAlways(id: string): Promise<(RunRow & { jobId: string }) | null> {
  const rows = await store().query<RunRow & { jobId: string }>(
    `select ${runColumns(true)} from runs r left join run_summaries m on m.run_id = r.id where r.id = $1`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

/** The newest run on a rig, if it was made within so many hours. */
export async function lastOnRig(
  rigId: string,
  hours: number,
): Promise<Pick<RunRow, "number" | "preflight"> | null> {
  const rows = await store().query<Pick<RunRow, "number" | "preflight"> & object>(
    `select r.number, r.preflight from runs r join jobs j on j.id = r.job_id
     where j.rig_id = $1 and r.deleted_at is null and r.made_at > now() - make_interval(hours => $2) order by r.made_at desc limit 1`,
    { bind: [rigId, hours], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

/** Number of the run of a job that was read from a file; null where none was. */
export async function runOfFile(jobId: string, fileHash: string): Promise<number | null> {
  store();
  const found = await Run.findOne({ where: { jobId, fileHash, deletedAt: null }, attributes: ["number"] });
  return found?.number ?? null;
}

/** Which job and trial a run belongs to, left out or not, and whether it is. */
export async function placeOfRun(
  id: string,
): Promise<{ jobId: string; trialId: string | null; deleted: boolean; trialDeleted: boolean } | null> {
  const rows = await store().query<{
    jobId: string;
    trialId: string | null;
    deleted: boolean;
    trialDeleted: boolean;
  }>(
    `select r.job_id as "jobId", r.trial_id as "trialId", r.deleted_at is not null as deleted, t.deleted_at is not null as "trialDeleted"
     from runs r left join trials t on t.id = r.trial_id where r.id = $1`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

/** Keeps a run's figures, under the version of the method that made them. */
export async function putSummary(
  runId: string,
  { summary, verdict }: { summary: Summary; verdict: Verdict },
): Promise<void> {
  store();
  const { version, averageFps, held } = summary;
  await RunSummary.upsert({
    runId,
    methodVersion: version,
    grade: verdict.grade,
    averageFps,
    held,
    summary,
    verdict,
  });
}

/** Keeps a verdict made anew from figures that stay as they are. */
export async function putVerdict(runId: string, verdict: Verdict): Promise<void> {
  store();
  await RunSummary.update({ grade: verdict.grade, verdict }, { where: { runId } });
}

/** What is said about a run, put down anew. */
export async function putSaid(
  runId: string,
  said: Partial<
    Pick<
      RunRow,
      | "label"
      | "notes"
      | "tags"
      | "overruled"
      | "fromMemory"
      | "scene"
      | "fileName"
      | "cacheState"
      | "conditions"
      | "settings"
      | "trialId"
      | "arm"
      | "state"
      | "buildId"
    >
  >,
): Promise<void> {
  store();
  await Run.update(said, { where: { id: runId } });
}

/** Moves a run under another job's next number; that job's row must be locked. */
export async function moveRun(runId: string, jobId: string): Promise<void> {
  await store().query(
    `update runs set job_id = $2, number = (select coalesce(max(number), 0) + 1 from runs where job_id = $2) where id = $1`,
    { bind: [runId, jobId] },
  );
}

/** Writes down what was changed about a run. */
export async function addEdit(
  runId: string,
  actor: string,
  changes: RunEditsView["rows"][number]["changes"],
): Promise<void> {
  await store().query(`insert into run_edits (run_id, actor, changes) values ($1, $2, $3::jsonb)`, {
    bind: [runId, actor, JSON.stringify(changes)],
  });
}

/** What was changed about a run, the newest first. */
export async function listEdits(runId: string): Promise<RunEditsView["rows"]> {
  return store().query<RunEditsView["rows"][number] & object>(
    `select at, actor, changes from run_edits where run_id = $1 order by id desc`,
    { bind: [runId], type: QueryTypes.SELECT },
  );
}

/**
 * A job's runs that are left out by themselves, the last first; those of a trial that is left out go with it.
 */
export async function leftOutRuns(jobId: string): Promise<LeftOut[]> {
  return store().query<LeftOut & object>(
    `select r.id, r.version, r.number, coalesce(nullif(r.label, ''), r.file_name, '') as name, r.deleted_at as at
     from runs r left join trials t on t.id = r.trial_id
     where r.job_id = $1 and r.deleted_at is not null and t.deleted_at is null order by r.deleted_at desc`,
    { bind: [jobId], type: QueryTypes.SELECT },
  );
}

/** Hides a run, or brings it back: nothing that was measured is destroyed. */
export async function setDeleted(runId: string, deleted: boolean): Promise<void> {
  store();
  await Run.update({ deletedAt: deleted ? new Date().toISOString() : null }, { where: { id: runId } });
}

/** A run with where it belongs, for judging anew. */
export type JudgedRow = Pick<RunRow, "id" | "number" | "crashed" | "faults" | "yardstick" | "rules"> & {
  summary: Summary;
  verdict: Verdict;
  jobId: string;
  title: string;
  rig: string;
  closed: boolean;
};

/** Every run made under some house rules, for judging anew. */
export async function runsUnder(houseRulesId: string): Promise<JudgedRow[]> {
  return store().query(
    `select r.id, r.number, r.state = 'crashed' as crashed, coalesce((select jsonb_agg(severity) from faults where run_id = r.id and deleted_at is null), '[]') as faults, r.yardstick, r.rules, m.summary, m.verdict,
       j.id as "jobId", t.name as title, g.name as rig, j.closed_at is not null as closed
     from runs r join jobs j on j.id = r.job_id join titles t on t.id = j.title_id join rigs g on g.id = j.rig_id join run_summaries m on m.run_id = r.id
     where j.house_rules_id = $1 and j.deleted_at is null and r.deleted_at is null order by t.name, r.number`,
    { bind: [houseRulesId], type: QueryTypes.SELECT },
  );
}

/** Puts a run under other rules, with the yardstick they give. */
export async function putRules(runId: string, rules: HouseRules, yardstick: Yardstick): Promise<void> {
  store();
  await Run.update({ rules, yardstick }, { where: { id: runId } });
}

/**
 * Runs whose figures an older method made, a batch of them; locked, and passed over where another process has
 * them.
 */
export async function outdatedRuns(limit: number): Promise<{ id: string; jobId: string; rigId: string }[]> {
  return store().query(
    `select r.id, r.job_id as "jobId", j.rig_id as "rigId" from run_summaries m join runs r on r.id = m.run_id join jobs j on j.id = r.job_id
     where m.method_version < $1 order by r.made_at desc limit $2 for update of m skip locked`,
    { bind: [methodVersion, limit], type: QueryTypes.SELECT },
  );
}

/** How many runs have figures of an older method. */
export async function outdatedCount(): Promise<number> {
  const [found] = await store().query<{ left: number }>(
    `select count(*)::int as left from run_summaries where method_version < $1`,
    { bind: [methodVersion], type: QueryTypes.SELECT },
  );
  return found?.left ?? 0;
}
