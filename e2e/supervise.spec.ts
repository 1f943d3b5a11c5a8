import { expect, test } from "@playwright/test";
import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { healthAt, prepareDatabase, type Server } from "../scripts/lib/application.mjs";
import { cluster } from "../scripts/lib/cluster.mjs";
import { freePort } from "../scripts/lib/run.mjs";
import { counter, supervise } from "../scripts/lib/supervise.mjs";
import { shortageOf } from "../scripts/lib/shortage.mjs";
import { fillDisk, mountedDisk, wornDisk } from "./disk";

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

/** Adds systems and remembers those that were acknowledged. */
function systemsAt(port: number) {
  const base = `http://127.0.0.1:${port}/api/v1/systems`;
  const kept: string[] = [];
  /** Adds a system; its status, 0 where nobody answers. */
  const add = async (name: string): Promise<{ status: number; title: string }> => {
    const body = { name, screens: [], rates: [{ region: "", hz: 60 }], note: "x".repeat(390) };
    const headers = { "content-type": "application/json" };
    try {
      const sent = await fetch(base, { method: "POST", headers, body: JSON.stringify(body) });
      const told = (await sent.json()) as { id?: string; title?: string };
      if (sent.status === 201 && told.id) kept.push(told.id);
      return { status: sent.status, title: told.title ?? "" };
    } catch {
      return { status: 0, title: "" };
    }
  };
  return {
    add,
    again: async () =>
      expect
        .poll(async () => (await add(`again ${kept.length} ${Date.now()}`)).status, { timeout: 60_000 })
        .toBe(201),
    allThere: async () => {
      for (const id of kept) expect((await fetch(`${base}/${id}`)).status).toBe(200);
    },
  };
}

/** Hears what this process says, until it is quiet again. */
function hearing(): { said: string[]; quiet: () => void } {
  const said: string[] = [];
  const write = process.stdout.write.bind(process.stdout);
  process.stdout.write = ((text: string) => said.push(String(text)) > 0) as typeof process.stdout.write;
  return { said, quiet: () => void (process.stdout.write = write) };
}

test("a disk that is full is said to be, loses nothing acknowledged, and is taken up again by itself once there is room", async () => {
  test.setTimeout(180_000);
  // A few hundred megabytes.
  const disk = mountedDisk("size=260m,mode=0777");
  test.skip(disk === null, "this machine lets nobody mount a disk");
  const { folder: home, end } = disk!;
  const { said, quiet } = hearing();
  const own = cluster(home);
  const url = await own.start();
  let ended: number | null = null;
  let stop = async () => {};
  try {
    prepareDatabase(url, { empty: true });
    const port = await freePort(3790);
    stop = await supervise({ own, url, start: { port, quiet: true }, onEnd: (code) => (ended = code) });
    const { add, again, allThere } = systemsAt(port);
    expect((await add("first")).status).toBe(201);

    const makeRoom = fillDisk(home, 500_000);
    const refused: { status: number; title: string }[] = [];
    for (let n = 0; n < 3000 && refused.length < 10; n++) {
      const sent = await add(`system ${n}`);
      if (sent.status !== 201) refused.push(sent);
    }
    expect(refused).toContainEqual({ status: 507, title: "The database's disk is full: this wasn't kept." });
    expect(refused.filter(({ status }) => status === 500)).toEqual([]);
    // A database that ends while the disk is full can't come back: it is waited for, longer than five tries take.
    process.kill(pidOf(home), "SIGKILL");
    await expect.poll(() => said.join(""), { timeout: 30_000 }).toContain("its disk is full");
    await new Promise((resolve) => setTimeout(resolve, 25_000));
    expect(ended).toBeNull();
    expect(said.join("").split("its disk is full").length - 1).toBe(1);
    makeRoom();
    await again();

    expect(ended).toBeNull();
    await allThere();
  } finally {
    quiet();
    await stop();
    own.stop();
    end();
  }
});

