import { expect, test } from "@playwright/test";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import { cluster } from "../scripts/lib/cluster.mjs";

/** Asks a database one question. */
async function ask(url: string, question: string) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(question)).rows;
  } finally {
    await client.end();
  }
}

for (const [what, harm] of [
  ["missing", (file: string) => rmSync(file)],
  ["cut short", (file: string) => writeFileSync(file, '{"port":54')],
] as const) {
  test(`a private cluster whose key file is ${what} keeps its database`, async () => {
    const home = mkdtempSync(join(tmpdir(), "velvet-lamp-kept-"));
    const kept = cluster(home, { durable: false });
    try {
      await ask(await kept.start(), "create table story as select 42 as answer");
      kept.stop();
      harm(join(home, "cluster.json"));
      const again = await kept.start();
      expect(await ask(again, "select answer from story")).toEqual([{ answer: 42 }]);
    } finally {
      kept.remove();
    }
  });
}
