import type { QueryInterface } from "sequelize";

const versioned = [
  "rigs",
  "systems",
  "titles",
  "engines",
  "house_rules",
  "jobs",
  "trials",
  "runs",
  "bench_state",
];
const verbatim = (text: string) =>
  `jsonb_build_object('code', 'kept.verbatim', 'figures', jsonb_build_object('text', ${text}))`;

/**
 * Edits say which version they saw; runs that grow; baselines that stay; sentences as data; roles instead of
 * names; what changed goes out by an outbox; noise floors and outcomes are kept.
 */
export const firmGround = {
  name: "0004-firm-ground",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      -- Every edit raises the version of what it changed, by whatever door it came.
      create function next_version() returns trigger language plpgsql as $$
      begin new.version := old.version + 1; return new; end $$;
      ${versioned
        .map(
          (table) => `alter table ${table} add column version integer not null default 1 check (version > 0);
      create trigger ${table}_version before update on ${table} for each row execute function next_version();`,
        )
        .join("\n      ")}

      -- A run has a state; its trace and telemetry are chunks of one table.
      alter table runs disable trigger runs_version;
      alter table runs add column state text;
      update runs set state = case when crashed then 'crashed' else 'whole' end;
      alter table runs alter column state set not null,
        add constraint runs_state check (state in ('open', 'whole', 'cut off', 'crashed')),
        drop column crashed;
      alter table runs enable trigger runs_version;
      alter table trace_chunks add column role text not null default 'trace';
      alter table trace_chunks alter column role drop default, drop constraint trace_chunks_pkey,
        add primary key (run_id, role, sequence);
      insert into trace_chunks (run_id, role, sequence, bytes) select run_id, role, 0, bytes from telemetry;
      drop table telemetry;

      -- Held runs are said once, where the figures are made; until they are made anew, by the rule that stood in SQL.
      alter table run_summaries add column held boolean not null default false;
      update run_summaries m set held = case
        when (summary ->> 'reportedSpeedPercent') is not null then (summary ->> 'reportedSpeedPercent')::double precision >= 99
        else coalesce((summary -> 'pacing' ->> 'cadenceShare')::double precision, 0) >= 0.97
         and coalesce((summary -> 'pacing' ->> 'cadenceErrorRms')::double precision, 1) <= 0.12 end;
      update run_summaries set
        summary = jsonb_set(jsonb_set(summary, '{version}', to_jsonb(method_version)), '{held}', to_jsonb(held)),
        verdict = jsonb_set(verdict, '{remarks}', coalesce(
          (select jsonb_agg(${verbatim("remark")}) from jsonb_array_elements_text(verdict -> 'remarks') as remark), '[]'));
      create index run_summaries_method on run_summaries (method_version);

      -- Kinds of trials are rows, put down from the one list in the code.
      create table trial_kinds (kind text primary key);
      insert into trial_kinds select distinct kind from trials;
      alter table trials drop constraint trials_kind_check, add foreign key (kind) references trial_kinds on delete restrict;

      -- An arm says its role, a setting its purpose.
      alter table trials disable trigger trials_version;
      update trials t set arms = (
        select jsonb_agg(arm || jsonb_build_object('role', case
          when t.kind = 'rate' then case when arm ->> 'level' is not null then 'capped' when arm ->> 'name' ~* 'overdriv' then 'overdriven' else 'free' end
          when t.kind = 'screen' then 'row'
          when t.kind in ('compare', 'heat', 'memory') then case when place = 1 then 'as it is' when t.kind = 'compare' then 'changed' else 'level' end
          else 'level' end) order by place)
        from jsonb_array_elements(t.arms) with ordinality as each (arm, place));
      update trials set outcome = jsonb_set(jsonb_set(jsonb_set(outcome,
          '{headline}', ${verbatim("outcome ->> 'headline'")}),
          '{advice,sentence}', ${verbatim("outcome -> 'advice' ->> 'sentence'")}),
          '{notes}', coalesce((select jsonb_agg(${verbatim("note")}) from jsonb_array_elements_text(outcome -> 'notes') as note), '[]'))
        where outcome is not null;
      alter table trials enable trigger trials_version;
      update settings set definition = definition || jsonb_build_object('purpose', case
        when definition ->> 'type' = 'number' then case
          when definition -> 'relieves' ? 'graphics' and (definition -> 'costs' ->> 'picture')::numeric > 0
            and (definition ->> 'min')::numeric >= 0.25 and definition -> 'fastest' = definition -> 'min' then 'scale'
          when definition -> 'relieves' ? 'sync' then 'limiter'
          when definition -> 'relieves' ? 'sound' then 'sound queue'
          when definition -> 'relieves' ? 'processor' and (definition ->> 'default')::numeric > (definition ->> 'min')::numeric
            and (definition ->> 'default')::numeric < (definition ->> 'max')::numeric then 'emulated clock'
          when definition -> 'relieves' ? 'processor' and definition -> 'default' = definition -> 'min' then 'cycle skip' end
        when definition ->> 'type' = 'switch' then case
          when definition -> 'relieves' ? 'sync' then 'hold rate'
          when definition -> 'relieves' ? 'sound' then 'sound sync'
          when definition -> 'relieves' ? 'shaders' then 'shader cache' end
        when definition ->> 'type' = 'choice' and definition -> 'relieves' ? 'graphics' and (definition ->> 'restart')::boolean then 'back end' end);

      -- What a job began from is fixed when it begins: leaving a run out rewrites nothing.
      alter table jobs disable trigger jobs_version;
      alter table jobs add column baseline jsonb check (jsonb_typeof(baseline) = 'object');
      update jobs j set baseline = jsonb_build_object(
          'settings', coalesce((select jsonb_object_agg(s.key, s.definition -> 'default') from settings s join builds b on b.engine_id = s.engine_id where b.id = j.build_id), '{}') || first.settings,
          'conditions', '{}'::jsonb, 'buildId', j.build_id, 'targetFps', to_jsonb(j.target_fps))
        from (select distinct on (job_id) job_id, settings from runs where trial_id is null and deleted_at is null order by job_id, number) first
        where first.job_id = j.id;
      -- A rate that was decided is derived from its decision; the job itself holds what was asked for at first.
      update jobs j set target_fps = rated.target,
          baseline = case when baseline is null then null else jsonb_set(baseline, '{targetFps}', coalesce(to_jsonb(rated.target), 'null')) end
        from (select distinct on (job_id) job_id, (before ->> 'targetFps')::double precision as target from trials
          where kind = 'rate' and choice = 'keep' and deleted_at is null order by job_id, decided_at) rated
        where rated.job_id = j.id;
      update jobs set closing = jsonb_set(closing, '{overrides}', coalesce((
        select jsonb_agg(jsonb_set(o, '{proof}', case when coalesce(o ->> 'proof', '') = '' then 'null'::jsonb else ${verbatim("o ->> 'proof'")} end))
        from jsonb_array_elements(closing -> 'overrides') as o), '[]')) where closing is not null;
      alter table jobs enable trigger jobs_version;

      -- How much a rig varies by itself, brought up to date when its runs change.
      create table noise_floors (
        rig_id uuid primary key references rigs on delete cascade,
        sd double precision not null check (sd >= 0),
        freedom integer not null check (freedom > 0),
        made_at timestamptz not null default now()
      );

      -- What a trial comes to by the runs it has, while it is open: made once for one state of them.
      create table trial_outcomes (
        trial_id uuid primary key references trials on delete cascade,
        fingerprint text not null,
        understood jsonb not null,
        made_at timestamptz not null default now()
      );

      -- Written in the transaction of what it tells of; read by whoever was away.
      create table changes (
        id bigint generated always as identity primary key,
        at timestamptz not null default now(),
        actor text not null,
        topics jsonb not null check (jsonb_typeof(topics) = 'array')
      );
      create index changes_at on changes (at);

      create table idempotency_keys (
        key text primary key check (length(key) between 8 and 200),
        door text not null,
        digest text not null,
        status integer not null,
        answer jsonb not null,
        at timestamptz not null default now()
      );
      create index idempotency_keys_at on idempotency_keys (at);
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      drop table idempotency_keys, changes, trial_outcomes, noise_floors;
      alter table jobs drop column baseline;
      alter table trials drop constraint trials_kind_fkey, add constraint trials_kind_check
        check (kind in ('compare', 'screen', 'resolution', 'power', 'heat', 'clocks', 'memory', 'rate'));
      drop table trial_kinds;
      drop index run_summaries_method;
      alter table run_summaries drop column held;
      create table telemetry (
        run_id uuid not null references runs on delete cascade,
        role text not null,
        bytes bytea not null check (length(bytes) > 0 and length(bytes) % 8 = 0),
        primary key (run_id, role)
      );
      insert into telemetry select run_id, role, bytes from trace_chunks where role <> 'trace';
      delete from trace_chunks where role <> 'trace';
      alter table trace_chunks drop constraint trace_chunks_pkey, drop column role, add primary key (run_id, sequence);
      alter table runs add column crashed boolean not null default false;
      update runs set crashed = state = 'crashed';
      alter table runs drop column state;
      ${versioned.map((table) => `drop trigger ${table}_version on ${table}; alter table ${table} drop column version;`).join("\n      ")}
      drop function next_version();
    `);
  },
};
