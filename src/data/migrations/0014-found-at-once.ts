import type { QueryInterface } from "sequelize";

const heads = [
  ["kind", "kind"],
  ["name", "name"],
  ["made_at", "madeAt"],
];

/**
 * What stands in a profile is found by its place, however often it was changed; what a publication is called,
 * without reading it.
 */
export const foundAtOnce = {
  name: "0014-found-at-once",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(
      `create index profile_values_newest on profile_values (rig_id, engine_id, layer, system_id, title_id, build_id, key, id desc)`,
    );
    for (const [column, field] of heads)
      await context.sequelize.query(
        `alter table other_publications add column ${column} text generated always as (publication ->> '${field}') stored`,
      );
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`drop index profile_values_newest`);
    for (const [column] of heads)
      await context.sequelize.query(`alter table other_publications drop column ${column}`);
  },
};
