import { expect, test, type APIRequestContext } from "@playwright/test";
import { spawn, type ChildProcess } from "node:child_process";
import {
  appendFileSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { gzipSync } from "node:zlib";
import { connect, createServer, type Socket } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { unpackTrace } from "../src/core/trace";
import { phoneTree, writeTree } from "../src/testing/kernelTrees";
import { freshJob } from "./support";

/* A device's agent as it is handed out, with the application that hands it out. */

const json = async (request: APIRequestContext, path: string) => (await request.get(`/api/v1${path}`)).json();

let work: string;
let bundle: string;
let root: string;
test.beforeAll(async ({ request }) => {
  work = mkdtempSync(join(tmpdir(), "velvet-lamp-live-"));
  bundle = join(work, "lamp-agent.mjs");
  writeFileSync(bundle, await (await request.get("/agent.mjs")).body());
  root = join(work, "device");
  writeTree(root, phoneTree);
});
test.afterAll(() => rmSync(work, { recursive: true, force: true }));

/** A rig of its own with a job. */
async function rigAndJob(request: APIRequestContext) {
  const { rows } = await json(request, "/rigs?search=Pipit");
  const made = await request.post(`/api/v1/rigs/${rows[0].id}/duplicate`);
  const { id: rigId } = await made.json();
  return { rigId, job: await freshJob(request, "Glasshouse Duel", { rigId }) };
}

/** The run of a job that grows. */
async function growing(request: APIRequestContext, job: string) {
  const { runs } = await json(request, "/live");
  return runs.find(({ jobId }: { jobId: string }) => jobId === job);
}

/** The same, and a device that is paired with it. */
async function device(request: APIRequestContext, address: string) {
  const { rigId, job } = await rigAndJob(request);
  const { code } = await (await request.post(`/api/v1/rigs/${rigId}/pairings`)).json();
  const home = mkdtempSync(join(work, "home-"));
  const pairing = agent("pair", address, code, "--home", home, "--name", `Device ${Date.now()}`);
  expect([await pairing.ended, pairing.said()]).toEqual([0, expect.stringContaining("Paired with")]);
  return { rigId, job, home };
}

function agent(...args: string[]): { child: ChildProcess; ended: Promise<number | null>; said: () => string } {
  const child = spawn(process.execPath, [bundle, ...args], { cwd: work, stdio: ["pipe", "pipe", "pipe"] });
  let said = "";
  for (const stream of [child.stdout, child.stderr])
    stream?.on("data", (part: Buffer) => (said += part.toString()));
  return { child, said: () => said, ended: new Promise((resolve) => child.once("exit", resolve)) };
}

const streams = (home: string, ...more: string[]) =>
  agent("stream", "--home", home, "--root", root, "--rate", "10", ...more);

/** Frames of 20 ms as they are made, a tenth of a second at a time. */
async function play(log: string, ms: number, each: () => void = () => {}) {
  writeFileSync(log, "frame time ms\n");
  for (let at = 0; at < ms; at += 100) {
    await wait(100);
    appendFileSync(log, "20\n".repeat(5));
    each();
  }
}

const runsOf = async (request: APIRequestContext, job: string) => (await json(request, `/jobs/${job}`)).runs;
/** Everything that was appended to a run, asked for as a page that watches it does. */
async function piecesOf(request: APIRequestContext, run: string) {
  const found = new Map<string, { role: string; values: number[] }>();
  for (let [since, more] = ["", true]; more;) {
    const said = await json(request, `/runs/${run}/pieces${since && `?since=${since}`}`);
    for (const piece of said.pieces) found.set(`${piece.role} ${piece.sequence}`, piece);
    [since, more] = [said.until ?? "", said.more];
  }
  return [...found.values()];
}
const framesOf = async (request: APIRequestContext, run: string): Promise<number[]> =>
  (await piecesOf(request, run)).flatMap(({ role, values }) => (role === "trace" ? values : []));

test("a device is paired by a code, and its log is a run while it is written, with what the kernel says", async ({
  request,
  baseURL,
}) => {
  test.setTimeout(90_000);
  const { home, job } = await device(request, baseURL!);
  const log = join(work, "frames.csv");
  const one = streams(home, "--follow", log, "--label", "from the agent");
  await expect.poll(one.said).toMatch(/Brings runs to .*: Glasshouse Duel, .* Its clock is -?\d+ ms ahead/);
  await play(log, 4000);
  // It grows on the server while it is played.
  const live = await growing(request, job);
  expect((await framesOf(request, live.runId)).length).toBeGreaterThan(50);
  one.child.kill("SIGINT");
  expect([await one.ended, one.said()]).toEqual([0, expect.any(String)]);
  const [run] = await runsOf(request, job);
  expect(run).toMatchObject({ state: "whole", label: "from the agent", fileName: "frames.csv" });
  expect(run.summary.averageFps).toBeCloseTo(50, 1);
  expect(await framesOf(request, run.id)).toEqual(Array.from({ length: 200 }, () => 20));
  const roles = new Set((await piecesOf(request, run.id)).map(({ role }) => role));
  expect([...roles]).toEqual(expect.arrayContaining(["trace", "temperature", "watts", "cpuClock"]));
  expect(readdirSync(join(home, "spool"))).toEqual([]);
  // What lets it in is for its owner alone.
  expect(statSync(join(home, "pairing.json")).mode & 0o777).toBe(0o600);
});

test("a rig's page gives the code, and a run is watched, marked and ended on the live page", async ({
  page,
  request,
  baseURL,
}) => {
  test.setTimeout(120_000);
  const { rigId, job } = await rigAndJob(request);
  await page.goto(`/kit/rigs/${rigId}`);
  await page.getByRole("button", { name: /^Pair a device with/ }).click();
  const code = await page.getByText(/^[0-9A-Z]{4}-[0-9A-Z]{4}$/).textContent();
  const home = mkdtempSync(join(work, "home-"));
  const pairing = agent("pair", baseURL!, code!, "--home", home, "--name", "The watched one");
  expect(await pairing.ended).toBe(0);
  await page.reload();
  await expect(page.getByRole("row", { name: /The watched one.*nothing just now/ })).toBeVisible();

  const log = join(work, "watched.csv");
  const one = streams(home, "--follow", log);
  await expect.poll(one.said).toContain("Brings runs to");
  const playing = play(log, 16_000);
  // The strip of a page that was open before says so.
  await page.getByRole("link", { name: /^live/ }).click();
  await page.waitForURL(/\/live/);
  await page.goto(`/live?run=${(await growing(request, job)).runId}`);
  await expect(page.getByTestId("live-rate")).toHaveText("50.0fps");
  const whole = page.getByRole("region", { name: "The whole run so far" }).first();
  await expect(whole).toContainText(/Full-speed time0.0/);
  await expect(page.getByText(/°C.*W/).first()).toBeVisible();
  await page.keyboard.press("m");
  const marks = page.getByTestId("live-marks");
  await expect(marks).toContainText(/since/);
  const scene = (await marks.textContent())!.split(" since")[0]!;
  await page.keyboard.press("l");
  await expect(marks).toContainText(new RegExp(`${scene} .* to .*, Loading since`));
  await page.keyboard.press("f");
  await page.getByRole("button", { name: "picture" }).click();
  await expect(page.getByText(/A fault of picture at/)).toBeVisible();
  await page.keyboard.press("x");
  await expect(page.getByText(/Run \d+ has ended/)).toBeVisible();
  await expect(
    page.getByText("No run grows now").or(page.getByRole("list", { name: /grow now/ })),
  ).toBeVisible();
  await playing;
  one.child.kill("SIGINT");
  expect([await one.ended, one.said()]).toEqual([0, expect.stringContaining("ended on its page")]);
  const runs = await runsOf(request, job);
  expect(runs).toMatchObject([{ state: "whole" }]);
  const kept = await (await request.get(`/api/v1/runs/${runs[0].id}/trace`)).body();
  expect(unpackTrace(Uint8Array.from(kept)).trace.marks.map(({ label }) => label)).toEqual([scene, "Loading"]);
  expect(readdirSync(join(home, "spool"))).toEqual([]);
  expect(existsSync(join(home, "refused"))).toBe(false);
});

test("a log from standard input is streamed to its end", async ({ request, baseURL }) => {
  const { home, job } = await device(request, baseURL!);
  const one = streams(home);
  one.child.stdin?.end(
    `time s,fps\n${Array.from({ length: 40 }, (_, k) => `${k},${58 + (k % 3)}`).join("\n")}\n`,
  );
  expect([await one.ended, one.said()]).toEqual([0, expect.any(String)]);
  const [run] = await runsOf(request, job);
  expect(run).toMatchObject({ state: "whole", form: "interval" });
  expect(run.summary.averageFps).toBeCloseTo(59, 0);
});

test("killed in the middle, what it had is sent at the next start as a run that was cut off, nothing twice", async ({
  request,
  baseURL,
}) => {
  test.setTimeout(90_000);
  const { home, job } = await device(request, baseURL!);
  const log = join(work, "killed.csv");
  const one = streams(home, "--follow", log);
  await expect.poll(one.said).toContain("Brings runs to");
  await play(log, 3000);
  one.child.kill("SIGKILL");
  await one.ended;
  rmSync(log);
  const again = streams(home, "--follow", log, "--seconds", "1");
  expect([await again.ended, again.said()]).toEqual([0, expect.any(String)]);
  const runs = await runsOf(request, job);
  expect(runs).toMatchObject([{ state: "cut off" }]);
  const frames = await framesOf(request, runs[0].id);
  expect(new Set(frames)).toEqual(new Set([20]));
  expect(frames.length).toBeGreaterThan(100);
  expect(frames.length).toBeLessThanOrEqual(150);
});

test("over a line that is cut again and again every frame arrives once", async ({ request, baseURL }) => {
  test.setTimeout(120_000);
  const { port } = new URL(baseURL!);
  const open = new Set<Socket>();
  let isDown = false;
  const proxy = createServer((near) => {
    if (isDown) return void near.destroy();
    const far = connect(Number(port), "127.0.0.1");
    for (const [one, other] of [
      [near, far],
      [far, near],
    ] as const) {
      open.add(one);
      one.on("data", (part) => other.writable && other.write(part));
      one.on("close", () => (open.delete(one), other.destroy()));
      one.on("error", () => other.destroy());
    }
  });
  await new Promise<void>((resolve) => proxy.listen(0, "127.0.0.1", resolve));
  const address = `http://127.0.0.1:${(proxy.address() as { port: number }).port}`;
  try {
    const { home, job } = await device(request, address);
    const log = join(work, "cut.csv");
    const one = streams(home, "--follow", log);
    await expect.poll(one.said).toContain("Brings runs to");
    let [cuts, step] = [0, 0];
    await play(log, 6000, () => {
      step++;
      isDown = step % 20 > 14;
      if (step % 3 !== 0) return;
      cuts++;
      for (const socket of open) socket.destroy();
    });
    isDown = false;
    one.child.kill("SIGINT");
    expect([await one.ended, one.said()]).toEqual([0, expect.any(String)]);
    const runs = await runsOf(request, job);
    expect(runs).toMatchObject([{ state: "whole" }]);
    expect(await framesOf(request, runs[0].id)).toEqual(Array.from({ length: 300 }, () => 20));
    console.log(`cuts of the line: ${cuts}; frames that arrived: 300 of 300`);
  } finally {
    for (const socket of open) socket.destroy();
    proxy.close();
  }
});

test("a token that is revoked in mid-stream ends it in words, and what wasn't sent stays on the device", async ({
  request,
  baseURL,
}) => {
  test.setTimeout(90_000);
  const { home, rigId } = await device(request, baseURL!);
  const log = join(work, "revoked.csv");
  const one = streams(home, "--follow", log);
  await expect.poll(one.said).toContain("Brings runs to");
  const { devices } = await json(request, "/live");
  const { id } = devices.find((each: { rigId: string }) => each.rigId === rigId);
  let step = 0;
  await play(log, 4000, () => {
    if (++step === 20) void request.delete(`/api/v1/programs/${id}`);
  });
  expect(await one.ended).toBe(1);
  expect(one.said()).toMatch(/batches wait in/);
  expect(existsSync(join(home, "spool"))).toBe(true);
  expect(readdirSync(join(home, "spool"))).toHaveLength(1);
});

test("a hostile agent is refused with a problem at everything it tries, and nothing is lost or doubled", async ({
  request,
  baseURL,
}) => {
  const [own, other] = [await device(request, baseURL!), await device(request, baseURL!)];
  const tokenOf = (home: string) =>
    (JSON.parse(readFileSync(join(home, "pairing.json"), "utf8")) as { token: string }).token;
  const [hostile, victim] = [tokenOf(own.home), tokenOf(other.home)];
  const sent = async (token: string, path: string, data: unknown, headers: Record<string, string> = {}) => {
    const answer = await request.post(`/api/v1${path}`, {
      data: data as object,
      headers: {
        ...{ authorization: `Bearer ${token}`, "idempotency-key": crypto.randomUUID() },
        ...{ "content-type": "application/json", ...headers },
      },
    });
    const said = await answer.json();
    if (answer.status() >= 400) expect([path, said.title]).toEqual([path, expect.any(String)]);
    return { status: answer.status(), id: said.id as string };
  };
  const piece = { role: "trace", sequence: 0, values: [20, 20, 20] };
  const { id: theirs } = await sent(victim, "/device/runs", { form: "frames" });
  expect((await sent(victim, `/device/runs/${theirs}/pieces`, { pieces: [piece] })).status).toBe(201);
  const { id: mine } = await sent(hostile, "/device/runs", { form: "frames" });
  const trial = { trialId: crypto.randomUUID(), arm: 0 };
  const bomb = gzipSync(Buffer.alloc(300 * 1024 * 1024, " "));
  const tried: [what: string, status: number, path: string, data: unknown, headers?: Record<string, string>][] =
    [
      ["another rig's run", 404, `/device/runs/${theirs}/pieces`, { pieces: [{ ...piece, sequence: 1 }] }],
      ["ending it", 404, `/device/runs/${theirs}/finish`, { state: "whole" }],
      ["a run that isn't there", 404, `/device/runs/${crypto.randomUUID()}/pieces`, { pieces: [piece] }],
      ["a trial that isn't there", 404, "/device/runs", { form: "frames", work: trial }],
      ["notes of a trial that isn't there", 404, `/device/work/${trial.trialId}/notes`, { what: "told" }],
      ["a time from 1970", 422, "/device/runs", { form: "frames", startedMs: 0 }],
      ["a time to come", 422, "/device/runs", { form: "frames", startedMs: Date.now() + 1e9 }],
      ["no time", 422, "/device/runs", { form: "frames", startedMs: "now" }],
      ["frames that can't be", 422, `/device/runs/${mine}/pieces`, { pieces: [{ ...piece, values: [-1] }] }],
      ["a place that can't be", 422, `/device/runs/${mine}/pieces`, { pieces: [{ ...piece, sequence: 1e9 }] }],
      ["no role", 422, `/device/runs/${mine}/pieces`, { pieces: [{ ...piece, role: "constructor" }] }],
      [
        "more values than a piece holds",
        413,
        `/device/runs/${mine}/pieces`,
        {
          pieces: Array.from({ length: 90 }, (_, sequence) => ({
            ...piece,
            sequence,
            values: Array(9000).fill(20),
          })),
        },
      ],
      [
        "a million marks",
        413,
        `/device/runs/${mine}/finish`,
        {
          state: "whole",
          marks: Array.from({ length: 1e5 }, (_, k) => ({ label: "x", startMs: k, endMs: k + 1 })),
        },
      ],
      ["300 MB in 300 kB", 413, `/device/runs/${mine}/pieces`, bomb, { "content-encoding": "gzip" }],
      ["what isn't packed", 422, `/device/runs/${mine}/pieces`, "{}", { "content-encoding": "gzip" }],
      ["another packing", 415, `/device/runs/${mine}/pieces`, "{}", { "content-encoding": "br" }],
      ["what a person may", 403, "/jobs", {}],
      ["another device", 403, `/rigs/${other.rigId}/pairings`, {}],
    ];
  for (const [what, status, path, data, headers] of tried)
    expect([what, (await sent(hostile, path, data, headers)).status]).toEqual([what, status]);
  // A replay changes nothing, and what was there is there.
  for (let k = 0; k < 3; k++) await sent(victim, `/device/runs/${theirs}/pieces`, { pieces: [piece] });
  expect(await framesOf(request, theirs)).toEqual([20, 20, 20]);
  expect((await sent(victim, `/device/runs/${theirs}/finish`, { state: "whole" })).status).toBe(200);
  expect((await sent(victim, `/device/runs/${theirs}/pieces`, { pieces: [piece] })).status).toBe(409);
  expect(await runsOf(request, other.job)).toHaveLength(1);
});
