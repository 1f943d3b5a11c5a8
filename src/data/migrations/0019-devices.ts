import type { QueryInterface } from "sequelize";

/** Devices that measure themselves: a token bound to one rig, and the short code that it is traded for. */
export const devices = {
  name: "0019-devices",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      alter table programs add column rig_id uuid references rigs on delete cascade;
      create index programs_of_rig on programs (rig_id) where rig_id is not null and revoked_at is null;
      create table pairings (
        digest text primary key,
        rig_id uuid not null references rigs on delete cascade,
        made_by text not null,
        ends_at timestamptz not null
      );
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      drop table pairings;
      delete from programs where rig_id is not null;
      alter table programs drop column rig_id;
    `);
  },
};
