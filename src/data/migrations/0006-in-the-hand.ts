import type { QueryInterface } from "sequelize";

/** Systems whose picture nobody has said; a run's file, tags and edits; jobs left out. */
export const inTheHand = {
  name: "0006-in-the-hand",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      alter table systems drop constraint systems_screens_check;
      alter table systems add constraint systems_screens_check check (jsonb_typeof(screens) = 'array');

      alter table runs add column file_hash text check (length(file_hash) between 1 and 128);
      alter table runs add column scene text not null default '';
      alter table runs add column tags jsonb not null default '[]' check (jsonb_typeof(tags) = 'array');
      create index runs_file on runs (job_id, file_hash) where file_hash is not null;

      create table run_edits (
        id bigint primary key generated always as identity,
        run_id uuid not null references runs on delete cascade,
        at timestamptz not null default now(),
        actor text not null,
        changes jsonb not null check (jsonb_typeof(changes) = 'array')
      );
      create index run_edits_run on run_edits (run_id, id);

      alter table jobs add column deleted_at timestamptz;
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`drop table run_edits`);
  },
};
