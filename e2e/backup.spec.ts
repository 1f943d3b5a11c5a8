import { expect, test } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import pg from "pg";
import * as tar from "tar";
import { packTrace } from "@/core/trace";
import { backup, check, restore } from "../scripts/lib/archive.mjs";
import { cluster } from "../scripts/lib/cluster.mjs";
import { ensurePostgres } from "../scripts/lib/install.mjs";
import { mountedDisk } from "./disk";
import { freshJob, particulars } from "./support";

/** Every table but the queue's, each row as text: what two stores are compared by. */
async function everything(url: string): Promise<Map<string, string>> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const { rows } = await client.query<{ name: string }>(
      `select table_name as name from information_schema.tables where table_schema = 'public' order by 1`,
    );
    const held = new Map<string, string>();
    for (const { name } of rows) {
      const found = await client.query<{ hash: string; n: string }>(
        `select count(*) as n, coalesce(md5(string_agg(md5(t::text), '' order by md5(t::text))), '') as hash from ${name} t`,
      );
      held.set(name, `${found.rows[0]!.n} rows, ${found.rows[0]!.hash}`);
    }
    return held;
  } finally {
    await client.end();
  }
}

/** A temporary folder and a cluster of its own, both gone afterwards. */
async function withOther(
  work: (folder: string, other: ReturnType<typeof cluster>) => Promise<void>,
): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "velvet-lamp-archive-"));
  const other = cluster(mkdtempSync(join(tmpdir(), "velvet-lamp-other-")), { durable: false });
  try {
    await work(folder, other);
  } finally {
    other.remove();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A backup as versions before this one wrote it: PostgreSQL's plain dump, changed as somebody would. */
async function olderBackup(
  url: string,
  file: string,
  change: (dump: string) => string | Buffer = (dump) => dump,
) {
  const folder = mkdtempSync(join(tmpdir(), "velvet-lamp-older-"));
  const dumped = execFileSync(
    join(ensurePostgres(), "pg_dump"),
    ["--no-owner", "--no-privileges", "--exclude-schema=work", url],
    {
      encoding: "utf8",
      maxBuffer: 1 << 30,
    },
  );
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows } = await client.query<{ name: string }>("select name from migrations order by name");
  const counts: Record<string, number> = {};
  for (const table of ["rigs", "titles", "jobs", "runs", "trace_chunks", "trials"])
    counts[table] = (await client.query<{ n: number }>(`select count(*)::int as n from ${table}`)).rows[0]!.n;
  await client.end();
  const dump = gzipSync(change(dumped));
  writeFileSync(join(folder, "store.sql.gz"), dump);
  const manifest = {
    application: "velvet-lamp",
    format: 1,
    made: "2026-11-01T00:00:00.000Z",
    migrations: rows.map(({ name }) => name),
    counts,
    sha256: createHash("sha256").update(dump).digest("hex"),
  };
  writeFileSync(join(folder, "manifest.json"), JSON.stringify(manifest));
  await tar.create({ file, cwd: folder, portable: true }, ["manifest.json", "store.sql.gz"]);
  rmSync(folder, { recursive: true });
}

