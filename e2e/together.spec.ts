import type { EndpointName } from "../src/contract/registry";
import { get } from "node:http";
import { connect } from "node:net";
import { expect, test, type APIRequestContext } from "@playwright/test";
import { Client } from "pg";
import { startServer, stopServer } from "../scripts/lib/application.mjs";
import { freePort } from "../scripts/lib/run.mjs";
import { freshJob, open, particulars } from "./support";

const rigs = async (request: APIRequestContext) =>
  (await (await request.get("/api/v1/rigs")).json()).rows as { id: string; name: string }[];

/** A rig of its own, so that nothing else leans on what is done to it. */
async function ownRig(request: APIRequestContext): Promise<string> {
  const [like] = await rigs(request);
  const made = await request.post(`/api/v1/rigs/${like!.id}/duplicate`);
  return (await made.json()).id;
}

/** The first job that has both a trial and a run. */
async function jobWithTrials(request: APIRequestContext) {
  for (const { id } of (await (await request.get("/api/v1/jobs")).json()).rows) {
    const view = await (await request.get(`/api/v1/jobs/${id}`)).json();
    if (view.runs.length > 0 && view.trials.some(({ choice }: { choice: unknown }) => choice)) return view;
  }
  throw new Error("No job of the demo has a decided trial.");
}

test("two windows edit one rig: the second sees both versions, keeps what it typed, and chooses", async ({
  context,
  request,
}) => {
  const id = await ownRig(request);
  const [mine, theirs] = [await context.newPage(), await context.newPage()];
  for (const page of [mine, theirs]) await open(page, `/kit/rigs/${id}`);
  await theirs.getByLabel("Storage").fill("their drive");
  await theirs.getByRole("button", { name: /^Keep/ }).click();
  await theirs.waitForURL(/\/kit\/rigs$/);
  await mine.getByLabel("Storage").fill("my drive");
  await mine.getByRole("button", { name: /^Keep/ }).click();
  const conflict = mine.getByRole("region", { name: "Changed meanwhile" });
  await expect(conflict.getByRole("row", { name: /storage/ })).toHaveText(/my drive.*their drive/);
  await expect(mine.getByLabel("Storage")).toHaveValue("my drive");
  await conflict.getByRole("button", { name: "Keep mine" }).click();
  await mine.waitForURL(/\/kit\/rigs$/);
  expect((await (await request.get(`/api/v1/rigs/${id}`)).json()).spec.storage).toBe("my drive");
});

test("a run kept in one window is seen in the other without a press", async ({ page, request }) => {
  const id = await freshJob(request, "Copper Regatta");
  await open(page, `/jobs/${id}`);
  await expect(page.getByText("No run yet.")).toBeVisible();
  const { job } = await (await request.get(`/api/v1/jobs/${id}`)).json();
  const rig = await (await request.get(`/api/v1/rigs/${job.rigId}`)).json();
  const opened = await request.post("/api/v1/runs/open", {
    data: { form: "frames", run: particulars(id, rig) },
  });
  expect(opened.status()).toBe(201);
  const run = await opened.json();
  await request.post(`/api/v1/runs/${run.id}/pieces`, {
    data: { role: "trace", sequence: 0, values: Array.from({ length: 900 }, (_, i) => 16 + (i % 3)) },
  });
  expect((await request.post(`/api/v1/runs/${run.id}/finish`, { data: { state: "whole" } })).ok()).toBe(true);
  await expect(page.getByRole("region", { name: "Reading" })).toBeVisible();
  await expect(page.getByRole("list", { name: "Thread" }).getByText("grown")).toBeVisible();
});

test("what one process of the application changes is seen in another on the same database", async ({
  browser,
  request,
}) => {
  const port = await freePort(3610);
  const other = await startServer({ port, url: process.env.LAMP_TEST_DATABASE!, quiet: true });
  try {
    const id = await ownRig(request);
    const page = await browser.newPage({ baseURL: `http://127.0.0.1:${port}` });
    await open(page, "/kit/rigs");
    const { version, spec } = await (await request.get(`/api/v1/rigs/${id}`)).json();
    const renamed = await request.put(`/api/v1/rigs/${id}`, {
      headers: { "if-match": `"${version}"` },
      data: { name: `Seen across ${id.slice(0, 8)}`, spec },
    });
    expect(renamed.ok()).toBe(true);
    await expect(page.getByText(`Seen across ${id.slice(0, 8)}`)).toBeVisible();
    await page.close();
  } finally {
    await stopServer(other);
  }
});

