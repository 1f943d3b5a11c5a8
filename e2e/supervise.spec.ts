import { expect, test } from "@playwright/test";
import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { healthAt, prepareDatabase, type Server } from "../scripts/lib/application.mjs";
import { cluster } from "../scripts/lib/cluster.mjs";
import { freePort } from "../scripts/lib/run.mjs";
import { counter, supervise } from "../scripts/lib/supervise.mjs";

const ready = async (port: number) => ((await healthAt(port)) as { ready?: boolean } | null)?.ready === true;
const pidOf = (home: string) =>
  Number(readFileSync(join(home, "data", "postmaster.pid"), "utf8").split("\n")[0]);

test("a database and an application that are killed are brought back, with what was kept", async () => {
  test.setTimeout(120_000);
  const own = cluster(mkdtempSync(join(tmpdir(), "velvet-lamp-watched-")));
  const url = await own.start();
  prepareDatabase(url, { empty: true });
  const port = await freePort(3760);
  let server: Server | null = null;
  const stop = await supervise({
    own,
    url,
    start: { port, quiet: true },
    onEnd: () => {},
    onServer: (begun) => (server = begun),
  });
  try {
    const base = `http://127.0.0.1:${port}/api/v1`;
    const kept = await fetch(`${base}/systems`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ name: "Kept", screens: [], rates: [{ region: "", hz: 60 }], note: "" }),
    });
    expect(kept.status).toBe(201);
    const { id } = (await kept.json()) as { id: string };
    const before = pidOf(own.home);
    process.kill(before, "SIGKILL");
    await expect.poll(async () => ready(port), { timeout: 40_000 }).toBe(false);
    await expect.poll(async () => ready(port), { timeout: 40_000 }).toBe(true);
    expect(pidOf(own.home)).not.toBe(before);
    expect((await fetch(`${base}/systems/${id}`)).status).toBe(200);
    const first = server!.pid!;
    process.kill(first, "SIGKILL");
    await expect.poll(async () => (await ready(port)) && server!.pid !== first, { timeout: 40_000 }).toBe(true);
    expect((await fetch(`${base}/systems/${id}`)).status).toBe(200);
  } finally {
    await stop();
    own.remove();
  }
});

test("five ends within a minute are a loop; five in an hour aren't", () => {
  let now = 0;
  const loops = counter(() => now);
  expect([1, 2, 3, 4, 5].map(() => loops())).toEqual([false, false, false, false, true]);
  const seldom = counter(() => (now += 12 * 60_000));
  expect([1, 2, 3, 4, 5, 6].map(() => seldom())).toEqual([false, false, false, false, false, false]);
});
