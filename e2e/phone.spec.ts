import { expect, test } from "@playwright/test";
import { log } from "./support";

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

test("the whole job by thumb on a phone: first verdict, a trial, the decision, the closing", async ({
  page,
}) => {
  test.setTimeout(180_000);
  const go = async (path: string) => {
    await page.goto(path);
    await page.locator("[data-ready]").waitFor();
  };
  const bring = async (seconds: number, fps: number) => {
    await page.getByLabel("Log files").setInputFiles({
      name: `log-${seconds}.csv`,
      mimeType: "text/csv",
      buffer: Buffer.from(log(seconds, fps)),
    });
    await page.getByRole("region", { name: "Preview" }).waitFor();
  };
  await go("/");
  await bring(21, 52);
  await page.getByRole("combobox", { name: "Rig (needed)" }).fill(`Willow ${Date.now()}`);
  await page.getByRole("combobox", { name: "Title" }).fill("Night Ferry");
  await page.getByRole("combobox", { name: "System" }).fill("320×240, 60 Hz");
  await page.getByRole("combobox", { name: "Engine" }).fill("Oriel");
  await page.getByRole("button", { name: /Keep this run/ }).tap();
  await page.waitForURL(/\/jobs\/.*\?run=/);
  const job = new URL(page.url()).pathname;
  // The verdict, the figure and the next step stand in the first screenful.
  const shown = page.getByRole("region", { name: "The run's trace" });
  const main = shown.getByTestId("main-action");
  for (const seen of [shown.getByText("Dims", { exact: true }), shown.getByText("52.0"), main])
    await expect(seen.first()).toBeInViewport();
  await page.getByRole("button", { name: "Reading", exact: true }).tap();
  await expect(page.getByRole("dialog")).toContainText("52.0");
  await page.keyboard.press("Escape");

  // A trial of two builds of the engine, planned through its endpoint: the form is read on this page as well.
  const { standing } = await (await page.request.get(`/api/v1${job}`)).json();
  const arm = (name: string) => ({
    name,
    settings: standing.settings,
    conditions: {},
    buildId: null,
    level: null,
  });
  const made = await page.request.post("/api/v1/trials", {
    data: {
      jobId: job.split("/").at(-1),
      kind: "compare",
      name: "Cooler pad",
      rounds: 2,
      cold: false,
      plan: { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: [] },
      arms: [arm("as it is"), { ...arm("pad"), conditions: { cooler: true } }],
    },
  });
  const { id } = await made.json();
  await go(`${job}/trials/new`);
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  // The first run counts as the first of what is in force: three of the four are left to make.
  for (const [seconds, fps] of [
    [23, 59.9],
    [24, 59.8],
    [25, 52.1],
  ] as const) {
    await go(job);
    await main.getByRole("link").tap();
    await page
      .getByRole("heading", { name: /New run|isn't on the bench/ })
      .first()
      .waitFor();
    await bring(seconds, fps);
    await page.getByRole("button", { name: /Keep this run/ }).tap();
    await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  }
  await go(`${job}/trials/${id}`);
  await page.getByRole("button", { name: /^Keep pad/ }).tap();
  await expect(page.getByText("pad kept").first()).toBeVisible();
  await go(job);
  await main.getByRole("link", { name: /confirmation/ }).tap();
  await bring(26, 60);
  await page.getByRole("button", { name: /Keep this run/ }).tap();
  await page.waitForURL(/\?run=/);
  await main.getByRole("button", { name: /Close the job/ }).tap();
  await page.getByRole("dialog").getByRole("button", { name: "Close it" }).tap();
  await expect(main).toContainText("Open the job again");
});

test("ten readings to a kept tally in fourteen taps, on the bench's rig", async ({ page }) => {
  await page.goto("/look?way=tally");
  await page.locator("[data-ready]").waitFor();
  await expect(page.getByRole("combobox", { name: "Rig (needed)" })).not.toHaveValue("");
  let taps = 0;
  const tap = async (name: string | RegExp, within = page.locator("#content")) => {
    await within.getByRole("button", { name, exact: typeof name === "string" }).tap();
    taps++;
  };
  const near = page.getByRole("group", { name: "Near the last reading" });
  for (const fps of ["57", "58", "57", "55", "53", "52", "54", "57", "59", "58"]) await tap(fps, near);
  await expect(page.getByRole("list", { name: "Readings" }).getByRole("listitem")).toHaveCount(10);
  await tap(/^Keep this tally/);
  await page.waitForURL(/\/jobs\/.*\?run=/);
  expect(taps).toBeLessThanOrEqual(14);
  console.log(`taps for ten readings to a kept tally: ${taps}`);
});

test("no shortcut hints on touch, and the tally's keys are large", async ({ page }) => {
  await page.goto("/look?way=tally");
  await page.locator("[data-ready]").waitFor();
  await expect(page.locator("kbd:visible")).toHaveCount(0);
  const seven = page.getByRole("button", { name: "7", exact: true });
  expect((await seven.boundingBox())!.height).toBeGreaterThanOrEqual(44);
});