test("two processes of one start send the same page, each time with a nonce of its own, and nothing old; one that is killed hinders nobody", async ({
  request,
}) => {
  // Two more processes start within it.
  test.setTimeout(180_000);
  const port = await freePort(3640);
  const url = process.env.LAMP_TEST_DATABASE!;
  const server = await startServer({ port, url, processes: 2, quiet: true });
  /** Over a connection of its own: the next process takes it. */
  const asked = async (path: string) =>
    new Promise<{ status: number; text: string; nonce: string }>((resolve, reject) => {
      const sent = get({ port, path, host: "127.0.0.1", agent: false, timeout: 20_000 }, (response) => {
        const parts: Buffer[] = [];
        response.on("data", (part: Buffer) => parts.push(part));
        response.on("end", () => {
          const text = Buffer.concat(parts).toString("utf8");
          const nonce = /'nonce-([^']+)'/.exec(String(response.headers["content-security-policy"]))?.[1] ?? "";
          resolve({ status: response.statusCode ?? 0, text, nonce });
        });
      });
      sent.on("error", reject);
      sent.on("timeout", () => sent.destroy(new Error(`${path} isn't answered`)));
    });
  const six = async (path: string) => Promise.all(Array.from({ length: 6 }, async () => asked(path)));
  const processes = async () =>
    [...new Set((await six("/api/v1/health")).map(({ text }) => JSON.parse(text).process as number))].sort();
  try {
    // The first that is there answers before the second is.
    await expect.poll(async () => (await processes()).length, { timeout: 20_000 }).toBe(2);
    const [one] = await processes();
    const pages = await six("/kit/rigs");
    expect(pages.map(({ status }) => status)).toEqual(pages.map(() => 200));
    expect(new Set(pages.map(({ nonce }) => nonce)).size).toBe(6);
    expect(pages.every(({ text, nonce }) => text.includes(`nonce="${nonce}"`))).toBe(true);
    expect(new Set(pages.map(({ text, nonce }) => text.replaceAll(nonce, ""))).size).toBe(1);

    const id = await ownRig(request);
    const { version, spec } = await (await request.get(`/api/v1/rigs/${id}`)).json();
    const name = `Shared ${id.slice(0, 8)}`;
    const renamed = await request.put(`/api/v1/rigs/${id}`, {
      headers: { "if-match": `"${version}"` },
      data: { name, spec },
    });
    expect(renamed.ok()).toBe(true);
    expect((await six("/kit/rigs")).every(({ text }) => text.includes(name))).toBe(true);

    process.kill(one!, "SIGKILL");
    // What was handed to it in the very moment is lost with it, as with any process that is killed.
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect((await Promise.all([six("/board"), six("/log")])).flat().map(({ status }) => status)).toEqual(
      Array.from({ length: 12 }, () => 200),
    );
    await expect.poll(processes, { timeout: 30_000 }).toHaveLength(2);
    expect(await processes()).not.toContain(one);
  } finally {
    await stopServer(server);
  }
});

test("figures of an older method are said to be that, and made anew by any process, which is seen", async ({
  page,
  request,
}) => {
  // Two more processes start within it.
  test.setTimeout(180_000);
  const view = await jobWithTrials(request);
  const database = new Client({ connectionString: process.env.LAMP_TEST_DATABASE });
  await database.connect();
  await database.query(
    "update run_summaries set method_version = 2, summary = jsonb_set(summary, '{version}', '2') where run_id = $1",
    [view.runs.at(-1).id],
  );
  await database.end();
  await open(page, `/jobs/${view.job.id}`);
  const strip = page.getByRole("banner", { name: "Bench strip" });
  await expect(strip).toContainText("Measuring anew by the present method: 1 run to go");
  await expect(page.getByRole("region", { name: "Reading" })).toContainText(
    "An older method made these figures",
  );
  const other = await startServer({
    port: await freePort(3630),
    url: process.env.LAMP_TEST_DATABASE!,
    quiet: true,
  });
  try {
    await expect(strip).not.toContainText("Measuring anew", { timeout: 30_000 });
    await expect(page.getByText("An older method made these figures")).toHaveCount(0);
    const after = await (await request.get(`/api/v1/jobs/${view.job.id}`)).json();
    expect(after.runs.at(-1).summary).toEqual(view.runs.at(-1).summary);
  } finally {
    await stopServer(other);
  }
});

test("a page whose first asker went away before it was drawn is drawn for the next", async ({ request }) => {
  const { hostname, port } = new URL(process.env.LAMP_ADDRESS!);
  const store = new Client({ connectionString: process.env.LAMP_TEST_DATABASE });
  await store.connect();
  for (let tried = 0; tried < 40; tried++) {
    // Nothing drawn holds any more.
    await store.query(`insert into changes (actor, topics) values ('a test', '[]'::jsonb)`);
    const gone = connect(Number(port), hostname);
    gone.write(`GET /jobs HTTP/1.1\r\nHost: ${hostname}:${port}\r\n\r\n`);
    await new Promise((resolve) => setTimeout(resolve, tried % 8));
    gone.destroy();
    expect((await request.get("/jobs", { timeout: 8_000 })).status()).toBe(200);
  }
  await store.end();
});

