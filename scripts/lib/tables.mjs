// A store's tables as data: what is in them, written out and read in by COPY alone. No statement of a file is run.
import { createHash } from "node:crypto";
import { Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import pg from "pg";
import { from as copyFrom, to as copyTo } from "pg-copy-streams";
import { SetupError } from "./run.mjs";

/** Which migrations were done is known from the manifest; a restore does them itself. */
const noted = "migrations";

/** A name as a statement takes it. */
export const quoted = (name) => `"${name.replaceAll('"', '""')}"`;

/** Runs `work` with a connection of its own. */
export async function connected(url, work) {
  const client = new pg.Client({ connectionString: url });
  // A connection that breaks is heard of by the statement under way.
  client.on("error", () => {});
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end().catch(() => {});
  }
}

/** Every table with the columns that are written, in their order. @returns a map from name to columns */
export async function tablesOf(client) {
  const { rows } = await client.query(
    `select c.relname as name, array_agg(a.attname::text order by a.attnum) as columns
     from pg_class c join pg_attribute a on a.attrelid = c.oid
     where c.relnamespace = 'public'::regnamespace and c.relkind = 'r' and c.relname <> $1
       and a.attnum > 0 and not a.attisdropped and a.attgenerated = ''
     group by 1 order by 1`,
    [noted],
  );
  return new Map(rows.map(({ name, columns }) => [name, columns]));
}

/** Where sequences stand, by name. */
export async function sequencesOf(client) {
  const { rows } = await client.query(
    `select sequencename as name, last_value::text as last from pg_sequences where schemaname = 'public' and last_value is not null`,
  );
  return Object.fromEntries(rows.map(({ name, last }) => [name, last]));
}

const lineEnd = 10;

/**
 * Counts rows and bytes of COPY's text as it passes, and digests them; in it a line is a row, whatever it holds.
 * @param most rows and bytes that may pass
 */
export function gauge({ rows = Infinity, bytes = Infinity } = {}) {
  const hash = createHash("sha256");
  const seen = { rows: 0, bytes: 0 };
  const stream = new Transform({
    transform(part, _encoding, done) {
      hash.update(part);
      seen.bytes += part.length;
      for (let at = 0; at < part.length; at++) if (part[at] === lineEnd) seen.rows++;
      if (seen.rows > rows || seen.bytes > bytes)
        done(new SetupError(`it holds more than it says (${rows} rows, ${bytes} bytes)`));
      else done(null, part);
    },
  });
  return { stream, seen, digest: () => hash.digest("hex") };
}

/** Writes a table's rows into a stream. @returns rows, bytes and SHA-256 of what was written */
export async function writeTable(client, table, columns, ...into) {
  const through = gauge();
  const list = columns.map(quoted).join(", ");
  await pipeline(
    client.query(copyTo(`copy public.${quoted(table)} (${list}) to stdout`)),
    through.stream,
    ...into,
  );
  return { ...through.seen, sha256: through.digest() };
}

/** A stream that takes a table's rows. */
export const rowsInto = (client, table, columns) =>
  client.query(copyFrom(`copy public.${quoted(table)} (${columns.map(quoted).join(", ")}) from stdin`));

/**
 * Empties every table, has `load` fill them in any order, and sees to it that what refers to something finds it.
 * All of it or nothing.
 */
export async function loading(client, load) {
  await client.query("begin");
  const tables = await tablesOf(client);
  const { rows: keys } = await client.query(
    `select conrelid::regclass::text as of, conname as name, pg_get_constraintdef(oid) as definition
     from pg_constraint where contype = 'f' and connamespace = 'public'::regnamespace`,
  );
  for (const { of, name } of keys) await client.query(`alter table ${of} drop constraint ${quoted(name)}`);
  for (const table of tables.keys())
    await client.query(`alter table public.${quoted(table)} disable trigger user`);
  await client.query(`truncate ${[...tables.keys()].map((table) => `public.${quoted(table)}`).join(", ")}`);
  await load(tables);
  for (const { of, name, definition } of keys)
    await client.query(`alter table ${of} add constraint ${quoted(name)} ${definition}`);
  for (const table of tables.keys())
    await client.query(`alter table public.${quoted(table)} enable trigger user`);
  await client.query("commit");
}

/** Sets sequences to where they stood. @throws SetupError for one that isn't there */
export async function setSequences(client, sequences) {
  const { rows } = await client.query(
    `select sequencename as name from pg_sequences where schemaname = 'public'`,
  );
  const there = new Set(rows.map(({ name }) => name));
  for (const [name, last] of Object.entries(sequences)) {
    if (!there.has(name)) throw new SetupError(`there is no sequence ${name}`);
    await client.query(`select setval(format('public.%I', $1::text)::regclass, $2::bigint)`, [name, last]);
  }
}
