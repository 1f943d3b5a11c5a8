import type { QueryInterface } from "sequelize";

const rights = (list: string) =>
  `alter table programs drop constraint programs_may_check, add constraint programs_may_check check (may in (${list}))`;

/** A program's token may be for bringing runs in, without the right to tune. */
export const scopedTokens = {
  name: "0015-scoped-tokens",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(rights("'metrics', 'reads', 'runs', 'tunes'"));
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`update programs set may = 'reads' where may = 'runs'`);
    await context.sequelize.query(rights("'metrics', 'reads', 'tunes'"));
  },
};