test("what a machine lacks is known by what its programs say, and nothing else is taken for it", () => {
  const here = tmpdir();
  const what = (told: unknown) => shortageOf(told, here)?.what ?? null;
  const withCode = (code: string) => Object.assign(new Error("x"), { code });
  expect(
    ["ENOSPC", "EDQUOT", "EROFS", "EMFILE", "ENFILE", "ENOMEM"].map((code) => what(withCode(code))),
  ).toEqual(["room", "room", "a disk that can be written", "files", "files", "memory"]);
  // As PostgreSQL writes them into its log (its own sources, from memory).
  expect(what(["FATAL:  out of file descriptors: Too many open files in system; release and retry"])).toBe(
    "files",
  );
  expect(what(["LOG:  could not fork new process for connection: Cannot allocate memory"])).toBe("memory");
  expect(what(new Error('could not write lock file "postmaster.pid": No space left on device'))).toBe("room");
  // What a log said while there was room again, or a heap's own bound, is no shortage.
  expect(
    what(["ERROR:  could not extend file: No space left on device", "LOG:  terminated by signal 9"]),
  ).toBeNull();
  expect(
    what(["FATAL ERROR: Reached heap limit Allocation failed - JavaScript heap out of memory"]),
  ).toBeNull();
  expect(what(withCode("EACCES"))).toBeNull();
});

test("five short lives in a row are a loop, and so are starts that fail however long they took; a long life between ends the row", () => {
  let now = 0;
  const life = (each: ReturnType<typeof counter>, ms: number, cameUp = true) => {
    each.begins();
    now += ms;
    return each.ends(cameUp);
  };
  const quick = counter(() => now);
  expect([1, 2, 3, 4, 5].map(() => life(quick, 30_000))).toEqual([false, false, false, false, true]);
  const failing = counter(() => now);
  expect([1, 2, 3, 4, 5].map(() => life(failing, 120_000, false))).toEqual([false, false, false, false, true]);
  const mixed = counter(() => now);
  expect([30, 30, 30, 3_600, 30, 30, 30, 30].map((seconds) => life(mixed, seconds * 1000))).toEqual([
    ...new Array<boolean>(7).fill(false),
    true,
  ]);
  const seldom = counter(() => now);
  expect(Array.from({ length: 20 }, () => life(seldom, 12 * 60_000))).not.toContain(true);
});

test("a disk that turns read-only under a running database is said to be, loses nothing acknowledged, and is taken up again once it is mended", async () => {
  test.setTimeout(180_000);
  const disk = wornDisk(320);
  test.skip(disk === null, "this machine lets nobody mount a disk");
  const { folder, wearOut, mend, end } = disk!;
  const { said, quiet } = hearing();
  const own = cluster(join(folder, "cluster"));
  let ended: number | null = null;
  let stop = async () => {};
  try {
    const url = await own.start();
    prepareDatabase(url, { empty: true });
    const port = await freePort(3820);
    stop = await supervise({ own, url, start: { port, quiet: true }, onEnd: (code) => (ended = code) });
    const { add, again, allThere } = systemsAt(port);
    for (let n = 0; n < 20; n++) expect((await add(`system ${n}`)).status).toBe(201);

    wearOut();
    const refused: number[] = [];
    await expect
      .poll(
        async () => {
          refused.push((await add(`refused ${refused.length}`)).status);
          return said.join("").includes("its disk is read-only");
        },
        { timeout: 60_000 },
      )
      .toBe(true);
    expect(refused.filter((status) => ![503, 507].includes(status))).toEqual([]);
    expect(ended).toBeNull();

    await expect.poll(() => mended(mend), { timeout: 60_000 }).toBe(true);
    await again();
    await allThere();
    expect(ended).toBeNull();
    expect(said.join("").split("its disk is read-only").length - 1).toBe(1);
  } finally {
    quiet();
    await stop();
    own.stop();
    end();
  }
});

function mended(mend: () => void): boolean {
  try {
    mend();
    return true;
  } catch {
    return false;
  }
}
