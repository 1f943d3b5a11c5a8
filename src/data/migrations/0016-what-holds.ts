import type { QueryInterface } from "sequelize";

/**
 * A rig keeps the conditions that it had on the bench last; of every job is kept which run tells how it stands,
 * and what holds there.
 */
export const whatHolds = {
  name: "0016-what-holds",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(
      `create table bench_rigs (rig_id uuid primary key references rigs (id) on delete cascade, conditions jsonb not null)`,
    );
    await context.sequelize.query(
      `insert into bench_rigs select rig_id, conditions from bench_state where rig_id in (select id from rigs) and conditions is not null`,
    );
    await context.sequelize.query(
      `create table job_holds (job_id uuid primary key references jobs (id) on delete cascade,
         run_id uuid references runs (id) on delete cascade, settings jsonb not null, conditions jsonb not null, target double precision)`,
    );
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`drop table job_holds`);
    await context.sequelize.query(`drop table bench_rigs`);
  },
};
