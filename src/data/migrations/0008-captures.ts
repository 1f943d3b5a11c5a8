import type { QueryInterface } from "sequelize";

/** Runs measured from a video of the screen, with what the capture could show. */
export const captures = {
  name: "0008-captures",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      alter table runs drop constraint runs_source_check;
      alter table runs add constraint runs_source_check check (source in ('log', 'tally', 'simulated', 'capture'));
      alter table runs add column capture jsonb check (jsonb_typeof(capture) = 'object');
      alter table runs add constraint runs_capture_source check (source = 'capture' or capture is null);
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`alter table runs drop column capture`);
  },
};
