import type { QueryInterface } from "sequelize";

/**
 * People, programs and links that may see or change something; who decided a trial; the newest run of a job at
 * once.
 */
export const trusted = {
  name: "0010-trusted",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      create table people (
        id uuid primary key default gen_random_uuid(),
        name text not null check (length(trim(name)) between 1 and 60),
        may text not null check (may in ('tunes', 'reads')),
        passphrase text not null,
        made_at timestamptz not null default now(),
        changed_at timestamptz not null default now()
      );
      create unique index people_name on people (lower(name));

      create table sessions (
        id uuid primary key default gen_random_uuid(),
        person_id uuid not null references people on delete cascade,
        digest text not null unique,
        address text not null,
        agent text not null,
        made_at timestamptz not null default now(),
        seen_at timestamptz not null default now(),
        ended_at timestamptz
      );
      create index sessions_person on sessions (person_id) where ended_at is null;

      create table programs (
        id uuid primary key default gen_random_uuid(),
        name text not null check (length(trim(name)) between 1 and 60),
        may text not null check (may in ('tunes', 'reads', 'metrics')),
        digest text not null unique,
        made_by text not null,
        made_at timestamptz not null default now(),
        used_at timestamptz,
        revoked_at timestamptz
      );

      create table shared_links (
        id uuid primary key default gen_random_uuid(),
        what text not null check (what in ('board', 'device', 'campaign', 'recipe')),
        of_id text not null default '',
        names boolean not null,
        notes boolean not null,
        digest text not null unique,
        made_by text not null,
        made_at timestamptz not null default now(),
        used_at timestamptz,
        revoked_at timestamptz
      );

      -- As the limiter of tries to sign in keeps them.
      create table sign_in_tries (
        key varchar(255) primary key,
        points integer not null default 0,
        expire bigint
      );

      alter table trials add column decided_by text;
      create index runs_telling on runs (job_id, (trial_id is null) desc, number desc) where deleted_at is null and state <> 'open';
      create index titles_letters on titles using gin (lower(name) gin_trgm_ops);
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      drop index runs_telling; drop index titles_letters; alter table trials drop column decided_by;
      drop table sign_in_tries; drop table shared_links; drop table programs; drop table sessions; drop table people`);
  },
};
