import { expect, test } from "@playwright/test";
import { startServer, stopServer, type Server } from "../scripts/lib/application.mjs";
import { freePort } from "../scripts/lib/run.mjs";
import { demoJob, freshJob, open } from "./support";

const url = process.env.LAMP_TEST_DATABASE!;

test("without the application what was opened can be read, and a tally is sent when it is back", async ({
  browser,
  request,
}) => {
  test.setTimeout(180_000);
  const job = await freshJob(request, "Copper Regatta");
  const { rigId } = (await (await request.get(`/api/v1/jobs/${job}`)).json()).job;
  const { version } = await (await request.get("/api/v1/bench")).json();
  await request.put("/api/v1/bench", { data: { rigId, jobId: job }, headers: { "if-match": `"${version}"` } });
  const other = await demoJob(request, "Paper Lighthouse");
  const port = await freePort(3690);
  let server: Server | null = await startServer({ port, url, quiet: true });
  const context = await browser.newContext({ baseURL: `http://127.0.0.1:${port}` });
  try {
    const page = await context.newPage();
    await open(page, `/jobs/${other}`);
    const heading = await page.getByRole("heading", { level: 1 }).innerText();
    await open(page, `/jobs/${job}/runs/new`);
    // The shell is kept: this page, and every script that it may want.
    await expect
      .poll(
        () =>
          page.evaluate(async () => {
            const [name] = await caches.keys();
            if (!name) return [0, 0];
            const urls = (await (await caches.open(name)).keys()).map((each) => each.url);
            const worker = await (await fetch("/worker.js")).text();
            const wanted = (/const files = (\[.*?\]);/.exec(worker)?.[1] ?? "[]").match(/\.js"/g) ?? [];
            return [
              urls.filter((each) => each.endsWith("/runs/new")).length,
              wanted.length > 30 && urls.filter((each) => each.endsWith(".js")).length >= wanted.length,
            ];
          }),
        { timeout: 60_000 },
      )
      .toEqual([1, true]);
    await page.goto(`/jobs/${other}`);
    await page.goto(`/jobs/${job}/runs/new`);

    await stopServer(server);
    server = null;
    const note = page.getByRole("status").filter({ hasText: "No connection" });
    await expect(note).toBeVisible({ timeout: 20_000 });
    await page.getByRole("tab", { name: /by eye/i }).click();
    const pad = page.getByLabel(/Look when it ticks/);
    for (const rate of ["59", "60", "60"]) {
      await pad.fill(rate);
      await pad.press("Enter");
    }
    await page.getByRole("button", { name: "Keep this tally" }).click();
    await expect(page.getByRole("status").filter({ hasText: "1 entry not sent yet" })).toBeVisible();

    // Opened anew without the application: pages that were kept, and a sentence for one that wasn't.
    await page.goto(`/jobs/${other}`);
    await expect(page.getByRole("heading", { level: 1 })).toHaveText(heading);
    await expect(page.getByRole("status").filter({ hasText: "1 entry not sent yet" })).toBeVisible();
    await page.goto("/board");
    await expect(page.getByRole("heading", { name: "No connection" })).toBeVisible();
    await page.getByRole("link", { name: heading }).click();
    await expect(page.getByRole("heading", { level: 1 })).toHaveText(heading);

    server = await startServer({ port, url, quiet: true });
    const runs = async () =>
      (await (await request.get(`/api/v1/jobs/${job}`)).json()).runs as { source: string }[];
    await expect
      .poll(async () => (await runs()).map(({ source }) => source), { timeout: 60_000 })
      .toEqual(["tally"]);
    await expect(page.getByRole("status").filter({ hasText: /not sent yet|No connection/ })).toHaveCount(0);
  } finally {
    await context.close();
    await stopServer(server);
  }
});

test("the application can be installed, and an older build's pages are never shown after an update", async ({
  page,
  request,
}) => {
  const manifest = await (await request.get("/manifest.webmanifest")).json();
  expect(manifest).toMatchObject({ start_url: "/", display: "standalone" });
  for (const { src, type } of manifest.icons) {
    const icon = await request.get(src);
    expect([icon.status(), icon.headers()["content-type"]]).toEqual([200, type]);
  }
  await open(page, "/");
  expect(await page.locator('link[rel="manifest"]').getAttribute("href")).toBe("/manifest.webmanifest");
  // A page as an older build left it.
  await page.evaluate(async () => {
    const cache = await caches.open("lamp an older build");
    await cache.put("/board", new Response("<h1>old</h1>", { headers: { "content-type": "text/html" } }));
  });
  await page.reload();
  await page.evaluate(async () => {
    for (const each of await navigator.serviceWorker.getRegistrations()) await each.unregister();
  });
  await page.reload();
  await expect
    .poll(() => page.evaluate(async () => (await caches.keys()).includes("lamp an older build")), {
      timeout: 20_000,
    })
    .toBe(false);
});