test("the whole store into one file while it is in use, and back into an empty cluster, every figure the same", async () => {
  test.setTimeout(120_000);
  const source = process.env.LAMP_TEST_DATABASE!;
  await withOther(async (folder, other) => {
    const file = join(folder, "all.tar");
    const before = await everything(source);
    const { counts } = await backup(source, file);
    expect(counts.runs).toBeGreaterThan(100);
    const url = await other.start();
    const { manifest } = await restore(url, file);
    expect(manifest.counts).toEqual(counts);
    const after = await everything(url);
    expect([...after.keys()]).toEqual([...before.keys()]);
    for (const [table, held] of before)
      if (table !== "sessions") expect(`${table}: ${after.get(table)}`).toBe(`${table}: ${held}`);
    // New rows come after those that are there, and what refers to something is held to it.
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    const made = await client.query<{ id: string }>(
      "insert into changes (actor, topics) values ('x', '[]') returning id",
    );
    const most = await client.query<{ most: string }>("select max(id) as most from changes");
    expect(made.rows[0]!.id).toBe(most.rows[0]!.most);
    await expect(client.query("delete from rigs")).rejects.toThrow(/violates foreign key/);
    await client.query("delete from changes where actor = 'x'");
    const { rows: roles } = await client.query("select 1 from pg_roles where rolname like 'lamp_restore%'");
    expect(roles).toEqual([]);
    const { rows: owners } = await client.query(
      "select distinct tableowner as name from pg_tables where schemaname = 'public'",
    );
    expect(owners).toEqual([{ name: "lamp" }]);
    await client.end();

    // Cut short, changed, newer, no backup at all: each refused with the reason, and what is there stays.
    const held = await everything(url);
    const bytes = readFileSync(file);
    const bad = join(folder, "bad.tar");
    const refused = async (content: Buffer, why: RegExp) => {
      writeFileSync(bad, content);
      await expect(restore(url, bad)).rejects.toThrow(why);
    };
    await refused(bytes.subarray(0, bytes.length / 2), /damaged|no whole backup|isn't what was written/);
    await refused(Buffer.alloc(0), /damaged|no whole backup/);
    await refused(Buffer.from("not a backup"), /no whole backup|damaged/);
    const changed = Buffer.from(bytes);
    changed[bytes.length - 20_000] ^= 0xff;
    await refused(changed, /isn't what was written|damaged/);
    const text = bytes.toString("latin1");
    await refused(Buffer.from(text.replace('"0006-', '"9006-'), "latin1"), /newer version \(9006-/);
    await refused(
      gzipSync(Buffer.concat([bytes, Buffer.alloc(4_000_000)])),
      /holds more than a file of its size|damaged/,
    );
    await expect(restore(url, join(folder, "nowhere.tar"))).rejects.toThrow("There is no file");
    expect(await everything(url)).toEqual(held);

    // While somebody is on it, a store isn't replaced.
    copyFileSync(file, bad);
    const user = new pg.Client({ connectionString: url });
    await user.connect();
    await expect(restore(url, bad)).rejects.toThrow("Stop it first");
    await user.end();
  });
});

test("a backup made while runs are brought in holds one moment, and can be restored", async ({ request }) => {
  test.setTimeout(120_000);
  const source = process.env.LAMP_TEST_DATABASE!;
  const job = await freshJob(request, "Paper Lighthouse");
  const { rigId } = (await (await request.get(`/api/v1/jobs/${job}`)).json()).job;
  const rig = await (await request.get(`/api/v1/rigs/${rigId}`)).json();
  let isOver = false;
  let kept = 0;
  const bringing = (async () => {
    while (!isOver) {
      const frameTimes = Float64Array.from({ length: 4000 }, (_, k) => 16 + (k % 7) / 10 + kept / 1000);
      const data = Buffer.from(
        packTrace({ form: "frames", frameTimes, channels: [], marks: [] }, particulars(job, rig)),
      );
      const sent = await request.post("/api/v1/runs", {
        data,
        headers: { "content-type": "application/octet-stream" },
      });
      expect(sent.status()).toBe(201);
      kept++;
    }
  })();
  try {
    await withOther(async (folder, other) => {
      const url = await other.start();
      for (let k = 0; k < 3; k++) {
        const file = join(folder, `${k}.tar`);
        const before = kept;
        const { counts } = await backup(source, file);
        await expect.poll(() => kept).toBeGreaterThan(before + 1);
        expect((await check(url, file)).counts).toEqual(counts);
      }
      await restore(url, join(folder, "2.tar"));
      const client = new pg.Client({ connectionString: url });
      await client.connect();
      const torn = await client.query(
        "select 1 from runs r where r.job_id = $1 and not exists (select 1 from trace_chunks where run_id = r.id)",
        [job],
      );
      expect(torn.rows).toEqual([]);
      await client.end();
    });
  } finally {
    isOver = true;
    await bringing;
  }
  expect(kept).toBeGreaterThan(6);
});

test("an older backup is read, and nothing in it is run", async () => {
  test.setTimeout(180_000);
  const source = process.env.LAMP_TEST_DATABASE!;
  await withOther(async (folder, other) => {
    const url = await other.start();
    const file = join(folder, "older.tar");
    await olderBackup(source, file);
    const before = await everything(source);
    await restore(url, file);
    for (const [table, held] of await everything(url))
      if (table !== "sessions") expect(`${table}: ${held}`).toBe(`${table}: ${before.get(table)}`);

    const trace = join(folder, "harmed");
    const hostile: [string, (dump: string) => string | Buffer][] = [
      ["a command of psql's", (dump) => `\\! touch ${trace}\n${dump}`],
      ["a command behind the data", (dump) => dump.replace(/\n\\\.\n/, `\n\\.\n\\! touch ${trace}\n`)],
      ["COPY to a program", (dump) => `${dump}\ncopy (select 1) to program 'touch ${trace}';\n`],
      [
        "COPY from a program",
        (dump) =>
          dump.replace(/COPY public\.jobs .*/, (head) => head.replace("stdin", `program 'touch ${trace}'`)),
      ],
      ["a block of code", (dump) => `${dump}\nDO $$ begin execute 'select 1'; end $$;\n`],
      ["a role's rights", (dump) => `${dump}\nALTER ROLE lamp SUPERUSER;\n`],
      ["a table that isn't ours", (dump) => dump.replace("COPY public.jobs ", "COPY public.pg_authid ")],
      ["a column that isn't ours", (dump) => dump.replace(/COPY public\.jobs \(id/, "COPY public.jobs (ctid")],
      ["nothing", () => ""],
      ["half of it", (dump) => dump.slice(0, dump.length / 2)],
      [
        "a row that can't be",
        (dump) => dump.replace(/COPY public\.systems .*\n/, (head) => `${head}nonsense\n`),
      ],
    ];
    for (const [what, change] of hostile) {
      await olderBackup(source, file, change);
      const said = await check(url, file).then(
        () => "was taken",
        (error: Error) => error.message,
      );
      expect([what, said]).toEqual([
        what,
        expect.stringMatching(/^older\.tar can't be restored: .* Nothing was changed\.$/s),
      ]);
      expect(existsSync(trace)).toBe(false);
    }
  });
});

test("a gigabyte of newlines ends soon, with a sentence, wherever it stands", async () => {
  test.setTimeout(240_000);
  const source = process.env.LAMP_TEST_DATABASE!;
  await withOther(async (folder, other) => {
    const url = await other.start();
    const file = join(folder, "long.tar");
    const newlines = Buffer.alloc(1 << 30, "\n");
    // Among the statements their own bound is met long before.
    const fewer = newlines.subarray(0, 1 << 26);
    const places: [string, (dump: string) => Buffer][] = [
      ["among the statements", (dump) => Buffer.concat([fewer, Buffer.from(dump)])],
      [
        "in a table",
        (dump) => {
          const at = dump.indexOf("\n", dump.indexOf("COPY public.trial_kinds")) + 1;
          return Buffer.concat([Buffer.from(dump.slice(0, at)), newlines, Buffer.from(dump.slice(at))]);
        },
      ],
    ];
    for (const [where, change] of places) {
      await olderBackup(source, file, change);
      const began = Date.now();
      await expect(check(url, file)).rejects.toThrow(/can't be restored: /);
      expect([where, Date.now() - began < 60_000]).toEqual([where, true]);
    }
  });
});

test("a backup without room leaves nothing behind", async () => {
  const disk = mountedDisk("size=1m,mode=0777");
  test.skip(disk === null, "this machine lets nobody mount a disk");
  const { folder, end } = disk!;
  try {
    await expect(backup(process.env.LAMP_TEST_DATABASE!, join(folder, "all.tar"))).rejects.toThrow(
      /ENOSPC|no space/i,
    );
    expect(readdirSync(folder)).toEqual([]);
  } finally {
    end();
  }
});
