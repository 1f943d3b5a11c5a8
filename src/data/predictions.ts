import { QueryTypes } from "sequelize";
import type { ObservationRow } from "@/core/records";
import { store } from "./models";

/** Rows that predictions are made from, at most; the newest ones where there are more. */
const mostRows = 3000;

/** What whole, warm runs measured, one row for each title with an engine on a rig in a mode at a scale. */
export async function listObservations(): Promise<ObservationRow[]> {
  return store().query<ObservationRow & object>(
    `select j.title_id as "titleId", b.engine_id as "engineId", j.rig_id as "rigId", coalesce(u.conditions ->> 'powerMode', '') as "powerMode", coalesce(u.conditions ->> 'clocks', '') as clocks,
       k.scale, p.pixels, avg(coalesce(m.reported_speed * t.native_fps / 100, m.average_fps)) as fps, bool_and(m.held or coalesce(m.reported_speed >= 99, false)) as held
     from runs u join run_summaries m on m.run_id = u.id join jobs j on j.id = u.job_id join titles t on t.id = j.title_id join builds b on b.id = u.build_id
     join lateral (select sum((x ->> 'width')::double precision * (x ->> 'height')::double precision) / 1e6 as pixels from systems s, jsonb_array_elements(s.screens) x where s.id = t.system_id) p on true
     left join lateral (select c.key from settings c where c.engine_id = b.engine_id and c.definition ->> 'purpose' = 'scale' order by c.position limit 1) g on true
     cross join lateral (select case when jsonb_typeof(u.settings -> g.key) = 'number' then greatest((u.settings ->> g.key)::double precision, 0.1) else 1 end as scale) k
     where u.deleted_at is null and j.deleted_at is null and u.state = 'whole' and u.cache_state <> 'cold' and m.average_fps > 0 and p.pixels > 0
     group by 1, 2, 3, 4, 5, 6, 7 order by max(u.made_at) desc limit ${mostRows}`,
    { type: QueryTypes.SELECT },
  );
}
