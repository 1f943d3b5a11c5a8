import { expect, test, type APIRequestContext } from "@playwright/test";
import { packTrace } from "@/core/trace";
import { open } from "./support";

/* Texts that would run, break out or break the layout, stored wherever a text is stored and drawn wherever it appears. */

const harm = (place: string) =>
  `</title><script>window.harmed="${place}"</script><img src=x onerror="window.harmed='${place}'">=1+1`.slice(
    0,
    110,
  );
const long = "W".repeat(78);
const turned = "\u202egnitset مرحبا";

async function story(request: APIRequestContext) {
  const named = await request.post("/api/v1/jobs/named", {
    data: {
      rig: `${harm("rig")}`.slice(0, 80),
      title: harm("title"),
      system: harm("system").slice(0, 80),
      engine: harm("engine").slice(0, 80),
      build: '<b onclick="window.harmed=1">1</b>',
      nativeFps: 60,
      refreshHz: 60,
    },
  });
  expect(await named.text()).toContain("id");
  expect(named.status()).toBe(201);
  const { id } = (await named.json()) as { id: string };
  const view = await (await request.get(`/api/v1/jobs/${id}`)).json();
  const conditions = view.runs[0]?.conditions ?? (await (await request.get("/api/v1/bench")).json()).conditions;
  const runs = [];
  for (const text of [harm("label"), long, turned]) {
    const meta = {
      ...{
        jobId: id,
        source: "log",
        label: text,
        fileName: `${text}.csv`.slice(0, 200),
        conditions,
        settings: {},
      },
      ...{
        cacheState: "warm",
        crashed: false,
        skippedRows: 0,
        preflight: [],
        notes: text,
        trialId: null,
        arm: null,
      },
      ...{ scene: text, tags: [text.slice(0, 40)] },
    };
    const frameTimes = Float64Array.from({ length: 2400 }, (_, k) => 16 + (k % 7) / 5);
    const marks = [{ label: text, startMs: 100, endMs: 4000 }];
    const sent = await request.post("/api/v1/runs", {
      headers: { "content-type": "application/octet-stream" },
      data: Buffer.from(packTrace({ form: "frames", frameTimes, channels: [], marks }, meta)),
    });
    expect([await sent.text(), sent.status()]).toEqual([expect.any(String), 201]);
    runs.push(((await sent.json()) as { id: string }).id);
  }
  const noted = await request.post("/api/v1/faults", {
    data: {
      ...{ runId: runs[0], kind: "picture", severity: "severe", scene: harm("scene"), atMs: 900 },
      ...{ note: harm("note"), workaround: harm("workaround") },
    },
  });
  expect(noted.status()).toBe(201);
  return { id, job: view.job as { rigId: string; titleId: string; engineId: string; buildId: string }, runs };
}

test("stored texts of any kind run nothing and break nothing, on screens and in what is handed on", async ({
  page,
  request,
}) => {
  test.setTimeout(240_000);
  const { id, job, runs } = await story(request);
  let dialogs = 0;
  page.on("dialog", (dialog) => {
    dialogs++;
    void dialog.dismiss();
  });
  for (const path of [
    "/",
    "/jobs",
    `/jobs/${id}`,
    `/jobs/${id}/runs/new`,
    `/jobs/${id}/trials/new`,
    `/jobs/${id}/recipe`,
    "/jobs/new",
    "/campaigns/new",
    "/profiles",
    "/board",
    "/log",
    "/log?search=window",
    `/builds/${job.buildId}`,
    "/publish?of=board",
    "/kit/rigs",
    `/kit/rigs/${job.rigId}`,
    "/kit/titles",
    `/kit/titles/${job.titleId}`,
    "/kit/systems",
    "/kit/engines",
    `/kit/engines/${job.engineId}`,
    "/kit/abilities",
    "/kit/people",
  ]) {
    await open(page, path);
    await page.waitForTimeout(150);
    const seen = await page.evaluate(() => ({
      harmed: (window as { harmed?: unknown }).harmed ?? null,
      wide: document.documentElement.scrollWidth - document.documentElement.clientWidth,
      pictures: document.querySelectorAll('img[src="x"]').length,
    }));
    expect([path, seen]).toEqual([path, { harmed: null, wide: 0, pictures: 0 }]);
    // What is laid out in a frame of its own as well.
    for (const frame of page.frames())
      expect([path, await frame.evaluate(() => (window as { harmed?: unknown }).harmed ?? null)]).toEqual([
        path,
        null,
      ]);
  }
  expect(dialogs).toBe(0);

  const csv = await request.get(`/api/v1/runs/${runs[0]}/csv`);
  expect(csv.headers()["content-disposition"]).toMatch(/^attachment; filename="[\w.-]+"$/);
  expect(csv.headers()["content-type"]).toContain("text/csv");
  const saved = await request.get(`/api/v1/jobs/${id}/file`);
  expect(saved.headers()["content-disposition"]).toMatch(/^attachment; filename="[\w.-]+"$/);
  expect((await saved.json()).runs[0].label).toBe(harm("label"));
  const link = await request.post("/api/v1/links", {
    data: { what: "board", ofId: "", names: true, notes: true },
  });
  const { path: shared } = (await link.json()) as { path: string };
  await page.goto(shared);
  expect(await page.evaluate(() => (window as { harmed?: unknown }).harmed ?? null)).toBeNull();
  expect(await page.locator('img[src="x"]').count()).toBe(0);
  await page.setContent(await (await request.get(shared)).text());
  expect(await page.evaluate(() => (window as { harmed?: unknown }).harmed ?? null)).toBeNull();
});
