import { expect, test } from "@playwright/test";
import { copyFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import { backup, restore } from "../scripts/lib/archive.mjs";
import { cluster } from "../scripts/lib/cluster.mjs";

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

test("the whole store into one file while it is in use, and back into an empty cluster, every figure the same", async () => {
  const source = process.env.LAMP_TEST_DATABASE!;
  const folder = mkdtempSync(join(tmpdir(), "velvet-lamp-archive-"));
  const other = cluster(mkdtempSync(join(tmpdir(), "velvet-lamp-other-")), { durable: false });
  try {
    const file = join(folder, "all.tar");
    const before = await everything(source);
    const { counts } = await backup(source, file);
    expect(counts.runs).toBeGreaterThan(100);
    const url = await other.start();
    const { manifest } = await restore(url, file);
    expect(manifest.counts).toEqual(counts);
    const after = await everything(url);
    expect([...after.keys()]).toEqual([...before.keys()]);
    for (const [table, held] of before) expect(`${table}: ${after.get(table)}`).toBe(`${table}: ${held}`);

    // Cut short, changed, newer, no backup at all: each refused with the reason, and what is there stays.
    const bytes = readFileSync(file);
    const bad = join(folder, "bad.tar");
    const refused = async (content: Buffer, why: RegExp) => {
      writeFileSync(bad, content);
      await expect(restore(url, bad)).rejects.toThrow(why);
    };
    await refused(bytes.subarray(0, bytes.length / 2), /damaged|no whole backup|isn't what was written/);
    await refused(Buffer.from("not a backup"), /no whole backup|damaged/);
    const changed = Buffer.from(bytes);
    changed[bytes.length - 20_000] ^= 0xff;
    await refused(changed, /isn't what was written/);
    const text = bytes.toString("latin1");
    await refused(Buffer.from(text.replace('"0006-', '"9006-'), "latin1"), /newer version \(9006-/);
    await expect(restore(url, join(folder, "nowhere.tar"))).rejects.toThrow("There is no file");
    expect(await everything(url)).toEqual(after);

    // While somebody is on it, a store isn't replaced.
    copyFileSync(file, bad);
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    await expect(restore(url, bad)).rejects.toThrow("Stop it first");
    await client.end();
  } finally {
    other.remove();
    rmSync(folder, { recursive: true, force: true });
  }
});
