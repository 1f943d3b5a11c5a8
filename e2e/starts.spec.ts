import { expect, test } from "@playwright/test";
import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { healthAt } from "../scripts/lib/application.mjs";
import { cluster } from "../scripts/lib/cluster.mjs";
import { freePort } from "../scripts/lib/run.mjs";
import { fillDisk, mountedDisk } from "./disk";

/** A place of its own for what a start keeps: its notes, and its database. */
function place() {
  const state = mkdtempSync(join(tmpdir(), "velvet-lamp-starts-"));
  const own = cluster(mkdtempSync(join(tmpdir(), "velvet-lamp-started-")));
  return {
    state,
    home: own.home,
    own,
    end: () => (own.remove(), rmSync(state, { recursive: true, force: true })),
  };
}

interface Start {
  child: ChildProcess;
  said: () => string;
  /** Its exit code, once it has ended. */
  ended: Promise<number | null>;
}

/** A start as somebody types it. */
function start({ state, home }: { state: string; home: string }, port: number, ...flags: string[]): Start {
  const child = spawn(process.execPath, ["scripts/demo.mjs", "--empty", "--port", String(port), ...flags], {
    env: { ...process.env, LAMP_STATE: state, LAMP_CLUSTER: home, DATABASE_URL: "" },
  });
  let said = "";
  for (const stream of [child.stdout, child.stderr])
    stream?.on("data", (part: Buffer) => (said += part.toString()));
  return { child, said: () => said, ended: new Promise((resolve) => child.once("exit", resolve)) };
}
const address = (one: Start) => /Velvet Lamp: http:\/\/127\.0\.0\.1:(\d+)/.exec(one.said())?.[1];
const up = async (one: Start) => {
  await expect.poll(() => address(one) ?? one.said(), { timeout: 120_000 }).toMatch(/^\d+$/);
  return Number(address(one));
};
/** The process that answers. A start notes it a moment after it answers. */
const serverOf = async ({ state }: { state: string }) => {
  const note = join(state, "running.json");
  await expect.poll(() => existsSync(note) && readFileSync(note, "utf8").endsWith("}")).toBe(true);
  return (JSON.parse(readFileSync(note, "utf8")) as { server: number }).server;
};
const stopped = async ({ child, ended }: Start) => {
  child.kill("SIGINT");
  await ended;
};

test("two starts at once: one of them starts, the other says so; a start that was killed is no hindrance", async () => {
  test.setTimeout(240_000);
  const here = place();
  const port = await freePort(3820);
  let third: Start | null = null;
  const both = [start(here, port), start(here, port)];
  try {
    const one = await Promise.race(both.map(async (each) => (await each.ended, each)));
    const other = both.find((each) => each !== one)!;
    expect(one.said()).toMatch(/being started already, by process \d+|running already/);
    expect(await one.ended).toBe(0);
    const at = await up(other);
    expect(await healthAt(at)).toMatchObject({ ready: true });
    const later = start(here, port);
    expect(await later.ended).toBe(0);
    expect(later.said()).toMatch(/running already/);
    other.child.kill("SIGKILL");
    await other.ended;
    third = start(here, port);
    expect(await healthAt(await up(third))).toMatchObject({ ready: true });
  } finally {
    for (const each of both) each.child.kill("SIGKILL");
    if (third) await stopped(third);
    here.end();
  }
});

test("a start that is stopped while the application comes up leaves nothing running", async () => {
  test.setTimeout(180_000);
  const here = place();
  const one = start(here, await freePort(3840));
  const application = () =>
    spawnSync("pgrep", ["-P", String(one.child.pid), "-f", "serve/main"], { encoding: "utf8" }).stdout.trim();
  try {
    await expect.poll(application, { timeout: 120_000, intervals: [50] }).toMatch(/^\d+$/);
    const pid = Number(application());
    await stopped(one);
    expect(address(one)).toBeUndefined();
    const isThere = () => {
      try {
        return process.kill(pid, 0);
      } catch {
        return false;
      }
    };
    await expect.poll(isThere, { timeout: 10_000 }).toBe(false);
    expect(here.own.isAlive()).toBe(false);
  } finally {
    if (one.child.exitCode === null) await stopped(one);
    here.end();
  }
});

test("a disk that is read-only is said to be, for the notes as for the database, and nothing else is said", async () => {
  test.setTimeout(120_000);
  const disk = mountedDisk("size=16m,ro");
  test.skip(disk === null, "this machine lets nobody mount a disk");
  const { folder, end } = disk!;
  const here = place();
  const port = await freePort(3860);
  try {
    for (const [state, home] of [
      [join(folder, "notes"), here.home],
      [here.state, join(folder, "database")],
    ] as const) {
      const one = start({ state, home }, port);
      const sentence = /velvet-lamp-disk-\S+ can't be written: its disk is read-only\. Nothing was changed\./g;
      await expect.poll(() => one.said(), { timeout: 30_000 }).toMatch(sentence);
      await new Promise((resolve) => setTimeout(resolve, 5_000));
      // It waits, and says so once.
      expect(one.child.exitCode).toBeNull();
      expect(one.said().match(sentence)).toHaveLength(1);
      expect(one.said()).not.toMatch(/ at .+:\d+:\d+/);
      await stopped(one);
    }
  } finally {
    end();
    here.end();
  }
});

