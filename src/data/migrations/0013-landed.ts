import type { QueryInterface } from "sequelize";

/**
 * Whether what a decision keeps has reached its title's layer: decisions made before there were layers are
 * landed once, in the background.
 */
export const landed = {
  name: "0013-landed",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`alter table trials add column landed boolean not null default false`);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`alter table trials drop column landed`);
  },
};
