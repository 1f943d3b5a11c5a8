// The whole store as one file, and back: a tar of what it is (manifest.json) and the rows of every table as COPY
// writes them, gzipped. A restore makes the tables by the application's own migrations and fills them; nothing in
// the file is run.
import { createHash, randomBytes } from "node:crypto";
import {
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";
import { Writable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createGunzip, createGzip } from "node:zlib";
import * as tar from "tar";
import { z } from "zod";
import { prepareDatabase } from "./application.mjs";
import { readPlainDump } from "./plainDump.mjs";
import { SetupError, inWords, root } from "./run.mjs";
import {
  connected,
  gauge,
  loading,
  quoted,
  rowsInto,
  sequencesOf,
  setSequences,
  tablesOf,
  writeTable,
} from "./tables.mjs";

const manifestName = "manifest.json",
  /** Of older backups: PostgreSQL's plain dump. */
  dumpName = "store.sql.gz";
const fileOf = (table) => `data/${table}.copy.gz`;
const isOurs = (path) => path === manifestName || path === dumpName || /^data\/\w{1,63}\.copy\.gz$/.test(path);

const mostManifestBytes = 4 * 1024 * 1024;
/** Rows of an older backup's table, which doesn't say how many it has, at most. */
const mostRows = 200_000_000;

const name = z.string().regex(/^\w{1,63}$/);
const count = z.number().int().min(0);
const sha256 = z.string().regex(/^[0-9a-f]{64}$/);
const about = {
  application: z.literal("velvet-lamp"),
  made: z.string().max(60),
  migrations: z.array(z.string().max(80)).min(1).max(500),
};
const manifestSchema = z.union([
  z.object({
    ...about,
    format: z.literal(2),
    tables: z.record(
      name,
      z.object({ columns: z.array(name).min(1).max(200), rows: count, bytes: count, sha256 }),
    ),
    sequences: z.record(name, z.string().regex(/^\d{1,19}$/)),
  }),
  z.object({ ...about, format: z.literal(1), counts: z.record(name, count), sha256 }),
]);

const knownMigrations = () =>
  readdirSync(join(root, "src", "data", "migrations"))
    .filter((file) => /^\d{4}-.*\.ts$/.test(file))
    .map((file) => basename(file, ".ts"))
    .sort();

const withDatabase = (url, database, user = null) => {
  const address = new URL(url);
  address.pathname = `/${database}`;
  if (user) Object.assign(address, { username: user.name, password: user.password });
  return address.href;
};
const databaseOf = (url) => new URL(url).pathname.slice(1);

async function hashOf(file) {
  const hash = createHash("sha256");
  await pipeline(createReadStream(file), hash);
  return hash.digest("hex");
}

/** Rows by table, as a manifest of either format tells them. */
const countsIn = (manifest) =>
  manifest.format === 1
    ? manifest.counts
    : Object.fromEntries(Object.entries(manifest.tables).map(([table, { rows }]) => [table, rows]));

/**
 * Writes the store at `url` to `file`, while it is in use: as it stood at one moment. Rows and counts come from one
 * snapshot.
 * @returns the manifest, with rows by table
 */
export async function backup(url, file) {
  // Beside its place, so that one disk is asked for room; whole or not at all: half a backup is worse than none.
  const folder = mkdtempSync(`${file}.part-`);
  try {
    mkdirSync(join(folder, "data"));
    const manifest = await connected(url, async (client) => {
      await client.query("begin isolation level repeatable read, read only");
      const { rows: migrations } = await client.query(`select name from migrations order by name`);
      const tables = {};
      for (const [table, columns] of await tablesOf(client)) {
        const written = await writeTable(
          client,
          table,
          columns,
          createGzip(),
          createWriteStream(join(folder, fileOf(table))),
        );
        tables[table] = { columns, ...written };
      }
      return {
        application: "velvet-lamp",
        format: 2,
        made: new Date().toISOString(),
        migrations: migrations.map((each) => each.name),
        tables,
        sequences: await sequencesOf(client),
      };
    });
    writeFileSync(join(folder, manifestName), `${JSON.stringify(manifest, null, 2)}\n`);
    const whole = join(folder, "whole.tar");
    await tar.create({ file: whole, cwd: folder, portable: true }, [
      manifestName,
      ...Object.keys(manifest.tables).map(fileOf),
    ]);
    renameSync(whole, file);
    return { ...manifest, counts: countsIn(manifest) };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Takes a backup apart into `folder`. @returns its manifest @throws SetupError that says why it is none */
async function opened(file, folder, damaged) {
  if (!existsSync(file)) throw new SetupError(`There is no file ${file}.`);
  let left = statSync(file).size;
  let isTooMuch = false;
  try {
    await tar.extract({
      file,
      cwd: folder,
      strict: true,
      filter: (path, entry) => {
        if (entry.type !== "File" || !isOurs(path)) return false;
        // What is in it is no larger than it: one that was pressed together once more isn't ours.
        left -= entry.size;
        const fits = left >= 0 && (path !== manifestName || entry.size <= mostManifestBytes);
        if (!fits) isTooMuch = true;
        return fits;
      },
    });
  } catch (error) {
    if (error.code === "ENOSPC") throw error;
    throw damaged(`it is damaged or no backup (${error.message})`);
  }
  if (isTooMuch) throw damaged("it holds more than a file of its size can");
  if (!existsSync(join(folder, manifestName))) throw damaged("it is no whole backup of this application");
  let read;
  try {
    read = JSON.parse(readFileSync(join(folder, manifestName), "utf8"));
  } catch {
    throw damaged("what it says of itself can't be read");
  }
  if (read?.application !== "velvet-lamp") throw damaged("it is no backup of this application");
  const known = knownMigrations();
  const newer = Array.isArray(read.migrations) && read.migrations.find((each) => !known.includes(each));
  if (read.format > 2 || newer)
    throw damaged(
      `it was made by a newer version (${newer === undefined || newer === false ? "another format" : newer})`,
    );
  const parsed = manifestSchema.safeParse(read);
  if (!parsed.success) throw damaged("what it says of itself can't be");
  const manifest = parsed.data;
  if (manifest.migrations.some((each, at) => each !== known[at]))
    throw damaged("it was made by no released version");
  const needed = manifest.format === 1 ? [dumpName] : Object.keys(manifest.tables).map(fileOf);
  for (const each of needed) {
    const path = join(folder, each);
    if (!existsSync(path)) throw damaged("it is no whole backup of this application");
    if (statSync(path).size === 0) throw damaged("it is empty: nothing was written into it when it was made");
  }
  if (manifest.format === 1 && (await hashOf(join(folder, dumpName))) !== manifest.sha256)
    throw damaged("its content isn't what was written");
  return manifest;
}

/** The columns that a backup names, held against those that are there. */
function checkColumns(tables, table, columns) {
  const there = tables.get(table);
  if (!there) throw new SetupError(`it holds a table that isn't ours (${table})`);
  const strange = columns.find((column) => !there.includes(column));
  if (strange) throw new SetupError(`it holds a column that isn't ours (${table}.${strange})`);
}

/** Fills the tables from the files of a backup. */
async function fill(client, folder, manifest) {
  await loading(client, async (tables) => {
    for (const [table, { columns, rows, bytes, sha256: wanted }] of Object.entries(manifest.tables)) {
      checkColumns(tables, table, columns);
      const through = gauge({ rows, bytes });
      const from = createReadStream(join(folder, fileOf(table)));
      await pipeline(from, createGunzip(), through.stream, rowsInto(client, table, columns));
      if (through.seen.rows !== rows || through.digest() !== wanted)
        throw new SetupError(`its content isn't what was written (${table})`);
    }
    await setSequences(client, manifest.sequences);
  });
}

const nowhere = () => new Writable({ write: (_part, _encoding, done) => done() });

/**
 * Reads an older backup's plain dump. @param into (table, columns) => a stream that takes that table's rows
 * @returns rows by table, and where sequences stood
 */
async function readDump(folder, into) {
  const counts = {},
    sequences = {};
  const source = createReadStream(join(folder, dumpName));
  const unpacked = source.pipe(createGunzip());
  source.on("error", (error) => unpacked.destroy(error));
  await readPlainDump(unpacked, {
    onSequence: (sequence, last) => (sequences[sequence] = last),
    onRows: async (table, columns) => {
      const through = gauge({ rows: mostRows });
      const done = pipeline(through.stream, into(table, columns));
      done.catch(() => {});
      return {
        write: async (part) => {
          if (!through.stream.write(part))
            await Promise.race([new Promise((resolve) => through.stream.once("drain", resolve)), done]);
        },
        end: async () => {
          through.stream.end();
          await done;
          counts[table] = through.seen.rows;
        },
      };
    },
  });
  return { counts, sequences };
}

/** Holds an older backup's statements against the list, and its rows against what it says, before anything is made. */
async function checkDump(folder, manifest) {
  const { counts } = await readDump(folder, nowhere);
  if (Object.keys(counts).length === 0)
    throw new SetupError("its dump is empty: nothing was written into it when it was made");
  for (const [table, wanted] of Object.entries(manifest.counts))
    if ((counts[table] ?? 0) !== wanted)
      throw new SetupError(`${table} holds ${counts[table] ?? 0} rows instead of ${wanted}`);
}

/** Fills the tables from an older backup's plain dump. */
async function fillFromDump(client, folder) {
  await loading(client, async (tables) => {
    const { sequences } = await readDump(folder, (table, columns) => {
      // Which migrations were done is known already.
      if (table === "migrations") return nowhere();
      checkColumns(tables, table, columns);
      return rowsInto(client, table, columns);
    });
    await setSequences(client, sequences);
  });
}

/** Every table of a filled database as it would be written, held against the manifest. */
async function compare(client, manifest) {
  if (manifest.format === 1) return;
  for (const [table, { columns, rows, sha256: wanted }] of Object.entries(manifest.tables)) {
    const written = await writeTable(client, table, columns, nowhere());
    if (written.rows !== rows || written.sha256 !== wanted)
      throw new SetupError(`restored, ${table} isn't what was written: ${written.rows} rows, ${rows} expected`);
  }
}

/** A role that owns the database being made and nothing else; null where this login may make none. */
async function limitedRole(admin) {
  const { rows } = await admin.query(
    `select rolsuper or rolcreaterole as may from pg_roles where rolname = current_user`,
  );
  if (!rows[0]?.may) return null;
  const made = {
    name: `lamp_restore_${randomBytes(6).toString("hex")}`,
    password: randomBytes(24).toString("base64url"),
  };
  await admin.query(
    `create role ${quoted(made.name)} login nosuperuser nocreatedb nocreaterole password '${made.password}'`,
  );
  return made;
}

/** What refused a file, in words: the database's own, where it is one of its rows that can't be. */
function whyOf(error) {
  if (error instanceof SetupError) return error.message;
  if (error.code === "53100") return "the database's disk is full";
  if (error.code === "Z_DATA_ERROR" || error.code === "Z_BUF_ERROR")
    return "its content isn't what was written";
  if (/^(22|23)/.test(error.code ?? "")) return `a row of it can't be: ${error.message}`;
  return null;
}

async function inItsWords(doing, damaged) {
  try {
    await doing;
  } catch (error) {
    const why = whyOf(error);
    throw why === null ? error : damaged(why);
  }
}

/**
 * Makes a database from a backup, by a role that reaches neither programs nor files, and hands it to `work`; it is
 * gone afterwards unless `work` has given it another name.
 */
async function withRestored(url, file, work) {
  const damaged = (why) => new SetupError(`${basename(file)} can't be restored: ${why}. Nothing was changed.`);
  const folder = mkdtempSync(join(tmpdir(), "velvet-lamp-restore-"));
  const making = `${databaseOf(url)}_restoring_${randomBytes(4).toString("hex")}`;
  const adminUrl = withDatabase(url, "postgres");
  let role = null;
  try {
    const manifest = await opened(file, folder, damaged);
    if (manifest.format === 1) await inItsWords(checkDump(folder, manifest), damaged);
    await connected(adminUrl, async (admin) => {
      role = await limitedRole(admin);
      await admin.query(`create database ${quoted(making)}${role ? ` owner ${quoted(role.name)}` : ""}`);
    });
    const made = withDatabase(url, making, role);
    prepareDatabase(made, { to: manifest.migrations.at(-1) });
    const filling = connected(made, async (client) => {
      await (manifest.format === 1 ? fillFromDump : fill)(client, folder, manifest);
      await compare(client, manifest);
    });
    await inItsWords(filling, damaged);
    return await work({ manifest: { ...manifest, counts: countsIn(manifest) }, making, role });
  } catch (error) {
    if (error instanceof SetupError) throw error;
    throw error.code === "ENOSPC" ? new SetupError(inWords(error)) : error;
  } finally {
    rmSync(folder, { recursive: true, force: true });
    await connected(adminUrl, async (admin) => {
      await admin.query(`drop database if exists ${quoted(making)} with (force)`);
      if (role) await admin.query(`drop role if exists ${quoted(role.name)}`);
    }).catch(() => {});
  }
}

/**
 * Puts a backup in the place of the store at `url`. What was there is kept beside it under another name.
 * @returns the manifest, and the name under which the store before is kept
 * @throws SetupError that says why, with nothing changed
 */
export async function restore(url, file) {
  const store = databaseOf(url);
  const before = `${store}_before_${new Date().toISOString().replace(/\D/g, "").slice(0, 14)}`;
  return withRestored(url, file, async ({ manifest, making, role }) => {
    await connected(withDatabase(url, making), async (client) => {
      // Whoever was signed in when the backup was made isn't by having it.
      const { rows } = await client.query(`select to_regclass('public.sessions') is not null as there`);
      if (rows[0]?.there) await client.query(`delete from public.sessions`);
      if (role) {
        await client.query(`reassign owned by ${quoted(role.name)} to current_user`);
        await client.query(`drop owned by ${quoted(role.name)}`);
      }
    });
    await connected(withDatabase(url, "postgres"), async (admin) => {
      const { rows } = await admin.query(`select count(*)::int as n from pg_stat_activity where datname = $1`, [
        store,
      ]);
      if (rows[0].n > 0)
        throw new SetupError("The application is running on this store. Stop it first, then restore.");
      await admin.query(`alter database ${quoted(store)} rename to ${quoted(before)}`);
      await admin.query(`alter database ${quoted(making)} rename to ${quoted(store)}`);
    });
    return { manifest, before };
  });
}

/**
 * Restores a backup into a database that is thrown away, and holds every table against what was written.
 * @returns the manifest @throws SetupError that says why it can't be restored
 */
export const check = async (url, file) => withRestored(url, file, async ({ manifest }) => manifest);

/** A name for a backup made now, in the folder the command was given in. */
export const nameForNow = (folder = process.cwd()) =>
  join(folder, `velvet-lamp-${new Date().toISOString().slice(0, 16).replace(/\D/g, "")}.tar`);