test("a client that times out and tries again makes one run of thirty tries", async ({ request }) => {
  const id = await freshJob(request, "Copper Regatta");
  const { job } = await (await request.get(`/api/v1/jobs/${id}`)).json();
  const rig = await (await request.get(`/api/v1/rigs/${job.rigId}`)).json();
  const data = {
    run: particulars(id, rig),
    readings: [
      { fps: 50, second: 1 },
      { fps: 51, second: 2 },
    ],
  };
  const headers = { "idempotency-key": `thirty tries for ${id}` };
  const tries = await Promise.all(
    Array.from({ length: 30 }, () => request.post("/api/v1/tallies", { headers, data })),
  );
  expect(tries.map((answer) => answer.status())).toEqual(Array(30).fill(201));
  expect(new Set(await Promise.all(tries.map(async (answer) => (await answer.json()).id))).size).toBe(1);
  expect((await (await request.get(`/api/v1/jobs/${id}`)).json()).runs).toHaveLength(1);
});

test("an edit without a version, with a stale one, and with one that is none", async ({ request }) => {
  const id = await ownRig(request);
  const { version, name, spec } = await (await request.get(`/api/v1/rigs/${id}`)).json();
  const put = (headers: Record<string, string>) =>
    request.put(`/api/v1/rigs/${id}`, { headers, data: { name, spec } });
  expect((await put({})).status()).toBe(428);
  expect((await put({ "if-match": "soon" })).status()).toBe(422);
  const stale = await put({ "if-match": '"0"' });
  expect(stale.status()).toBe(409);
  expect(await stale.json()).toMatchObject({ saw: 0, current: version });
  const kept = await put({ "if-match": `"${version}"` });
  expect(kept.status()).toBe(200);
});

test("every endpoint that reads answers in the shape its contract promises", async ({ request }) => {
  const document = await (await request.get("/api/v1/openapi.json")).json();
  expect(document.openapi).toBe("3.1.0");
  const view = await jobWithTrials(request);
  expect(view.next.sentence).toMatchObject({ code: expect.any(String), words: expect.any(String) });
  const { endpointNamed } = await import("../src/contract/registry");
  const shelf = {
    rig: view.job.rigId,
    title: view.job.titleId,
    engine: view.job.engineId,
    rules: view.job.houseRulesId,
  };
  const trial = view.trials.find(({ choice }: { choice: unknown }) => choice).id;
  const asked: [EndpointName, string][] = [
    ["viewBench", "bench"],
    ["listJobs", "jobs"],
    ["viewJob", `jobs/${view.job.id}`],
    ["viewDiagnosis", `jobs/${view.job.id}/diagnosis?run=${view.runs[0].id}`],
    ["viewTrial", `trials/${trial}`],
    ["viewOutcome", `trials/${trial}/outcome`],
    ["listRigs", "rigs"],
    ["viewRig", `rigs/${shelf.rig}`],
    ["listTitles", "titles"],
    ["viewTitle", `titles/${shelf.title}`],
    ["viewEngine", `engines/${shelf.engine}`],
    ["viewHouseRules", `house-rules/${shelf.rules}`],
    ["viewWork", "work"],
    ["viewHealth", "health"],
  ];
  for (const [name, path] of asked) {
    const answer = await request.get(`/api/v1/${path}`);
    const read = endpointNamed(name).output.safeParse(await answer.json());
    expect([name, answer.status(), read.error?.issues ?? []]).toEqual([name, 200, []]);
  }
});

test("the endpoints are shown readably, and linked to what programs read", async ({ page }) => {
  await open(page, "/api");
  await expect(page.getByRole("heading", { name: "Trials" })).toBeVisible();
  await expect(page.getByText("/trials/{id}/decision").first()).toBeVisible();
  await expect(page.getByRole("link", { name: "OpenAPI 3.1" })).toHaveAttribute("href", "/api/v1/openapi.json");
});

test("pages and reads are refused under a foreign name", async ({ request, baseURL }) => {
  for (const path of ["/", "/jobs", "/api/v1/jobs", "/api/v1/health"]) {
    const answer = await request.get(`${baseURL}${path}`, { headers: { host: "lamp.invalid" } });
    expect([path, answer.status()]).toEqual([path, 421]);
  }
});
