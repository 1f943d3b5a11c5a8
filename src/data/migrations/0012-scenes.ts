import type { QueryInterface } from "sequelize";

const placed = ["campaign_jobs", "campaign_answers", "campaign_claims"] as const;
const rest = {
  campaign_jobs: "rig_id",
  campaign_answers: "arm, round",
  campaign_claims: "arm, round",
} as const;

/**
 * A title may stand in a campaign with several scenes: what belongs to it is kept by its place there, counted
 * from 0.
 */
export const scenes = {
  name: "0012-scenes",
  async up({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      alter table campaign_titles rename column position to place;
      update campaign_titles set place = place - 1;
      ${placed
        .map(
          (table) => `
      alter table ${table} add column place integer;
      update ${table} k set place = t.place from campaign_titles t where t.campaign_id = k.campaign_id and t.title_id = k.title_id;
      delete from ${table} where place is null;
      alter table ${table} alter column place set not null;
      alter table ${table} drop constraint ${table}_pkey, add primary key (campaign_id, place, ${rest[table]});
      alter table ${table} drop column title_id;`,
        )
        .join("")}
      alter table campaign_titles drop constraint campaign_titles_pkey, add primary key (campaign_id, place),
        add constraint campaign_titles_once unique (campaign_id, title_id, scene), add constraint campaign_titles_place check (place >= 0);
    `);
  },
  /** Of a title with several scenes the first stays. */
  async down({ context }: { context: QueryInterface }) {
    await context.sequelize.query(`
      delete from campaign_titles t where exists (select 1 from campaign_titles o where o.campaign_id = t.campaign_id and o.title_id = t.title_id and o.place < t.place);
      ${placed
        .map(
          (table) => `
      alter table ${table} add column title_id uuid references titles;
      update ${table} k set title_id = t.title_id from campaign_titles t where t.campaign_id = k.campaign_id and t.place = k.place;
      delete from ${table} where title_id is null;
      alter table ${table} alter column title_id set not null;
      alter table ${table} drop constraint ${table}_pkey, add primary key (campaign_id, title_id, ${rest[table]});
      alter table ${table} drop column place;`,
        )
        .join("")}
      alter table campaign_titles drop constraint campaign_titles_pkey, drop constraint campaign_titles_once, drop constraint campaign_titles_place,
        add primary key (campaign_id, title_id);
      alter table campaign_titles rename column place to position;
      update campaign_titles set position = position + 1;
    `);
  },
};
