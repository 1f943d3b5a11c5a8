import type { QueryInterface } from "sequelize";

/** Campaigns over many titles; what engines are able to; faults that can be searched in words. */
export const campaigned = {
  name: "0009-campaigns",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      create table campaigns (
        id uuid primary key default gen_random_uuid(),
        version integer not null default 1,
        name text not null check (length(name) between 1 and 120),
        question text not null check (question in ('which is best', 'what changed', 'what it manages', 'which scale and mode')),
        house_rules_id uuid not null references house_rules,
        plan jsonb not null check (jsonb_typeof(plan) = 'object'),
        run_order jsonb not null check (jsonb_typeof(run_order) = 'array'),
        created_at timestamptz not null default now(),
        deleted_at timestamptz
      );
      create trigger campaigns_version before update on campaigns for each row execute function next_version();

      create table campaign_titles (
        campaign_id uuid not null references campaigns on delete cascade,
        title_id uuid not null references titles,
        position integer not null,
        scene text not null default '',
        extra integer not null default 0 check (extra between 0 and 20),
        primary key (campaign_id, title_id)
      );

      create table campaign_jobs (
        campaign_id uuid not null references campaigns on delete cascade,
        title_id uuid not null references titles,
        rig_id uuid not null references rigs,
        job_id uuid not null references jobs on delete cascade,
        trial_id uuid references trials on delete cascade,
        arms integer[] not null,
        fingerprint text,
        pairs jsonb check (jsonb_typeof(pairs) = 'array'),
        primary key (campaign_id, title_id, rig_id)
      );
      create index campaign_jobs_job on campaign_jobs (job_id);
      create index campaign_jobs_trial on campaign_jobs (trial_id);

      create table campaign_answers (
        campaign_id uuid not null references campaigns on delete cascade,
        title_id uuid not null references titles,
        arm integer not null check (arm >= 0),
        round integer not null check (round >= 1),
        answer text not null check (answer in ('won''t start', 'crashed', 'skipped', 'not for this engine')),
        note text not null default '' check (length(note) <= 400),
        actor text not null,
        at timestamptz not null default now(),
        primary key (campaign_id, title_id, arm, round)
      );

      create table campaign_claims (
        campaign_id uuid not null references campaigns on delete cascade,
        title_id uuid not null references titles,
        arm integer not null,
        round integer not null,
        taker text not null check (length(taker) between 1 and 80),
        at timestamptz not null default now(),
        primary key (campaign_id, title_id, arm, round)
      );

      create table engine_abilities (
        engine_id uuid not null references engines on delete cascade,
        ability text not null check (length(ability) between 1 and 80),
        able boolean not null,
        note text not null default '' check (length(note) <= 400),
        checked_by text not null,
        checked_at timestamptz not null default now(),
        primary key (engine_id, ability)
      );
      alter table titles add column needs jsonb not null default '[]' check (jsonb_typeof(needs) = 'array');

      create table other_publications (
        id uuid primary key default gen_random_uuid(),
        from_whom text not null default '' check (length(from_whom) <= 120),
        publication jsonb not null check (jsonb_typeof(publication) = 'object'),
        added_at timestamptz not null default now()
      );

      -- What lists over thousands of runs read, beside the summary that is too large to open for each.
      alter table run_summaries
        add column duration_ms double precision generated always as ((summary ->> 'durationMs')::double precision) stored,
        add column reported_speed double precision generated always as ((summary ->> 'reportedSpeedPercent')::double precision) stored;

      create extension if not exists pg_trgm;
      alter table faults add column said text generated always as (lower(kind || ' ' || severity || ' ' || scene || ' ' || note || ' ' || workaround)) stored;
      create index faults_words on faults using gin (to_tsvector('simple', said));
      create index faults_letters on faults using gin (said gin_trgm_ops);
      create index faults_newest on faults (created_at desc, id) where deleted_at is null;
      create index jobs_title_rig on jobs (title_id, rig_id) where deleted_at is null;
      create index runs_crashed on runs (job_id) where state = 'crashed' and deleted_at is null;
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      drop table campaign_claims; drop table campaign_answers; drop table campaign_jobs; drop table campaign_titles; drop table campaigns;
      alter table run_summaries drop column duration_ms, drop column reported_speed; drop table other_publications; drop table engine_abilities; alter table titles drop column needs; alter table faults drop column said`);
  },
};
