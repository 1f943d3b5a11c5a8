// A shelf as large as a busy house's: the demo's jobs, copied inside the database under other titles and rigs.
import pg from "pg";

/** How much a shelf holds. */
export interface ShelfSize {
  rigs: number;
  titles: number;
  jobs: number;
  runs: number;
  faults: number;
  /** Runs of the one long job. */
  longest: number;
}
export const fullShelf: ShelfSize = {
  rigs: 200,
  titles: 5000,
  jobs: 500,
  runs: 20_000,
  faults: 3000,
  longest: 200,
};

/**
 * Ids of a copy: the same again for the same copy and the same original, in the form of RFC 9562, version 8.
 */
const idOf = (copy: string, original: string) =>
  `overlay(overlay(md5((${copy})::text || ':' || (${original})::text) placing '8' from 13) placing '8' from 17)::uuid`;

/**
 * Fills the demo store at `url` up to `size`: rigs, titles, jobs with trials, runs with their traces, and
 * faults. Every job of the demo that has runs is copied in turn, each copy under a title of its own on one of
 * twenty rigs.
 *
 * @returns the id of the longest job
 */
export async function fillShelf(url: string, size: ShelfSize = fullShelf): Promise<string> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const ask = async (statement: string, values: unknown[] = []) => client.query(statement, values);
  try {
    await ask("begin");
    await ask(
      `insert into rigs (id, name, created_at) select ${idOf("'rig'", "n")}, 'Shelf rig ' || lpad(n::text, 3, '0'), now() from generate_series(1, $1::int) n`,
      [size.rigs],
    );
    // Each takes the spec of one of the demo's rigs, so that a copied run lies on a rig like its own.
    await ask(
      `insert into rig_revisions (id, rig_id, number, note, spec)
       select ${idOf("'revision'", "n")}, ${idOf("'rig'", "n")}, 1, '', own.spec
       from generate_series(1, $1::int) n
       join (select row_number() over (order by r.id) - 1 as place, count(*) over () as many, v.spec
             from rigs r join lateral (select spec from rig_revisions where rig_id = r.id order by number desc limit 1) v on true
             where exists (select 1 from jobs where rig_id = r.id)) own on own.place = n % own.many`,
      [size.rigs],
    );
    await ask(`create temporary table source on commit drop as
      select j.*, t.system_id, row_number() over (order by count(u.id) desc, j.id) - 1 as place, count(*) over () as many, count(u.id)::int as runs
      from jobs j join titles t on t.id = j.title_id join runs u on u.job_id = j.id
      where j.deleted_at is null and u.deleted_at is null group by j.id, t.system_id`);
    await ask(
      `insert into titles (id, system_id, name, native_fps, tied, hardness, region)
       select ${idOf("'title'", "n")}, s.system_id, 'Shelf title ' || lpad(n::text, 4, '0'), t.native_fps, t.tied, (array['easy', 'typical', 'hard'])[1 + n % 3], ''
       from generate_series(1, $1::int) n join source s on s.place = n % s.many join titles t on t.id = s.title_id`,
      [size.titles],
    );
    await ask(
      `create temporary table copied on commit drop as
       select n, ${idOf("'job'", "n")} as job, s.id as original, s.runs, ${idOf("'title'", "n")} as title,
         ${idOf("'rig'", "1 + n % least(20, $2::int)")} as rig, ${idOf("'revision'", "1 + n % least(20, $2::int)")} as revision,
         now() - ($1 - n) * interval '5 hours' as at
       from generate_series(1, $1::int) n join source s on s.place = n % s.many`,
      [size.jobs, size.rigs],
    );
    await ask(`insert into jobs (id, rig_id, title_id, build_id, house_rules_id, aim, target_fps, created_at, closed_at, strategy, closing, baseline)
      select c.job, c.rig, c.title, j.build_id, j.house_rules_id, j.aim, j.target_fps, c.at, case when j.closed_at is not null then c.at end, j.strategy, j.closing, j.baseline
      from copied c join jobs j on j.id = c.original`);
    await ask(`insert into trials (id, job_id, number, kind, name, arms, rounds, cold, plan, before, created_at, choice, kept_arm, reason, outcome, decided_at)
      select ${idOf("c.n", "t.id")}, c.job, t.number, t.kind, t.name, t.arms, t.rounds, t.cold, t.plan, t.before, c.at, t.choice, t.kept_arm, t.reason, t.outcome, t.decided_at
      from copied c join trials t on t.job_id = c.original where t.deleted_at is null`);
    // A job's own runs, then again and again without a trial until each job has its share.
    const share = Math.ceil((size.runs - size.longest) / Math.max(1, size.jobs - 1));
    await ask(
      `create temporary table copies on commit drop as
       select ${idOf("c.n || '/' || again.k", "u.id")} as run, u.id as original, c.job, c.n, again.k, c.revision, c.at,
         row_number() over (partition by c.n order by again.k, u.number) as number
       from copied c cross join lateral generate_series(0, (case when c.n = 1 then $2::int else $1::int end - 1) / c.runs) again(k)
       join runs u on u.job_id = c.original and u.deleted_at is null`,
      [share, size.longest],
    );
    await ask(`delete from copies where number > case when n = 1 then $2::int else $1::int end`, [
      share,
      size.longest,
    ]);
    await ask(`insert into runs (id, job_id, number, rig_revision_id, build_id, source, form, label, file_name, made_at, settings, conditions, rules, yardstick, cache_state, skipped_rows, notes, preflight, trial_id, arm, state, scene, tags)
      select p.run, p.job, p.number, p.revision, u.build_id, u.source, u.form, u.label, u.file_name, p.at + p.number * interval '3 minutes', u.settings, u.conditions, u.rules, u.yardstick, u.cache_state, u.skipped_rows, u.notes, u.preflight,
        case when p.k = 0 and u.trial_id is not null and exists (select 1 from trials where id = ${idOf("p.n", "u.trial_id")}) then ${idOf("p.n", "u.trial_id")} end,
        case when p.k = 0 and u.trial_id is not null and exists (select 1 from trials where id = ${idOf("p.n", "u.trial_id")}) then u.arm end, u.state, u.scene, u.tags
      from copies p join runs u on u.id = p.original`);
    await ask(`insert into run_summaries (run_id, method_version, grade, average_fps, summary, verdict, held)
      select p.run, s.method_version, s.grade, s.average_fps, s.summary, s.verdict, s.held from copies p join run_summaries s on s.run_id = p.original`);
    await ask(`insert into trace_chunks (run_id, sequence, bytes, role)
      select p.run, k.sequence, k.bytes, k.role from copies p join trace_chunks k on k.run_id = p.original`);
    await ask(
      `insert into faults (run_id, kind, severity, scene, at_ms, note, workaround, created_at)
       select p.run, (array['control', 'picture', 'sound', 'crash'])[1 + p.place % 4], (array['slight', 'visible', 'severe', 'blocking'])[1 + p.place % 4], '', 1000,
         (array['The water', 'A far hill', 'The second stick', 'The menu''s edge', 'The choir'])[1 + p.place % 5] || ' ' ||
         (array['flickers', 'is drawn twice', 'does nothing', 'stutters', 'falls silent', 'turns black', 'lags behind'])[1 + p.place % 7] || ' after the ' ||
         (array['first', 'second', 'third', 'last'])[1 + p.place % 4] || ' bridge.', '', p.at
       from (select p.*, row_number() over (order by md5(run::text)) as place from copies p) p where p.place <= $1`,
      [size.faults],
    );
    await ask("commit");
    // As an idle server would by itself, later.
    await ask("vacuum analyze");
    return (await ask(`select ${idOf("'job'", "1")} as id`)).rows[0].id as string;
  } finally {
    await client.end();
  }
}
