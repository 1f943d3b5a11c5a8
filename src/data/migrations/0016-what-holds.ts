import type { QueryInterface } from "sequelize";

/**
 * A title's own rate may be another in some scene. A run's light may be overruled by a person, and a run be told
 * from memory. A rig keeps the conditions that it had on the bench last; of every job is kept which run tells how it stands,
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
    await context.sequelize.query(
      `alter table runs add column overruled jsonb, add column from_memory boolean not null default false`,
    );
    await context.sequelize.query(
      `alter table scenes add column fps double precision constraint scenes_fps_check check (fps between 1 and 1000)`,
    );
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`alter table runs drop column overruled, drop column from_memory`);
    await context.sequelize.query(`alter table scenes drop column fps`);
    await context.sequelize.query(`drop table job_holds`);
    await context.sequelize.query(`drop table bench_rigs`);
  },
};
