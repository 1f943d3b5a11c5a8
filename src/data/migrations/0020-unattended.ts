import type { QueryInterface } from "sequelize";

/** Trials that a device runs by itself, and what it did meanwhile. */
export const unattended = {
  name: "0020-unattended",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      create table unattended (
        trial_id uuid primary key references trials on delete cascade,
        terms jsonb not null,
        set_by text not null,
        set_at timestamptz not null default now(),
        ended_at timestamptz,
        ended_why text not null default '',
        taken_by uuid references programs on delete set null,
        taken_at timestamptz
      );
      create index unattended_waiting on unattended (set_at) where ended_at is null;
      create table unattended_events (
        id bigint generated always as identity primary key,
        trial_id uuid not null references trials on delete cascade,
        at timestamptz not null default clock_timestamp(),
        what text not null check (what in ('set', 'taken', 'waits', 'began', 'ended', 'crashed', 'hung', 'round', 'refused', 'told', 'stopped')),
        text text not null default '',
        run_id uuid references runs on delete set null,
        temperature_c double precision
      );
      create index unattended_events_of on unattended_events (trial_id, id);
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`drop table unattended_events; drop table unattended;`);
  },
};
