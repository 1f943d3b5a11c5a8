import type { QueryInterface } from "sequelize";

/** Pre-flight items and their ticks, what is known of a title's limits, and what lists are sorted by. */
export const settingTheBench = {
  name: "0002-setting-the-bench",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      create table preflight_items (
        id uuid primary key default gen_random_uuid(),
        position integer not null check (position >= 0),
        definition jsonb not null check (jsonb_typeof(definition) = 'object'),
        own boolean not null default true
      );
      alter table runs add column preflight jsonb not null default '[]' check (jsonb_typeof(preflight) = 'array');
      alter table titles add column patches jsonb not null default '[]' check (jsonb_typeof(patches) = 'array');
      alter table engines add column back_ends jsonb not null default '[]' check (jsonb_typeof(back_ends) = 'array');
      create index titles_in_use on titles (name) where retired_at is null;
      create index rigs_in_use on rigs (name) where retired_at is null;
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      drop index rigs_in_use, titles_in_use;
      alter table engines drop column back_ends;
      alter table titles drop column patches;
      alter table runs drop column preflight;
      drop table preflight_items;
    `);
  },
};
