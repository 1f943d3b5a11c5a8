import { QueryTypes } from "sequelize";
import { store } from "./models";
import { transact } from "./transact";

/** True when a seed was not added before; the caller adds it after claiming it here. */
export async function claimSeed(name: string): Promise<boolean> {
  const rows = await store().query(
    `insert into seeds (name) values ($1) on conflict do nothing returning name`,
    { bind: [name], type: QueryTypes.SELECT },
  );
  return rows.length > 0;
}

/** What a seed put on the shelves, by its names. */
export interface SeededNames {
  rigs: string[];
  titles: string[];
  engines: string[];
  systems: string[];
  houseRules: string[];
  campaigns: string[];
}

const seededJobs = `
  select j.id, exists (select 1 from runs u where u.job_id = j.id and u.source <> 'simulated') as own
  from jobs j join rigs r on r.id = j.rig_id join titles t on t.id = j.title_id
  where r.name = any($1::text[]) and t.name = any($2::text[]) and exists (select 1 from runs u where u.job_id = j.id and u.source = 'simulated')`;

/** A seed's jobs: those that hold its runs, and of them those that somebody brought runs of their own into. */
export async function countSeededJobs({ rigs, titles }: SeededNames): Promise<{ jobs: number; own: number }> {
  const [found] = await store().query<{ jobs: number; own: number }>(
    `select count(*)::int as jobs, (count(*) filter (where own))::int as own from (${seededJobs}) s`,
    { bind: [rigs, titles], type: QueryTypes.SELECT },
  );
  return found ?? { jobs: 0, own: 0 };
}

/**
 * Takes a seed's jobs away, and what was on the shelves for them alone. A job with runs of somebody's own
 * stays, and all that it needs.
 */
export async function removeSeeded({
  rigs,
  titles,
  engines,
  systems,
  houseRules,
  campaigns,
}: SeededNames): Promise<void> {
  return transact(async () => {
    const sequelize = store();
    const gone = await sequelize.query<{ id: string }>(`select id from (${seededJobs}) s where not own`, {
      bind: [rigs, titles],
      type: QueryTypes.SELECT,
    });
    const ids = gone.map(({ id }) => id);
    for (const statement of [
      `delete from runs where job_id = any($1::uuid[])`,
      `delete from trials where job_id = any($1::uuid[])`,
      `delete from jobs where id = any($1::uuid[])`,
    ])
      await sequelize.query(statement, { bind: [ids] });
    for (const [statement, names] of [
      [
        `delete from campaigns c where name = any($1::text[]) and not exists (select 1 from campaign_jobs where campaign_id = c.id)`,
        campaigns,
      ],
      [
        `delete from titles t where name = any($1::text[]) and not exists (select 1 from jobs where title_id = t.id)
         and not exists (select 1 from campaign_titles where title_id = t.id)`,
        titles,
      ],
      [
        `delete from engines e where name = any($1::text[])
         and not exists (select 1 from builds b where b.engine_id = e.id and (exists (select 1 from jobs where build_id = b.id) or exists (select 1 from runs where build_id = b.id)))`,
        engines,
      ],
      [
        `delete from systems s where name = any($1::text[]) and not exists (select 1 from titles where system_id = s.id) and not exists (select 1 from engine_systems where system_id = s.id)`,
        systems,
      ],
      [
        `delete from rigs r where name = any($1::text[]) and not exists (select 1 from jobs where rig_id = r.id)`,
        rigs,
      ],
      [
        `delete from house_rules h where name = any($1::text[]) and not exists (select 1 from jobs where house_rules_id = h.id)
         and not exists (select 1 from campaigns where house_rules_id = h.id)`,
        houseRules,
      ],
    ] as const)
      await sequelize.query(statement, { bind: [names] });
    await sequelize.query(`update bench_state set conditions = null where rig_id is null`);
  });
}
