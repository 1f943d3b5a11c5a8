import { expect, test } from "@playwright/test";
import { freshJob, demoJob, open } from "./support";

test("a new user: the bench, the job in hand, its verdict with reasons", async ({ page }) => {
  await open(page, "/");
  await expect(page.getByRole("heading", { level: 1 })).not.toBeEmpty();
  await page.getByRole("navigation", { name: "Places" }).getByRole("link", { name: "Jobs" }).click();
  await page.getByRole("link", { name: "Copper Regatta" }).click();
  const reading = page.getByRole("region", { name: "Reading" });
  await expect(reading).toContainText("Steady");
  await page.getByRole("list", { name: "Thread" }).getByRole("button").first().click();
  await expect(reading).toContainText("Gutters");
  await expect(reading).toContainText("The counter disagrees");
  await expect(page.getByTestId("trace")).toHaveAttribute("data-drawn", "yes");
  await page.goBack();
  await expect(reading).toContainText("Steady");
});

test("the trace: a stretch is brushed, its figures shown, zoomed and overlaid by key", async ({
  page,
  request,
}) => {
  const job = await demoJob(request, "The Drowned Gallery");
  const { runs } = await (await request.get(`/api/v1/jobs/${job}`)).json();
  await open(page, `/jobs/${job}?run=${runs[2].id}`);
  await expect(page.getByTestId("trace")).toHaveAttribute("data-drawn", "yes");
  const box = (await page.getByRole("img", { name: /^Frame time of run/ }).boundingBox())!;
  await page.mouse.move(box.x + 150, box.y + 120);
  await page.mouse.down();
  await page.mouse.move(box.x + 350, box.y + 120);
  await page.mouse.up();
  const part = page.getByRole("region", { name: "Selected stretch" });
  await expect(part).toContainText("20.0");
  await page.keyboard.press("z");
  await expect(page).toHaveURL(/view=\d+-\d+/);
  await page.keyboard.press("0");
  await expect(page).not.toHaveURL(/view=/);
  await page.keyboard.press("o");
  await expect(page.getByText("B run 2")).toBeVisible();
  await page.keyboard.press("ArrowUp");
  await expect(page).toHaveURL(/run=/);
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog")).toContainText("lay the run before over this one");
});

test("a rig, a title and a job by hand, then a tally by eye", async ({ page }) => {
  await open(page, "/kit/rigs/new");
  await page.getByRole("button", { name: "Keep the rig" }).click();
  await expect(page.getByText("Give it a name.")).toBeVisible();
  await page.getByLabel("Name").first().fill("Lantern");
  await page.getByLabel("Kind of device").fill("tablet");
  await page.getByLabel(/^Refresh/).fill("60");
  await page.getByLabel(/^Battery/).fill("22,5");
  await page.getByRole("button", { name: "Keep the rig" }).click();
  await expect(page.getByRole("link", { name: "Lantern", exact: true })).toBeVisible();

  await open(page, "/kit/titles/new");
  await page.getByLabel("Name").first().fill("The Salt Choir");
  await page.getByLabel(/^Own rate/).fill("30");
  await page.getByRole("combobox", { name: "System", exact: true }).click();
  await page.getByRole("option", { name: "Twofold" }).click();
  await page.getByRole("button", { name: "Keep the title" }).click();
  await expect(page.getByRole("link", { name: "The Salt Choir" })).toBeVisible();

  await open(page, "/jobs/new");
  const pick = async (field: string, option: RegExp) => {
    await page.getByRole("combobox", { name: field, exact: true }).click();
    await page.getByRole("option", { name: option }).first().click();
  };
  await pick("Rig", /Lantern/);
  await pick("Title", /The Salt Choir/);
  await pick("Engine and build", /Harrow|Sallow|Tender|Rookery|Plait|Longitude/);
  await page.getByRole("button", { name: "Open the job" }).click();
  await expect(page.getByText("No run yet.")).toBeVisible();

  await page.keyboard.press("n");
  await page.getByRole("tab", { name: "Tally by eye" }).click();
  const pad = page.getByLabel(/Look when it ticks/);
  for (const reading of ["30", "29", "30", "28", "30", "99"]) {
    await pad.fill(reading);
    await pad.press("Enter");
  }
  await page.getByRole("button", { name: "Take the last reading back" }).click();
  await expect(page.getByRole("list", { name: "Readings" }).getByRole("listitem")).toHaveCount(5);
  await page.getByRole("button", { name: "Keep this tally" }).click();
  await page.waitForURL(/\?run=/);
  await expect(page.getByRole("region", { name: "Reading" })).toContainText(
    "By eye: 5 readings, mean 29.4 fps",
  );
});

test("the bench strip stamps conditions and warns against the house rules", async ({ page }) => {
  await open(page, "/");
  const strip = page.getByRole("banner", { name: "Bench strip" });
  const choose = async (field: string, option: string) => {
    await strip.getByRole("combobox", { name: field }).click();
    await page.getByRole("option", { name: option }).first().click();
  };
  await choose("Rig on the bench", "Pipit");
  await strip.getByRole("button", { name: "on battery" }).click();
  await expect(strip.getByRole("status")).toContainText("plugged in: house rules say on battery");
  await choose("House rules", "As far as it goes");
  await expect(strip.getByRole("status")).toHaveCount(0);
  await choose("House rules", "Lending desk");
  await strip.getByRole("button", { name: "plugged in" }).click();
  await expect(strip.getByRole("status")).toHaveCount(0);
});

