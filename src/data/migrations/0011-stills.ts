import type { QueryInterface } from "sequelize";

/**
 * Small pictures of a run that was measured from a video: its marks, and where pictures stood longest. And when
 * a run last grew.
 */
export const stills = {
  name: "0011-stills",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      create table stills (
        id uuid primary key default gen_random_uuid(),
        run_id uuid not null references runs on delete cascade,
        position integer not null check (position between 0 and 11),
        at_ms double precision not null check (at_ms >= 0),
        why text not null check (why in ('mark', 'slow')),
        label text not null check (length(label) <= 120),
        lasts_ms double precision not null check (lasts_ms >= 0),
        width integer not null check (width between 1 and 256),
        height integer not null check (height between 1 and 256),
        png bytea not null,
        unique (run_id, position)
      );

      -- When a run last grew: one that nobody finishes is ended some day.
      alter table trace_chunks add column at timestamptz not null default now();
      create index runs_open on runs (made_at) where state = 'open';
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(
      `drop table stills; drop index runs_open; alter table trace_chunks drop column at`,
    );
  },
};
