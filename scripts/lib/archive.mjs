// The whole store as one file, and back: a tar of what it is (manifest.json) and PostgreSQL's own plain dump,
// gzipped.
import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import {
  createReadStream,
  createWriteStream,
  existsSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";
import { pipeline } from "node:stream/promises";
import { createGunzip, createGzip } from "node:zlib";
import pg from "pg";
import * as tar from "tar";
import { ensurePostgres } from "./install.mjs";
import { SetupError, root } from "./run.mjs";

const dumpName = "store.sql.gz",
  manifestName = "manifest.json";
/** Work that waits is made anew by itself; it isn't part of what is kept. */
const left = "--exclude-schema=work";

/** What is counted into the manifest, so that a restore can be held against it. */
const counted = ["rigs", "titles", "engines", "jobs", "runs", "trace_chunks", "trials", "faults"];

const knownMigrations = () =>
  readdirSync(join(root, "src", "data", "migrations"))
    .filter((file) => /^\d{4}-.*\.ts$/.test(file))
    .map((file) => basename(file, ".ts"));

async function asking(url, work) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(async (statement, values) => (await client.query(statement, values)).rows);
  } finally {
    await client.end();
  }
}

const withDatabase = (url, name) => {
  const address = new URL(url);
  address.pathname = `/${name}`;
  return address.href;
};
const databaseOf = (url) => new URL(url).pathname.slice(1);
const quoted = (name) => `"${name.replaceAll('"', '""')}"`;

async function countsOf(url) {
  return asking(url, async (ask) => {
    const counts = {};
    for (const table of counted) counts[table] = (await ask(`select count(*)::int as n from ${table}`))[0].n;
    return counts;
  });
}

/** Runs one of PostgreSQL's programs with its standard streams piped; rejects with what it said. */
function program(name, args) {
  const child = spawn(join(ensurePostgres(), name), args, { stdio: ["pipe", "pipe", "pipe"] });
  let said = "";
  child.stderr.on("data", (text) => (said = `${said}${text}`.slice(-2000)));
  const done = new Promise((resolve, reject) => {
    child.on("error", reject);
    child.on("exit", (code) =>
      code === 0 ? resolve() : reject(new SetupError(`${name} failed (${code}).\n${said.trim()}`)),
    );
  });
  return { child, done };
}

async function hashOf(file) {
  const hash = createHash("sha256");
  await pipeline(createReadStream(file), hash);
  return hash.digest("hex");
}

/**
 * Writes the store at `url` to `file`, while it is in use: as it stood at one moment.
 * @returns the manifest
 */
export async function backup(url, file) {
  const folder = mkdtempSync(join(tmpdir(), "velvet-lamp-backup-"));
  try {
    const dump = join(folder, dumpName);
    const { child, done } = program("pg_dump", ["--no-owner", "--no-privileges", left, url]);
    await Promise.all([pipeline(child.stdout, createGzip(), createWriteStream(dump)), done]);
    const migrations = await asking(url, (ask) => ask(`select name from migrations order by name`));
    const manifest = {
      application: "velvet-lamp",
      format: 1,
      made: new Date().toISOString(),
      migrations: migrations.map(({ name }) => name),
      counts: await countsOf(url),
      sha256: await hashOf(dump),
    };
    writeFileSync(join(folder, manifestName), `${JSON.stringify(manifest, null, 2)}\n`);
    // Whole or not at all: half a backup is worse than none.
    const half = `${file}.part`;
    await tar.create({ file: half, cwd: folder, portable: true }, [manifestName, dumpName]);
    renameSync(half, file);
    return manifest;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function opened(file, folder) {
  if (!existsSync(file)) throw new SetupError(`There is no file ${file}.`);
  const damaged = (why) => new SetupError(`${basename(file)} can't be restored: ${why}. Nothing was changed.`);
  try {
    await tar.extract({ file, cwd: folder, strict: true }, [manifestName, dumpName]);
  } catch (error) {
    throw damaged(`it is damaged or no backup (${error.message})`);
  }
  if (!existsSync(join(folder, manifestName)) || !existsSync(join(folder, dumpName)))
    throw damaged("it is no whole backup of this application");
  let manifest;
  try {
    manifest = JSON.parse(readFileSync(join(folder, manifestName), "utf8"));
  } catch {
    throw damaged("what it says of itself can't be read");
  }
  if (manifest.application !== "velvet-lamp" || !Array.isArray(manifest.migrations))
    throw damaged("it is no backup of this application");
  if ((await hashOf(join(folder, dumpName))) !== manifest.sha256)
    throw damaged("its content isn't what was written");
  const known = new Set(knownMigrations());
  const newer = manifest.format > 1 || manifest.migrations.find((name) => !known.has(name));
  if (newer) throw damaged(`it was made by a newer version (${newer === true ? "another format" : newer})`);
  return manifest;
}

/**
 * Puts a backup in the place of the store at `url`. What was there is kept beside it under another name.
 * @returns the manifest, and the name under which the store before is kept
 * @throws SetupError that says why, with nothing changed
 */
export async function restore(url, file) {
  const folder = mkdtempSync(join(tmpdir(), "velvet-lamp-restore-"));
  const name = databaseOf(url);
  const making = `${name}_restoring`,
    before = `${name}_before_${new Date().toISOString().replace(/\D/g, "").slice(0, 14)}`;
  const admin = withDatabase(url, "postgres");
  try {
    const manifest = await opened(file, folder);
    await asking(admin, async (ask) => {
      await ask(`drop database if exists ${quoted(making)}`);
      await ask(`create database ${quoted(making)}`);
    });
    const made = withDatabase(url, making);
    const { child, done } = program("psql", [
      "-X",
      "-q",
      "-1",
      "-v",
      "ON_ERROR_STOP=1",
      "-o",
      "/dev/null",
      made,
    ]);
    child.stdin.on("error", () => {});
    await Promise.all([
      pipeline(createReadStream(join(folder, dumpName)), createGunzip(), child.stdin).catch(() => {}),
      done,
    ]);
    // Whoever was signed in when the backup was made isn't by having it.
    await asking(made, (ask) =>
      ask("do $$ begin if to_regclass('sessions') is not null then delete from sessions; end if; end $$"),
    );
    const counts = await countsOf(made);
    for (const table of counted)
      if (counts[table] !== manifest.counts[table])
        throw new SetupError(
          `Restored, ${table} holds ${counts[table]} rows instead of ${manifest.counts[table]}. The store in use was left as it is.`,
        );
    await asking(admin, async (ask) => {
      const [{ n }] = await ask(`select count(*)::int as n from pg_stat_activity where datname = $1`, [name]);
      if (n > 0) throw new SetupError("The application is running on this store. Stop it first, then restore.");
      await ask(`alter database ${quoted(name)} rename to ${quoted(before)}`);
      await ask(`alter database ${quoted(making)} rename to ${quoted(name)}`);
    });
    return { manifest, before };
  } finally {
    rmSync(folder, { recursive: true, force: true });
    await asking(admin, (ask) => ask(`drop database if exists ${quoted(making)}`)).catch(() => {});
  }
}

/** A name for a backup made now, in the folder the command was given in. */
export const nameForNow = () =>
  join(process.cwd(), `velvet-lamp-${new Date().toISOString().slice(0, 16).replace(/\D/g, "")}.tar`);
