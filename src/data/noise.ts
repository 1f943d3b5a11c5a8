import { QueryTypes } from "sequelize";
import type { NoiseFloor } from "@/core/compare";
import { store } from "./models";

/** A rig's noise floor as kept; null while it has no repeats. */
export async function findNoise(rigId: string): Promise<NoiseFloor | null> {
  const rows = await store().query<NoiseFloor & object>(
    `select sd, freedom from noise_floors where rig_id = $1`,
    { bind: [rigId], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

export async function putNoise(rigId: string, floor: NoiseFloor | null): Promise<void> {
  if (floor)
    await store().query(
      `insert into noise_floors (rig_id, sd, freedom) values ($1, $2, $3)
       on conflict (rig_id) do update set sd = excluded.sd, freedom = excluded.freedom, made_at = now()`,
      { bind: [rigId, floor.sd, floor.freedom] },
    );
  else await store().query(`delete from noise_floors where rig_id = $1`, { bind: [rigId] });
}

/**
 * Rates of repeats on a rig: runs of one job with the same settings, conditions and build, in groups of two and
 * more. Held runs show no spread and are left out.
 */
export async function repeatsOnRig(rigId: string): Promise<number[][]> {
  const rows = await store().query<{ rates: number[] }>(
    `select array_agg(coalesce((m.summary ->> 'reportedSpeedPercent')::double precision, m.average_fps) order by r.number) as rates
     from runs r join run_summaries m on m.run_id = r.id join jobs j on j.id = r.job_id
     where j.rig_id = $1 and j.deleted_at is null and r.deleted_at is null and r.state = 'whole' and r.cache_state <> 'cold' and not r.from_memory and (r.source <> 'tally' or (m.summary -> 'looked' ->> 'looks')::int >= 3) and m.average_fps > 0 and not m.held
     group by r.job_id, r.build_id, r.rig_revision_id, r.settings, r.conditions - 'roomC' - 'capturePath' - 'soundPath'
     having count(*) > 1`,
    { bind: [rigId], type: QueryTypes.SELECT },
  );
  return rows.map(({ rates }) => rates);
}

export async function rigOfJob(jobId: string): Promise<string | null> {
  const rows = await store().query<{ rigId: string }>(`select rig_id as "rigId" from jobs where id = $1`, {
    bind: [jobId],
    type: QueryTypes.SELECT,
  });
  return rows[0]?.rigId ?? null;
}
