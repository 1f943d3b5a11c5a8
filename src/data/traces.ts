import { QueryTypes } from "sequelize";
import type { CaptureFacts } from "@/core/kit";
import { traceOf, traceRole, type KeptOutline, type KeptTrace, type Mark, type Trace } from "@/core/trace";
import { RunMark, store } from "./models";

/** Bytes of a trace in one row; a million frames are four of them. */
const chunkBytes = 1 << 20;

/** One piece of a run: whose it is, and its place. */
export interface Chunk {
  role: string;
  sequence: number;
  bytes: Buffer;
}

/** A whole trace in the pieces it is kept in; they share its memory. */
export function chunksOf({ parts }: KeptTrace): Chunk[] {
  return parts.flatMap(({ role, values }) => {
    const bytes = Buffer.from(values.buffer, values.byteOffset, values.byteLength);
    return Array.from({ length: Math.ceil(bytes.length / chunkBytes) }, (_, sequence) => ({
      role,
      sequence,
      bytes: bytes.subarray(sequence * chunkBytes, (sequence + 1) * chunkBytes),
    }));
  });
}

/** Appends a piece to an open run. @returns false for one that is there already: it changes nothing */
export async function appendChunk(runId: string, { role, sequence, bytes }: Chunk): Promise<boolean> {
  const made = await store().query(
    `insert into trace_chunks (run_id, role, sequence, bytes) values ($1, $2, $3, $4) on conflict do nothing returning sequence`,
    { bind: [runId, role, sequence, bytes], type: QueryTypes.SELECT },
  );
  return made.length > 0;
}

/** Sequences that are missing of a run's roles, each from 0 to the highest there is. */
export async function missingChunks(runId: string): Promise<{ role: string; sequence: number }[]> {
  return store().query(
    `select c.role, g.sequence::int from (select role, max(sequence) as most from trace_chunks where run_id = $1 group by role) c
     cross join lateral generate_series(0, c.most) as g (sequence)
     where not exists (select 1 from trace_chunks t where t.run_id = $1 and t.role = c.role and t.sequence = g.sequence) order by 1, 2`,
    { bind: [runId], type: QueryTypes.SELECT },
  );
}

/** A run's marks in their order. */
export async function listMarks(runId: string): Promise<Mark[]> {
  store();
  const marks = await RunMark.findAll({ where: { runId }, order: ["position"], raw: true });
  return marks.map(({ label, startMs, endMs }) => ({ label, startMs, endMs }));
}

/** Bytes that the traces of some runs take, by run. */
export async function keptBytes(runIds: string[]): Promise<Map<string, number>> {
  const rows = await store().query<{ id: string; bytes: number }>(
    `select run_id as id, sum(length(bytes))::float8 as bytes from trace_chunks where run_id = any($1::uuid[]) group by 1`,
    { bind: [runIds], type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ id, bytes }) => [id, bytes]));
}

type Role = KeptTrace["parts"][number]["role"];

interface Outlined {
  outline: KeptOutline;
  /** Its pieces, in the order of its parts. */
  chunks: { role: Role; sequence: number; bytes: number }[];
}

async function outlined(runId: string): Promise<Outlined | null> {
  const [found] = await store().query<{
    form: Trace["form"];
    capture: CaptureFacts | null;
    marks: Mark[];
    chunks: Outlined["chunks"];
  }>(
    `select r.form, r.capture,
            (select coalesce(jsonb_agg(jsonb_build_object('label', label, 'startMs', start_ms, 'endMs', end_ms) order by position), '[]') from marks where run_id = r.id) as marks,
            (select coalesce(jsonb_agg(jsonb_build_object('role', role, 'sequence', sequence, 'bytes', length(bytes)) order by role <> $2, role, sequence), '[]') from trace_chunks where run_id = r.id) as chunks
     from runs r where r.id = $1`,
    { bind: [runId, traceRole], type: QueryTypes.SELECT },
  );
  if (!found) return null;
  const { form, capture, marks, chunks } = found;
  const bytes = new Map<Role, number>([[traceRole, 0]]);
  for (const chunk of chunks) bytes.set(chunk.role, (bytes.get(chunk.role) ?? 0) + chunk.bytes);
  const parts = [...bytes].map(([role, many]) => ({ role, length: many / Float32Array.BYTES_PER_ELEMENT }));
  if (!capture) return { outline: { form, marks, parts }, chunks };
  const { captureFps, averageFpsInterval, ceiling } = capture;
  return { outline: { form, marks, parts, seenBy: { captureFps, averageFpsInterval, ceiling } }, chunks };
}

/** Pieces that are read together hold so much, bytes: a small trace is read at once, a large one bit by bit. */
const readBytes = 2 * chunkBytes;

/** The bytes of a run's pieces, in the order they are asked for. */
async function* bytesOf(runId: string, chunks: Outlined["chunks"]): AsyncGenerator<Buffer> {
  const together: Outlined["chunks"][] = [];
  let room = 0;
  for (const chunk of chunks) {
    if (room <= 0) {
      together.push([]);
      room = readBytes;
    }
    together.at(-1)?.push(chunk);
    room -= chunk.bytes;
  }
  for (const asked of together) {
    const rows = await store().query<{ bytes: Buffer }>(
      `select t.bytes from unnest($2::text[], $3::int[]) with ordinality as asked (role, sequence, nr)
       join trace_chunks t on t.run_id = $1 and t.role = asked.role and t.sequence = asked.sequence order by nr`,
      {
        bind: [runId, asked.map(({ role }) => role), asked.map(({ sequence }) => sequence)],
        type: QueryTypes.SELECT,
      },
    );
    for (const { bytes } of rows) yield bytes;
  }
}

/**
 * A run's trace as kept so far, with channels and marks, not decoded: an outline and then its values as bytes,
 * part by part; null when there is no such run.
 */
export async function keptAsBytes(
  runId: string,
): Promise<{ outline: KeptOutline; bytes: AsyncGenerator<Buffer> } | null> {
  const found = await outlined(runId);
  return found && { outline: found.outline, bytes: bytesOf(runId, found.chunks) };
}

/** A run's trace as kept so far, with channels and marks, not decoded; null when there is no such run. */
export async function findKept(runId: string): Promise<KeptTrace | null> {
  const found = await keptAsBytes(runId);
  if (!found) return null;
  const { parts, ...outline } = found.outline;
  const made = parts.map(({ role, length }) => ({ role, values: new Float32Array(length) }));
  // Pieces end anywhere but within a value, and never beyond their part.
  const room = made.map(({ values }) => new Uint8Array(values.buffer));
  let [part, at] = [0, 0];
  for await (const bytes of found.bytes) {
    while (at === room[part]?.length) [part, at] = [part + 1, 0];
    room[part]?.set(bytes, at);
    at += bytes.length;
  }
  return { ...outline, parts: made };
}

/** A run's trace as kept so far, with channels and marks; null when there is no such run. */
export async function findTrace(runId: string): Promise<Trace | null> {
  const kept = await findKept(runId);
  return kept && traceOf(kept);
}
