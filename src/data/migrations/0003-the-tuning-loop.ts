import type { QueryInterface } from "sequelize";

/** Trials and sweeps with their decisions, faults, how a job is begun and how it was closed. */
export const theTuningLoop = {
  name: "0003-the-tuning-loop",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      create table trials (
        id uuid primary key default gen_random_uuid(),
        job_id uuid not null references jobs on delete restrict,
        number integer not null check (number > 0),
        kind text not null check (kind in ('compare', 'screen', 'resolution', 'power', 'heat', 'clocks', 'memory', 'rate')),
        name text not null check (length(trim(name)) between 1 and 160),
        arms jsonb not null check (jsonb_typeof(arms) = 'array' and jsonb_array_length(arms) > 0),
        rounds integer not null check (rounds between 1 and 40),
        cold boolean not null default false,
        plan jsonb not null check (jsonb_typeof(plan) = 'object'),
        before jsonb not null check (jsonb_typeof(before) = 'object'),
        created_at timestamptz not null default now(),
        choice text check (choice in ('keep', 'put back')),
        kept_arm integer check (kept_arm >= 0),
        reason text not null default '',
        outcome jsonb,
        decided_at timestamptz,
        deleted_at timestamptz,
        unique (job_id, number),
        check ((choice is null) = (decided_at is null)),
        check ((choice = 'keep') = (kept_arm is not null) or choice is null and kept_arm is null),
        check (kept_arm is null or kept_arm < jsonb_array_length(arms))
      );
      create index trials_decided on trials (decided_at desc) where deleted_at is null;

      alter table runs add column trial_id uuid references trials on delete restrict, add column arm integer check (arm >= 0),
        add constraint runs_arm_of_trial check ((trial_id is null) = (arm is null));
      create index runs_trial on runs (trial_id) where trial_id is not null;

      create table faults (
        id uuid primary key default gen_random_uuid(),
        run_id uuid not null references runs on delete cascade,
        kind text not null check (kind in ('picture', 'sound', 'control', 'crash', 'freeze', 'wrong speed', 'missing')),
        severity text not null check (severity in ('slight', 'visible', 'severe', 'blocking')),
        scene text not null default '',
        at_ms double precision check (at_ms >= 0),
        note text not null default '',
        workaround text not null default '',
        created_at timestamptz not null default now(),
        deleted_at timestamptz
      );
      create index faults_run on faults (run_id) where deleted_at is null;

      alter table jobs add column strategy text not null default 'climb' check (strategy in ('climb', 'descend', 'screen')),
        add column closing jsonb check (jsonb_typeof(closing) = 'object'),
        add constraint jobs_closed_with_closing check ((closed_at is null) = (closing is null));
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      alter table jobs drop constraint jobs_closed_with_closing, drop column closing, drop column strategy;
      drop table faults;
      alter table runs drop column trial_id, drop column arm;
      drop table trials;
    `);
  },
};
