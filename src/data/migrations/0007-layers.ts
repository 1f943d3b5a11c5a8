import type { QueryInterface } from "sequelize";

/**
 * Profiles in layers: values as rows of their own, the newer over the older; the files that an engine keeps its
 * settings in.
 */
export const layered = {
  name: "0007-layers",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      create table profile_values (
        id bigint primary key generated always as identity,
        engine_id uuid not null references engines on delete cascade,
        rig_id uuid not null references rigs on delete cascade,
        layer text not null check (layer in ('rig', 'system', 'title')),
        system_id uuid references systems on delete cascade,
        title_id uuid references titles on delete cascade,
        build_id uuid references builds on delete cascade,
        key text not null check (length(key) between 1 and 120),
        value jsonb check (jsonb_typeof(value) in ('string', 'number', 'boolean')),
        origin jsonb not null check (jsonb_typeof(origin) = 'object'),
        measured_on jsonb check (jsonb_typeof(measured_on) = 'object'),
        at timestamptz not null default now(),
        actor text not null,
        check ((layer = 'system') = (system_id is not null)),
        check ((layer = 'title') = (title_id is not null))
      );
      create index profile_values_of on profile_values (rig_id, engine_id, id);

      alter table engines add column config_files jsonb not null default '[]' check (jsonb_typeof(config_files) = 'array');
    `);
  },
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`drop table profile_values; alter table engines drop column config_files`);
  },
};
