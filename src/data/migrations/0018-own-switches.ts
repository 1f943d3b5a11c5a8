import type { QueryInterface } from "sequelize";

/** What is turned beside an engine's settings: options in a title, its copy, what an engine runs through, where a build came from. */
export const ownSwitches = {
  name: "0018-own-switches",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      alter table titles add column options jsonb not null default '[]' check (jsonb_typeof(options) = 'array');
      alter table titles add column copy jsonb check (copy is null or jsonb_typeof(copy) = 'object');
      alter table engines add column layers jsonb not null default '[]' check (jsonb_typeof(layers) = 'array');
      alter table builds add column link text not null default '';
      alter table builds add column sha256 text not null default '' check (sha256 = '' or sha256 ~ '^[0-9a-f]{64}$');
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      alter table titles drop column options, drop column copy;
      alter table engines drop column layers;
      alter table builds drop column link, drop column sha256;
    `);
  },
};