test("a run left out is undone with one press", async ({ page, request }) => {
  await open(page, `/jobs/${await demoJob(request, "Paper Lighthouse")}`);
  const thread = page.getByRole("list", { name: "Thread" }).getByRole("button");
  const confirmation = thread.filter({ hasText: "confirmation" });
  await expect(confirmation).toHaveCount(1);
  await page.keyboard.press("x");
  await expect(confirmation).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(confirmation).toHaveCount(1);
});

test("a long log draws and zooms without a stall on the page", async ({ page, request }) => {
  const job = await freshJob(request, "Basalt Choir");
  await open(page, `/jobs/${job}/runs/new`);
  const putOn = page.getByRole("button", { name: /on the bench/ });
  if (await putOn.isVisible()) await putOn.click();
  await page.getByLabel("Log files").setInputFiles({
    name: "long.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(
      `frame time ms\n${Array.from({ length: 300_000 }, (_, i) => (i % 5000 === 4999 ? 90 : 16.6)).join("\n")}\n`,
    ),
  });
  await page.getByRole("button", { name: /Keep this run/ }).click();
  await page.waitForURL(/\?run=/);
  await expect(page.getByTestId("trace")).toHaveAttribute("data-drawn", "yes");
  // The band's ink doesn't grow with the log: a path of a column a pixel.
  const points = await page
    .getByRole("img", { name: /^Frame time of run/ })
    .locator("path[stroke-width='1.4']")
    .first()
    .evaluate((path) => path.getAttribute("d")!.split("L").length);
  expect(points).toBeLessThan(1000);
  await page.keyboard.press("+");
  await expect(page).toHaveURL(/view=/);
});

test("on a phone the tally pad works with a thumb, and drawers hold the thread and the reading", async ({
  page,
  request,
}) => {
  await page.setViewportSize({ width: 390, height: 780 });
  await open(page, `/jobs/${await demoJob(request, "Copper Regatta")}`);
  await page.getByRole("button", { name: "Reading", exact: true }).click();
  await expect(page.getByRole("dialog")).toContainText("Steady");
});

test("pages carry a policy, and writes from another site are refused", async ({ request, baseURL }) => {
  const answer = await request.get("/");
  expect(answer.headers()["content-security-policy"]).toContain("frame-ancestors 'none'");
  expect(answer.headers()["content-security-policy"]).not.toContain("unsafe-eval");
  const refused = await request.post("/api/v1/jobs", {
    headers: { origin: "http://elsewhere.invalid" },
    data: {},
  });
  expect(refused.status()).toBe(403);
  expect(refused.headers()["content-type"]).toContain("application/problem+json");
  const bad = await request.post("/api/v1/jobs", { headers: { origin: baseURL! }, data: { rigId: "x" } });
  expect(bad.status()).toBe(422);
  expect((await bad.json()).fields).toHaveProperty("titleId");
  expect(
    (
      await request.post("/api/v1/runs", {
        headers: { "content-length": String(80 * 1024 * 1024) },
        data: Buffer.alloc(65 * 1024 * 1024),
      })
    ).status(),
  ).toBe(413);
});

test("was it real: one setting of three helped, by the engine's own report, and the other two did not", async ({
  page,
}) => {
  const job = await demoJob(page.request, "Copper Regatta");
  const { runs } = await (await page.request.get(`/api/v1/jobs/${job}`)).json();
  const labelled = (label: string) => runs.find((run: { label: string }) => run.label.startsWith(label)).id;
  const panel = page.getByRole("region", { name: "Comparison" });
  for (const [label, decision] of [
    ["Lighter machine model: lighter", /Better/],
    ["Other back end: Vulkan", /No difference|Undecided/],
    ["Sound on its own: on its own", /No difference|Undecided/],
  ] as const) {
    await open(page, `/jobs/${job}?run=${labelled(label)}&over=${labelled("baseline")}`);
    await expect(panel).toContainText(decision, { timeout: 20_000 });
    await expect(panel).toContainText("Speed by the engine's report");
    // Arms are all runs alike: the baseline stands with the trials' own.
    await expect(panel).toContainText(/[34] runs against 12 runs/);
  }
});

test("until its first run a job's title, engine, house rules and target are changed on its own sheet", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Quiet Machines");
  const read = async () => (await (await request.get(`/api/v1/jobs/${job}`)).json()).job;
  await open(page, `/jobs/${job}`);
  await page.keyboard.press("j");
  const sheet = page.getByRole("dialog", { name: "This job" });
  await expect(sheet).toContainText("can be changed until its first run");
  await sheet.getByRole("textbox", { name: /^Target/ }).fill("5000");
  await expect(sheet.getByRole("button", { name: "Keep" })).toBeDisabled();
  await sheet.getByRole("textbox", { name: /^Target/ }).fill("40");
  await sheet.getByRole("button", { name: "Keep" }).click();
  await expect.poll(async () => (await read()).targetFps).toBe(40);
  const rules = sheet.getByRole("combobox", { name: "House rules of the job" });
  await rules.click();
  const other = page
    .getByRole("option")
    .filter({ hasNotText: (await read()).houseRules })
    .first();
  const name = await other.innerText();
  await other.click();
  await expect.poll(async () => (await read()).houseRules).toBe(name.split("\n")[0]);
  await sheet
    .getByRole("button", { name: "Title of the job" })
    .or(sheet.getByRole("combobox", { name: "Title of the job" }))
    .first()
    .click();
  await page.keyboard.type("Ninth Par");
  await page.getByRole("option", { name: /Ninth Parallel/ }).click();
  await expect.poll(async () => (await read()).title).toBe("Ninth Parallel");
  await expect(sheet).toContainText("Ninth Parallel on");
});
