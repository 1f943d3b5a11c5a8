import type { QueryInterface } from "sequelize";

/** What stands in a profile is found by its place, however often it was changed. */
export const foundAtOnce = {
  name: "0014-found-at-once",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(
      `create index profile_values_newest on profile_values (rig_id, engine_id, layer, system_id, title_id, build_id, key, id desc)`,
    );
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`drop index profile_values_newest`);
  },
};
