import { QueryTypes } from "sequelize";
import type { ComparedTrial } from "@/core/best";
import type { Settings } from "@/core/kit";
import type { ArmConditions } from "@/core/trial";
import { store } from "./models";

/** A trial whose arms were told apart, decided or of a campaign, with what it was made from. */
export interface ComparedRow extends Omit<ComparedTrial, "arms"> {
  /** The job's build. */
  buildId: string;
  /** The driver of the rig as it is now, where an arm names none. */
  driver: string;
  arms: { settings: Settings; conditions: ArmConditions; buildId: string | null }[];
  before: ArmConditions;
  /** Places of its arms among a campaign's, which `pairs` name then; null for pairs of the trial's own. */
  places: number[] | null;
}

/** Trials read at once, at most: the newest. */
const mostTrials = 5000;

/** Comparisons that came to pairs, of all jobs and campaigns, the oldest first. */
export async function comparedTrials(): Promise<ComparedRow[]> {
  const rows = await store().query<ComparedRow & object>(
    `select t2.system_id as "systemId", j.rig_id as "rigId", j.title_id as "titleId", t2.name as title, j.id as "jobId", t.id as "trialId", j.build_id as "buildId",
       coalesce((select v.spec -> 'driver' ->> 'version' from rig_revisions v where v.rig_id = j.rig_id order by v.number desc limit 1), '') as driver,
       t.arms, coalesce(t.before -> 'conditions', '{}') as before, coalesce(o.pairs, k.pairs) as pairs, case when o.pairs is null then k.arms end as places
     from trials t join jobs j on j.id = t.job_id join titles t2 on t2.id = j.title_id
     left join campaign_jobs k on k.trial_id = t.id
     cross join lateral (select case when jsonb_array_length(coalesce(t.outcome -> 'pairs', '[]')) > 0 then t.outcome -> 'pairs' end as pairs) o
     where t.kind in ('compare', 'power') and t.deleted_at is null and j.deleted_at is null and t2.retired_at is null and coalesce(o.pairs, k.pairs) is not null
     order by coalesce(t.decided_at, t.created_at) desc, t.id limit ${mostTrials}`,
    { type: QueryTypes.SELECT },
  );
  return rows.reverse();
}

/** The steady run with the least mean watts, of a title on a rig. */
export interface LeastWattsRow {
  systemId: string;
  rigId: string;
  title: string;
  jobId: string;
  runId: string;
  engine: string;
  powerMode: string | null;
  watts: number;
}

export async function leastWatts(): Promise<LeastWattsRow[]> {
  return store().query<LeastWattsRow & object>(
    `select distinct on (j.title_id, j.rig_id) t.system_id as "systemId", j.rig_id as "rigId", t.name as title, j.id as "jobId", u.id as "runId",
       e.name as engine, u.conditions ->> 'powerMode' as "powerMode", (m.summary -> 'channels' -> 'watts' ->> 'mean')::double precision as watts
     from runs u join run_summaries m on m.run_id = u.id join jobs j on j.id = u.job_id join titles t on t.id = j.title_id
     join builds b on b.id = u.build_id join engines e on e.id = b.engine_id
     where m.grade = 'steady' and u.state = 'whole' and u.deleted_at is null and j.deleted_at is null and t.retired_at is null and not coalesce(u.from_memory, false)
       and m.summary -> 'channels' -> 'watts' ->> 'mean' is not null
     order by j.title_id, j.rig_id, watts`,
    { type: QueryTypes.SELECT },
  );
}
