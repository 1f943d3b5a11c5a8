import { expect, test, type APIRequestContext } from "@playwright/test";
import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freshJob, open } from "./support";

/* Trials that run by themselves: the agent as it is handed out, on a simulated device. */

const json = async (request: APIRequestContext, path: string) => (await request.get(`/api/v1${path}`)).json();

interface Running {
  child: ChildProcess;
  ended: Promise<number | null>;
  said: () => string;
}
const begun: ChildProcess[] = [];
function begin(program: string, args: string[], cwd?: string): Running {
  const child = spawn(program, args, { cwd, stdio: ["ignore", "pipe", "pipe"] });
  begun.push(child);
  let said = "";
  for (const stream of [child.stdout, child.stderr])
    stream?.on("data", (part: Buffer) => (said += part.toString()));
  return { child, said: () => said, ended: new Promise((resolve) => child.once("exit", resolve)) };
}

let work: string;
let bundle: string;
test.beforeAll(async ({ request }) => {
  work = mkdtempSync(join(tmpdir(), "velvet-lamp-itself-"));
  bundle = join(work, "lamp-agent.mjs");
  writeFileSync(bundle, await (await request.get("/agent.mjs")).body());
});
test.afterAll(() => {
  for (const child of begun) child.kill("SIGKILL");
  rmSync(work, { recursive: true, force: true, maxRetries: 10, retryDelay: 100 });
});

/** A rig with a job and a simulated device in its image, which the agent is paired on. */
async function simulated(request: APIRequestContext, address: string) {
  const { rows } = await json(request, "/rigs?search=Pipit");
  const { id: rigId } = await (await request.post(`/api/v1/rigs/${rows[0].id}/duplicate`)).json();
  const rig = (await json(request, `/rigs/${rigId}`)).name;
  const job = await freshJob(request, "Kite Weather", { rigId });
  const view = await json(request, `/jobs/${job}`);
  const folder = mkdtempSync(join(work, "device-"));
  const device = begin("node_modules/.bin/tsx", [
    ...["src/cli/lamp.ts", "stand-in", "--rig", rig, "--engine", view.job.engine],
    ...["--folder", folder, "--address", address],
  ]);
  await expect.poll(device.said, { timeout: 60_000 }).toContain("It cools here");
  const { code } = await (await request.post(`/api/v1/rigs/${rigId}/pairings`)).json();
  const home = join(folder, "agent");
  const name = `Agent of ${rig}`;
  const pairing = begin(process.execPath, [bundle, "pair", address, code, "--home", home, "--name", name]);
  expect([await pairing.ended, pairing.said()]).toEqual([0, expect.stringContaining("Paired with")]);
  const working = (...more: string[]) =>
    begin(process.execPath, [
      ...[bundle, "work", "--bench", join(folder, "bench.toml"), "--root", join(folder, "root")],
      ...["--home", home, "--rate", "4", ...more],
    ]);
  return { rigId, job, view, folder, name, working, config: join(folder, "engine", "settings.toml") };
}

/** Two arms of the setting that the picture's scale is, at scales that the device feels. */
async function scaleTrial(request: APIRequestContext, job: string, rounds: number, seconds: number) {
  const { catalogue, standing } = await json(request, `/jobs/${job}`);
  const scale = catalogue.find(({ purpose }: { purpose: string }) => purpose === "scale");
  const arm = (name: string, value: number) => ({
    name,
    settings: { ...standing.settings, [scale.key]: value },
    conditions: {},
    buildId: null,
    level: null,
  });
  const made = await request.post("/api/v1/trials", {
    data: {
      jobId: job,
      kind: "compare",
      name: "A larger picture",
      arms: [arm("one", 1), arm("the largest", scale.max)],
      rounds,
      cold: false,
      plan: {
        minutes: seconds / 60,
        soakMinutes: null,
        elsewhereWatts: null,
        keys: [scale.key],
        firstRunId: null,
      },
    },
  });
  expect(made.status(), await made.text()).toBe(201);
  return (await made.json()).id as string;
}

const runsOf = async (request: APIRequestContext, job: string) =>
  (await json(request, `/jobs/${job}`)).runs as {
    state: string;
    arm: number;
    trialId: string;
    summary: { averageFps: number; durationMs: number };
  }[];

