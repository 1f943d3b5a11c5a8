import type { QueryInterface } from "sequelize";

/** Kit, jobs, runs and their traces. */
export const bench = {
  name: "0001-bench",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      create table rigs (
        id uuid primary key default gen_random_uuid(),
        name text not null check (length(trim(name)) between 1 and 80),
        created_at timestamptz not null default now(),
        retired_at timestamptz
      );
      create unique index rigs_name on rigs (lower(name));

      create table rig_revisions (
        id uuid primary key default gen_random_uuid(),
        rig_id uuid not null references rigs on delete cascade,
        number integer not null check (number > 0),
        note text not null default '',
        spec jsonb not null check (jsonb_typeof(spec) = 'object'),
        created_at timestamptz not null default now(),
        unique (rig_id, number)
      );

      create table systems (
        id uuid primary key default gen_random_uuid(),
        name text not null check (length(trim(name)) between 1 and 120),
        screens jsonb not null check (jsonb_typeof(screens) = 'array' and jsonb_array_length(screens) > 0),
        rates jsonb not null check (jsonb_typeof(rates) = 'array' and jsonb_array_length(rates) > 0),
        note text not null default ''
      );
      create unique index systems_name on systems (lower(name));

      create table titles (
        id uuid primary key default gen_random_uuid(),
        system_id uuid not null references systems on delete restrict,
        name text not null check (length(trim(name)) between 1 and 120),
        native_fps double precision not null check (native_fps > 0),
        tied boolean not null,
        region text not null default '',
        hardness text not null check (hardness in ('easy', 'typical', 'hard')),
        memory_needed_gb double precision check (memory_needed_gb > 0),
        notes text not null default '',
        created_at timestamptz not null default now(),
        retired_at timestamptz
      );
      create unique index titles_name on titles (system_id, lower(name), lower(region));

      create table scenes (
        id uuid primary key default gen_random_uuid(),
        title_id uuid not null references titles on delete cascade,
        position integer not null check (position >= 0),
        name text not null check (length(trim(name)) > 0),
        how text not null default '',
        seconds double precision check (seconds > 0),
        worst boolean not null default false,
        unique (title_id, position)
      );

      create table engines (
        id uuid primary key default gen_random_uuid(),
        name text not null check (length(trim(name)) between 1 and 120),
        notes text not null default ''
      );
      create unique index engines_name on engines (lower(name));

      create table engine_systems (
        engine_id uuid not null references engines on delete cascade,
        system_id uuid not null references systems on delete restrict,
        primary key (engine_id, system_id)
      );

      create table builds (
        id uuid primary key default gen_random_uuid(),
        engine_id uuid not null references engines on delete cascade,
        version text not null check (length(trim(version)) > 0),
        branch text not null check (branch in ('stable', 'experimental')),
        date date,
        notes text not null default '',
        unique (engine_id, version, branch)
      );

      create table settings (
        id uuid primary key default gen_random_uuid(),
        engine_id uuid not null references engines on delete cascade,
        position integer not null,
        key text not null,
        definition jsonb not null check (jsonb_typeof(definition) = 'object' and definition ->> 'key' = key),
        unique (engine_id, key)
      );

      create table house_rules (
        id uuid primary key default gen_random_uuid(),
        name text not null check (length(trim(name)) between 1 and 80),
        rules jsonb not null check (jsonb_typeof(rules) = 'object'),
        is_default boolean not null default false
      );
      create unique index house_rules_name on house_rules (lower(name));
      create unique index house_rules_one_default on house_rules (is_default) where is_default;

      create table jobs (
        id uuid primary key default gen_random_uuid(),
        rig_id uuid not null references rigs on delete restrict,
        title_id uuid not null references titles on delete restrict,
        build_id uuid not null references builds on delete restrict,
        house_rules_id uuid not null references house_rules on delete restrict,
        aim text not null check (aim in ('speed', 'picture', 'battery')),
        target_fps double precision check (target_fps > 0),
        created_at timestamptz not null default now(),
        closed_at timestamptz
      );
      create index jobs_rig on jobs (rig_id);
      create index jobs_title on jobs (title_id);
      create index jobs_created on jobs (created_at desc);

      create table runs (
        id uuid primary key default gen_random_uuid(),
        job_id uuid not null references jobs on delete restrict,
        number integer not null check (number > 0),
        rig_revision_id uuid not null references rig_revisions on delete restrict,
        build_id uuid not null references builds on delete restrict,
        source text not null check (source in ('log', 'tally', 'simulated')),
        form text not null check (form in ('frames', 'interval')),
        label text not null default '',
        file_name text,
        made_at timestamptz not null default now(),
        settings jsonb not null check (jsonb_typeof(settings) = 'object'),
        conditions jsonb not null check (jsonb_typeof(conditions) = 'object'),
        rules jsonb not null check (jsonb_typeof(rules) = 'object'),
        yardstick jsonb not null check (jsonb_typeof(yardstick) = 'object'),
        cache_state text not null check (cache_state in ('warm', 'cold', 'unknown')),
        crashed boolean not null default false,
        skipped_rows integer not null default 0 check (skipped_rows >= 0),
        notes text not null default '',
        deleted_at timestamptz,
        unique (job_id, number)
      );
      create index runs_made on runs (made_at desc) where deleted_at is null;

      create table trace_chunks (
        run_id uuid not null references runs on delete cascade,
        sequence integer not null check (sequence >= 0),
        bytes bytea not null check (length(bytes) > 0 and length(bytes) % 4 = 0),
        primary key (run_id, sequence)
      );

      create table telemetry (
        run_id uuid not null references runs on delete cascade,
        role text not null,
        bytes bytea not null check (length(bytes) > 0 and length(bytes) % 8 = 0),
        primary key (run_id, role)
      );

      create table marks (
        run_id uuid not null references runs on delete cascade,
        position integer not null check (position >= 0),
        label text not null,
        start_ms double precision not null check (start_ms >= 0),
        end_ms double precision not null,
        primary key (run_id, position),
        check (end_ms >= start_ms)
      );

      create table run_summaries (
        run_id uuid primary key references runs on delete cascade,
        method_version integer not null,
        grade text not null check (grade in ('steady', 'flickers', 'dims', 'gutters', 'dark')),
        average_fps double precision not null check (average_fps >= 0),
        summary jsonb not null,
        verdict jsonb not null
      );

      create table bench_state (
        id integer primary key default 1 check (id = 1),
        rig_id uuid references rigs on delete set null,
        job_id uuid references jobs on delete set null,
        house_rules_id uuid references house_rules on delete set null,
        conditions jsonb
      );
      insert into bench_state default values;

      create table seeds (
        name text primary key,
        added_at timestamptz not null default now()
      );
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      drop table seeds, bench_state, run_summaries, marks, telemetry, trace_chunks, runs, jobs, house_rules,
        settings, builds, engine_systems, engines, scenes, titles, systems, rig_revisions, rigs;
    `);
  },
};
