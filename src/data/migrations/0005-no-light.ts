import type { QueryInterface } from "sequelize";

/** A run too short to judge has figures and no light. */
export const noLight = {
  name: "0005-no-light",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`alter table run_summaries alter column grade drop not null`);
  },
};