test("a trial of two arms runs by itself to its decision, through a crash and a kill", async ({
  page,
  request,
  baseURL,
}) => {
  test.setTimeout(300_000);
  const { job, folder, name, working, config } = await simulated(request, baseURL!);
  const before = readFileSync(config);
  const trial = await scaleTrial(request, job, 2, 11);
  await open(page, `/jobs/${job}/trials/${trial}`);
  await page.getByRole("button", { name: `Let ${name} run it` }).click();
  const form = page.getByRole("dialog", { name: "Let the device run it" });
  await form.getByLabel("Rounds at most").fill("2");
  await form.getByLabel(/^Rest between runs/).fill("0");
  await form.getByRole("button", { name: "Let it run" }).click();
  await expect(page.getByText("Waits for a device of its rig.")).toBeVisible();

  // Its first run crashes after four seconds.
  writeFileSync(join(folder, "trouble.json"), JSON.stringify({ what: "crash", atS: 4 }));
  const first = working();
  await expect(page.getByText(`${name} makes its runs in the planned order.`)).toBeVisible({ timeout: 30_000 });
  const did = page.getByRole("list", { name: "What it did" });
  await expect(did.getByText(/Crash: .* it ended with 139, after [34]\.\d\ss/)).toBeVisible({
    timeout: 30_000,
  });
  // The agent is killed in the middle of the second.
  await expect(did.getByText(/Begins:/)).toHaveCount(2, { timeout: 30_000 });
  await expect.poll(() => readFileSync(config).equals(before)).toBe(false);
  await page.waitForTimeout(3000);
  first.child.kill("SIGKILL");
  await first.ended;
  const second = working("--once");
  await expect.poll(second.said).toContain("is as it was before the last run, which was cut off");
  expect([await second.ended, second.said()]).toEqual([
    0,
    expect.stringContaining("The decision waits for you."),
  ]);

  expect(readFileSync(config).equals(before)).toBe(true);
  expect(readdirSync(join(folder, "agent", "changed"))).toEqual([]);
  const runs = await runsOf(request, job);
  const arms = (state: string) => runs.filter((run) => run.state === state).map(({ arm }) => arm);
  expect([arms("crashed"), arms("cut off")]).toEqual([[0], [0]]);
  // In the planned order, and no further round once it is decided.
  expect([
    [0, 1],
    [0, 1, 1, 0],
  ]).toContainEqual(arms("whole"));
  for (const { state, summary } of runs)
    if (state === "whole") expect(summary.durationMs).toBeGreaterThan(10_000);
  // It wasn't decided for anybody: the computed decision waits.
  expect((await json(request, `/trials/${trial}`)).trial.decidedAt).toBeNull();
  const { pairs, advice } = await json(request, `/trials/${trial}/outcome`);
  expect([pairs[0].decision, advice.choice]).toEqual([expect.not.stringMatching("undecided"), "put back"]);
  expect(second.said()).toMatch(/The decision waits for you\. Put back/);
  await expect(page.getByText(/The decision waits for you\. /).first()).toBeVisible();
});

test("it is stopped by a key on the page, and by what bench.toml doesn't allow", async ({
  page,
  request,
  baseURL,
}) => {
  test.setTimeout(180_000);
  const { job, folder, name, working, config } = await simulated(request, baseURL!);
  const before = readFileSync(config);
  const trial = await scaleTrial(request, job, 1, 60);
  const terms = {
    ...{ until: null, mostRounds: 4, mostCrashes: 3, leastBattery: null },
    ...{ limitC: null, restMinutes: 0, hangSeconds: 8 },
  };
  const set = async (more = {}) =>
    (await request.post(`/api/v1/trials/${trial}/unattended`, { data: { ...terms, ...more } })).status();
  const limit = (await json(request, `/trials/${trial}/unattended`)).limitC;
  if (limit !== null) expect(await set({ limitC: limit + 1 })).toBe(422);
  expect(await set()).toBe(200);
  await open(page, `/jobs/${job}/trials/${trial}`);
  const one = working("--once");
  const did = page.getByRole("list", { name: "What it did" });
  await expect(did.getByText(/Begins:/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "Stop it" }).click();
  await expect(page.getByRole("button", { name: `Let ${name} run it` })).toBeVisible();
  expect([await one.ended, one.said()]).toEqual([
    0,
    expect.stringContaining("No trial on this rig runs by itself"),
  ]);
  expect((await runsOf(request, job)).map(({ state }) => state)).toEqual(["cut off"]);

  // A hang is a crashed run with its seconds, and so many crashes end it.
  writeFileSync(join(folder, "trouble.json"), JSON.stringify({ what: "hang", atS: 3 }));
  expect(await set({ mostCrashes: 1 })).toBe(200);
  const hung = working("--once");
  expect([await hung.ended, hung.said()]).toEqual([0, expect.stringMatching(/A run crashed: no further one/)]);
  await expect(did.getByText(/Hang: No frame came for 8\ss, after [23]\.\d\ss/)).toBeVisible();

  // What isn't in bench.toml is refused on the device, whatever the server asks for.
  const bench = join(folder, "bench.toml");
  const allowed = readFileSync(bench, "utf8");
  writeFileSync(
    bench,
    allowed.replace(/^(least = ).*$/gm, "$1 2").replace(/^values = .*$/gm, 'values = [ "none" ]'),
  );
  expect(await set()).toBe(200);
  const refused = working("--once");
  expect([await refused.ended, refused.said()]).toEqual([
    0,
    expect.stringMatching(/may not be .* by bench\.toml/),
  ]);
  await expect(did.getByText(/may not be .* by bench\.toml/).first()).toBeVisible();
  expect(readFileSync(config).equals(before)).toBe(true);
});