test("a start on a full disk waits for room, and then goes on with everything that was kept", async () => {
  test.setTimeout(240_000);
  const disk = mountedDisk("size=300m,mode=0777");
  test.skip(disk === null, "this machine lets nobody mount a disk");
  const { folder, end } = disk!;
  const here = place();
  const port = await freePort(3870);
  const at = { state: here.state, home: join(folder, "database") };
  let one = start(at, port);
  try {
    const systems = async () => `http://127.0.0.1:${await up(one)}/api/v1/systems`;
    const made = await fetch(await systems(), {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ name: "Kept", screens: [], rates: [{ region: "", hz: 60 }], note: "" }),
    });
    const { id } = (await made.json()) as { id: string };
    // A crash at the worst moment: what has to be recovered finds no room.
    process.kill(
      Number(readFileSync(join(at.home, "data", "postmaster.pid"), "utf8").split("\n")[0]),
      "SIGKILL",
    );
    one.child.kill("SIGKILL");
    await one.ended;
    const makeRoom = fillDisk(folder, 0);
    one = start(at, port);
    await expect.poll(() => one.said(), { timeout: 60_000 }).toMatch(/its disk is full \(\d+ MB free\)/);
    await new Promise((resolve) => setTimeout(resolve, 12_000));
    expect(one.child.exitCode).toBeNull();
    expect(one.said().split("its disk is full").length - 1).toBe(1);
    makeRoom();
    expect((await fetch(`${await systems()}/${id}`)).status).toBe(200);
  } finally {
    await stopped(one);
    here.end();
    end();
  }
});

test("a start whose output nobody reads goes on, and a hang-up ends it as a stop does", async () => {
  test.setTimeout(240_000);
  const here = place();
  const port = await freePort(3880);
  const one = start(here, port, "--processes", "1");
  try {
    one.child.stdout?.destroy();
    one.child.stderr?.destroy();
    await expect.poll(async () => healthAt(port), { timeout: 120_000 }).toMatchObject({ ready: true });
    const server = await serverOf(here);
    // It has something to say, to nobody.
    process.kill(server, "SIGKILL");
    await expect
      .poll(async () => (await healthAt(port))?.process ?? server, { timeout: 60_000 })
      .not.toBe(server);
    expect(one.child.exitCode).toBeNull();
    one.child.kill("SIGHUP");
    expect(await one.ended).toBe(0);
    expect(here.own.isAlive()).toBe(false);
    expect(await healthAt(port)).toBeNull();
  } finally {
    one.child.kill("SIGKILL");
    here.end();
  }
});

test("an application that ends again and again is given up after five ends, with what it said last", async () => {
  test.setTimeout(240_000);
  const here = place();
  const port = await freePort(3880);
  const one = start(here, port, "--processes", "1");
  const squatter = createServer((socket) => socket.destroy());
  try {
    expect(await up(one)).toBe(port);
    const server = await serverOf(here);
    // Somebody takes its address as soon as it is free: whatever is begun then ends with a reason of its own.
    const taking = new Promise<void>((resolve) => {
      const take = () => squatter.listen(port, "127.0.0.1", resolve);
      squatter.on("error", () => setTimeout(take, 5));
      take();
    });
    process.kill(server, "SIGKILL");
    await taking;
    expect(await one.ended).toBe(1);
    expect(one.said().match(/The application (ended|didn't start).*starting it again/g)).toHaveLength(4);
    expect(one.said()).toMatch(
      /The application ended 5 times in a row within a minute of its start, or before it came up; it isn't started again\./,
    );
    expect(one.said().split("isn't started again").at(-1)).toMatch(/The address can't be taken: .*EADDRINUSE/);
    expect(here.own.isAlive()).toBe(false);
  } finally {
    squatter.close();
    one.child.kill("SIGKILL");
    here.end();
  }
});

test("a reset is asked for twice, and keeps what there was as a backup first", async () => {
  test.setTimeout(240_000);
  const here = place();
  const port = await freePort(3840);
  const first = start(here, port);
  try {
    const systems = `http://127.0.0.1:${await up(first)}/api/v1/systems`;
    const made = await fetch(systems, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ name: "Kept", screens: [], rates: [{ region: "", hz: 60 }], note: "" }),
    });
    const { id } = (await made.json()) as { id: string };
    const tooEarly = start(here, port, "--reset", "--yes");
    expect(await tooEarly.ended).not.toBe(0);
    expect(tooEarly.said()).toMatch(/Stop the running application first/);
    await stopped(first);
    const asked = start(here, port, "--reset");
    expect(await asked.ended).toBe(0);
    expect(asked.said()).toMatch(/--reset removes every job, run and rig you entered\. Say --yes/);
    const again = start(here, port);
    expect((await fetch(`http://127.0.0.1:${await up(again)}/api/v1/systems/${id}`)).status).toBe(200);
    await stopped(again);
    const reset = start(here, port, "--reset", "--yes");
    const at = await up(reset);
    expect(reset.said()).toMatch(/What there was is kept in .+before-reset-.+\.tar: 0 jobs, 0 runs\./);
    expect((await fetch(`http://127.0.0.1:${at}/api/v1/systems/${id}`)).status).toBe(404);
    expect(readdirSync(here.state).filter((name) => name.startsWith("before-reset-"))).toHaveLength(1);
    await stopped(reset);
  } finally {
    first.child.kill("SIGKILL");
    here.end();
  }
});
