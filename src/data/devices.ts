import { QueryTypes } from "sequelize";
import type { LiveRun } from "@/core/records";
import type { ChannelRole, traceRole } from "@/core/trace";
import { store } from "./models";

const isoOf = (of: string) => `to_char(${of} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`;

/** Runs that are open now, the newest first. */
export async function listGrowing(): Promise<LiveRun[]> {
  return store().query<LiveRun>(
    `select r.id as "runId", r.number, r.label, j.id as "jobId", t.name as title, g.id as "rigId", g.name as rig,
       e.name || ' ' || b.version as engine, (r.yardstick->>'targetFps')::float8 as "targetFps",
       (r.yardstick->>'nativeFps')::float8 as "nativeFps", r.rules->'measuring' as measuring, r.form, r.made_at as "openedAt",
       array(select z.name from scenes z where z.title_id = t.id order by z.worst desc, z.position) as scenes,
       coalesce((select jsonb_agg(jsonb_build_object('label', k.label, 'startMs', k.start_ms,
           'endMs', case when k.end_ms > k.start_ms or k.position < k.last then k.end_ms end) order by k.position)
         from (select *, max(position) over () as last from marks where run_id = r.id) k), '[]') as marks,
       (select max(at) from trace_chunks where run_id = r.id) as "lastAt"
     from runs r join jobs j on j.id = r.job_id join titles t on t.id = j.title_id join rigs g on g.id = j.rig_id
       join builds b on b.id = r.build_id join engines e on e.id = b.engine_id
     where r.state = 'open' and r.deleted_at is null and j.deleted_at is null order by r.made_at desc limit 100`,
    { type: QueryTypes.SELECT },
  );
}

/** Devices that are paired with a rig, the last seen first. */
export async function listDevices(): Promise<
  { id: string; name: string; rigId: string; rig: string; pairedAt: string; seenAt: string | null }[]
> {
  return store().query(
    `select p.id, p.name, p.rig_id as "rigId", g.name as rig, p.made_at as "pairedAt", p.used_at as "seenAt"
     from programs p join rigs g on g.id = p.rig_id where p.revoked_at is null order by p.used_at desc nulls last, p.made_at desc limit 200`,
    { type: QueryTypes.SELECT },
  );
}

/** The open job of a rig that was worked at last; null where it has none. */
export async function lastOpenJob(rigId: string): Promise<string | null> {
  const [row] = await store().query<{ id: string }>(
    `select j.id from jobs j left join lateral (select max(made_at) as at from runs where job_id = j.id and deleted_at is null) l on true
     where j.rig_id = $1 and j.closed_at is null and j.deleted_at is null order by greatest(j.created_at, l.at) desc limit 1`,
    { bind: [rigId], type: QueryTypes.SELECT },
  );
  return row?.id ?? null;
}

export interface KeptPiece {
  role: ChannelRole | typeof traceRole;
  sequence: number;
  values: number[];
  /** When it came, to the microsecond. */
  at: string;
}

/** Pieces of a run that came at a moment or later, in the order they came. */
export async function listPieces(runId: string, since: string | null, most: number): Promise<KeptPiece[]> {
  const rows = await store().query<Omit<KeptPiece, "values"> & { bytes: Buffer }>(
    `select role, sequence, bytes, ${isoOf("at")} as at from trace_chunks
     where run_id = $1 and at >= coalesce($2::timestamptz, '-infinity') order by trace_chunks.at, role, sequence limit $3`,
    { bind: [runId, since, most], type: QueryTypes.SELECT },
  );
  return rows.map(({ bytes, ...rest }) => ({
    ...rest,
    values: Array.from({ length: bytes.length / 4 }, (_, at) =>
      Number(bytes.readFloatLE(4 * at).toPrecision(7)),
    ),
  }));
}

/** How many runs grow now. */
export async function countGrowing(): Promise<number> {
  const [row] = await store().query<{ count: number }>(
    `select count(*)::int as count from runs r join jobs j on j.id = r.job_id where r.state = 'open' and r.deleted_at is null and j.deleted_at is null`,
    { type: QueryTypes.SELECT },
  );
  return row?.count ?? 0;
}
