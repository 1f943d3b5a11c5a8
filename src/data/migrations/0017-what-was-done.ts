import type { QueryInterface } from "sequelize";

/** What somebody may change by mistake: every row of these is written down before and after, where a deed is under way. */
const mendable = [
  "rigs",
  "rig_revisions",
  "systems",
  "titles",
  "scenes",
  "engines",
  "engine_systems",
  "builds",
  "settings",
  "house_rules",
  "preflight_items",
  "engine_abilities",
  "jobs",
  "runs",
  "trials",
  "faults",
  "profile_values",
  "campaigns",
  "campaign_titles",
  "campaign_jobs",
  "campaign_answers",
  "other_publications",
  "bench_state",
  "bench_rigs",
];

/**
 * What was done, so that it can be undone: a deed is one write by somebody, with every row that it changed as it was
 * before and after. Rows are written down by triggers, by whatever door the write came.
 */
export const whatWasDone = {
  name: "0017-what-was-done",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      -- When a trial's runs were last mended: a decision made before that rests on what has since been changed.
      alter table trials add column mended_at timestamptz;
      -- A run's log as it was read, packed (gzip, RFC 1952): its columns can be read again.
      create table run_files (
        run_id uuid primary key references runs on delete cascade,
        name text not null check (length(name) between 1 and 255),
        bytes bytea not null
      );
      create table deeds (
        id uuid primary key default gen_random_uuid(),
        nr bigint generated always as identity unique,
        at timestamptz not null default now(),
        actor text not null,
        topics jsonb not null default '[]' check (jsonb_typeof(topics) = 'array'),
        undoes uuid references deeds on delete set null,
        undone_by uuid references deeds on delete set null
      );
      create index deeds_topics on deeds using gin (topics jsonb_path_ops);
      create index deeds_at on deeds (at);
      create table deed_rows (
        deed_id uuid not null references deeds on delete cascade,
        nr bigint generated always as identity,
        tbl text not null,
        before jsonb,
        after jsonb,
        primary key (deed_id, nr),
        check (before is not null or after is not null)
      );
      create function note_deed() returns trigger language plpgsql as $$
      declare
        deed text := current_setting('lamp.deed', true);
        was jsonb := case when tg_op <> 'INSERT' then to_jsonb(old) end;
        is_now jsonb := case when tg_op <> 'DELETE' then to_jsonb(new) end;
      begin
        if deed is null or deed = '' then return null; end if;
        if tg_op = 'UPDATE' and was - 'version' = is_now - 'version' then return null; end if;
        insert into deed_rows (deed_id, tbl, before, after) values (deed::uuid, tg_table_name, was, is_now);
        return null;
      end $$;
      ${mendable
        .map(
          (table) =>
            `create trigger ${table}_deed after insert or update or delete on ${table} for each row execute function note_deed();`,
        )
        .join("\n      ")}`);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(
      `${mendable.map((table) => `drop trigger ${table}_deed on ${table};`).join("\n")} drop function note_deed(); alter table trials drop column mended_at; drop table deed_rows; drop table deeds; drop table run_files;`,
    );
  },
};
