import { expect, test } from "@playwright/test";
import { openExplanations } from "./explanations";
import { addTrialOf, demoJob, freshJob, log, onTheBench, open, Hands, bringTo } from "./support";

test("every figure of every page opens what it means: by Tab and Enter, and put away by Escape", async ({
  page,
  request,
}) => {
  test.setTimeout(240_000);
  const opened = await openExplanations(page, request, async (name) => {
    await name.focus();
    await page.keyboard.press("Enter");
  });
  expect(opened).toBeGreaterThan(35);
  console.log(`explanations opened by keys: ${opened}`);
});

test.describe("by touch", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  test("every figure of every page opens what it means on a phone", async ({ page, request }) => {
    test.setTimeout(240_000);
    const opened = await openExplanations(page, request, async (name) => name.tap());
    expect(opened).toBeGreaterThan(35);
    console.log(`explanations opened by touch: ${opened}`);
  });
});

test("the glossary is found by any word, and opens at a word", async ({ page }) => {
  await open(page, "/glossary");
  await page.keyboard.press("/");
  await page.keyboard.type("judder");
  await expect(page.getByRole("heading", { level: 2 })).toHaveText(["Frames of usual length"]);
  await page.keyboard.press("Control+a");
  await page.keyboard.type("no such word anywhere");
  await expect(page.getByText("No word like that")).toBeVisible();
  // Found from anywhere: actions by other words, and words by their names.
  await open(page, "/board");
  for (const [typed, found] of [
    ["undo", /Undo: what was done/],
    ["merge", /Merge titles, systems, rigs or engines/],
    ["import", /Bring in a file/],
    ["recipe", /Profiles, with their recipes/],
    ["1 % low", /1 % low/],
  ] as const) {
    await page.keyboard.press("ControlOrMeta+k");
    await page.keyboard.type(typed);
    await expect(page.getByRole("option", { name: found }).first()).toBeVisible();
    await page.keyboard.press("Escape");
  }
});

test("what is brought in is told by what it holds, and goes where it is taken", async ({ page }) => {
  await open(page, "/log");
  await page.keyboard.press("ControlOrMeta+o");
  const sheet = page.getByRole("dialog", { name: "Bring in" });
  await expect(sheet).toBeVisible();
  await page.getByLabel("Log files").setInputFiles([
    // A config file under a log's name, a log under a config file's, and neither.
    { name: "run.csv", mimeType: "text/csv", buffer: Buffer.from("[machine]\ncores = 2\nlight_model = on\n") },
    { name: "settings.ini", mimeType: "text/plain", buffer: Buffer.from(log(12, 50)) },
    { name: "letter.txt", mimeType: "text/plain", buffer: Buffer.from("Dear all,\nthe bridge stutters.\n") },
  ]);
  await expect(sheet.getByText(/run\.csv.*an engine's config file/)).toBeVisible();
  await expect(sheet.getByText(/settings\.ini.*a log of frame times/)).toBeVisible();
  await expect(sheet.getByText(/letter\.txt.*neither rows of figures nor settings/)).toBeVisible();
  await expect(sheet.getByRole("combobox", { name: "Engine for run.csv" })).toHaveText(/Harrow/);
  await sheet.getByRole("button", { name: "Open it beside the profile" }).click();
  await page.waitForURL(/\/profiles\?/);
  await expect(page.getByText("run.csv").first()).toBeVisible();
  await expect(page.getByText(/2\svalues: /)).toBeVisible();
  // Dropped among them again, the log goes on to its verdict.
  await open(page, "/board");
  await new Hands(page).drop([{ name: "settings.ini", content: log(12, 50) }]);
  await page.waitForURL("/look");
  await expect(page.getByRole("region", { name: "Preview" })).toBeVisible();
});

test("files find their arms by letters; swapped arms are told before keeping, and mended after", async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  const job = await freshJob(request, "Kite Weather");
  const id = await addTrialOf(request, job, { name: "Smoothing off", rounds: 2 }, (settings) => [
    { name: "as it is", settings },
    { name: "none", settings: { ...settings, smoothing: "none" } },
  ]);
  await open(page, `/jobs/${job}/trials/${id}`);
  const hands = new Hands(page);
  await hands.drop([
    { name: "run-01-A.csv", content: log(15, 45) },
    { name: "run-02-B.csv", content: log(15, 58) },
    { name: "run-03-B.csv", content: log(15, 58.3) },
    { name: "run-04-A.csv", content: log(15, 45.2) },
  ]);
  await expect(page.getByText("Each file’s name tells its arm")).toBeVisible();
  await expect(page.getByRole("combobox", { name: "Arm of run-04-A.csv" })).toHaveText("as it is");
  await page.getByRole("combobox", { name: "Arm of run-04-A.csv" }).click();
  await page.getByRole("option", { name: "none" }).click();
  await expect(page.getByText("run-04-A.csv reads like as it is, not like the others of none.")).toBeVisible();
  await page.getByRole("button", { name: "By name" }).click();
  await expect(page.getByText(/reads like/)).toBeHidden();
  await page.getByRole("button", { name: "Swap as it is and none" }).click();
  await page.getByRole("button", { name: "Keep all 4 runs" }).click();
  await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  const means = async () => {
    const { runs } = await (await request.get(`/api/v1/trials/${id}`)).json();
    const of = (arm: number) =>
      runs
        .filter((run: { arm: number }) => run.arm === arm)
        .map((run: { summary: { averageFps: number } }) => run.summary.averageFps);
    return [0, 1].map((arm) => of(arm).reduce((a: number, b: number) => a + b, 0) / of(arm).length);
  };
  expect((await means()).map(Math.round)).toEqual([58, 45]);
  await page.getByText(/4\sruns: open, change the arm/).click();
  await page.getByRole("button", { name: "By name" }).click();
  await expect.poll(async () => (await means()).map(Math.round)).toEqual([45, 58]);
  // One key takes it back, another stands in the list of what was done.
  await page.keyboard.press("ControlOrMeta+z");
  await expect(page.getByText(/^Undone: /)).toBeVisible();
  await expect.poll(async () => (await means()).map(Math.round)).toEqual([58, 45]);
  await open(page, `/done?kind=job&id=${job}`);
  const list = page.getByRole("list", { name: "What was done" });
  await expect(list.getByRole("listitem").first()).toContainText("Undone:");
  await list.getByRole("button", { name: "Do it again" }).first().click();
  await expect.poll(async () => (await means()).map(Math.round)).toEqual([45, 58]);
});

test("a run brought in for the wrong title is moved, judged by the right one, and brought back", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Kite Weather");
  await bringTo(page, `/jobs/${job}/runs/new`, log(15, 50));
  await open(page, `/jobs/${job}`);
  const view = async () => (await request.get(`/api/v1/jobs/${job}`)).json();
  expect((await view()).runs).toHaveLength(1);
  await page.keyboard.press("e");
  await page.getByRole("button", { name: "It is of another title, rig or build" }).click();
  const sheet = page.getByRole("dialog", { name: "They are of something else" });
  await sheet.getByRole("combobox", { name: "Title that they are of" }).click();
  await page.getByPlaceholder("type to find").fill("Copper");
  await page.getByRole("option", { name: /Copper Regatta/ }).click();
  await sheet.getByRole("button", { name: /^Change 1\srun$/ }).click();
  await page.waitForURL((url) => /\/jobs\//.test(url.pathname) && !url.pathname.includes(job));
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Copper Regatta");
  expect((await view()).runs).toHaveLength(0);
  await page.keyboard.press("ControlOrMeta+z");
  await expect(page.getByText(/^Undone: /)).toBeVisible();
  await expect.poll(async () => (await view()).runs.length).toBe(1);
});

test("a kept run's unit is read again from its log, which was kept as it was", async ({ page, request }) => {
  const job = await freshJob(request, "Kite Weather");
  await bringTo(page, `/jobs/${job}/runs/new`, log(15, 50));
  const run = async () => (await (await request.get(`/api/v1/jobs/${job}`)).json()).runs[0];
  const before = await run();
  expect(Math.round(before.summary.averageFps)).toBe(50);
  await expect.poll(async () => (await request.get(`/api/v1/runs/${before.id}/file`)).status()).toBe(200);
  await open(page, `/jobs/${job}`);
  await page.keyboard.press("e");
  await page.getByRole("button", { name: "Its columns or units are others" }).click();
  const sheet = page.getByRole("dialog", { name: /its columns again/ });
  await sheet.getByRole("combobox", { name: /^Unit of frame time/ }).click();
  await page.getByRole("option", { name: "µs" }).click();
  await expect(sheet.getByRole("region", { name: "Preview" })).toBeVisible();
  await sheet.getByRole("button", { name: "Keep this reading" }).click();
  await expect.poll(async () => (await run()).summary.averageFps > 1000).toBe(true);
  expect((await run()).number).toBe(before.number);
  await page.keyboard.press("ControlOrMeta+z");
  await expect.poll(async () => Math.round((await run()).summary.averageFps)).toBe(50);
});

test("what was chosen and typed on the first look outlives a reload", async ({ page }) => {
  await open(page, "/look");
  await page.getByLabel("Log files").setInputFiles({
    name: "evening.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(log(12, 47)),
  });
  await page.getByRole("region", { name: "Preview" }).waitFor();
  await page.getByRole("combobox", { name: "Title" }).fill("Half typed");
  await page.reload();
  await expect(page.getByRole("region", { name: "Preview" })).toContainText("evening.csv");
  await expect(page.getByRole("combobox", { name: "Title" })).toHaveValue("Half typed");
  await page.getByRole("button", { name: "Put it away" }).click();
  await page.reload();
  await expect(page.getByText("Drop logs here")).toBeVisible();
});

test("two titles entered twice are merged, what moves is listed, and one undoing takes it back", async ({
  page,
  request,
}) => {
  const { rows } = await (await request.get("/api/v1/titles?search=Kite")).json();
  const title = await (await request.get(`/api/v1/titles/${rows[0].id}`)).json();
  const { id: _id, version: _version, ...rest } = title;
  const name = `Kite Weather again ${Date.now()}`;
  const { id: double } = await (await request.post("/api/v1/titles", { data: { ...rest, name } })).json();
  const job = await freshJob(request, "Kite Weather", { titleId: double });
  await open(page, "/kit/merge");
  const pick = async (label: string, typed: string, option: RegExp) => {
    await page
      .getByRole("combobox", { name: label })
      .or(page.getByRole("button", { name: label }))
      .first()
      .click();
    await page.getByPlaceholder("type to find").fill(typed);
    await page.getByRole("option", { name: option }).first().click();
  };
  await pick("This one goes", name, new RegExp(name));
  await pick("This one stays", "Kite Weather", /^Kite Weather(?! again)/);
  await expect(page.getByRole("region", { name: "What moves" })).toContainText("1 × job");
  await page.getByRole("button", { name: "Merge", exact: true }).click();
  await expect(page.getByText(/is merged into Kite Weather/)).toBeVisible();
  const titleOf = async () => (await (await request.get(`/api/v1/jobs/${job}`)).json()).job.title;
  expect(await titleOf()).toBe("Kite Weather");
  await page.keyboard.press("ControlOrMeta+z");
  await expect.poll(titleOf).toBe(name);
});

test("what is typed of a run and of a campaign outlives a reload", async ({ page, request }) => {
  const job = await freshJob(request, "Copper Regatta");
  await open(page, `/jobs/${job}/runs/new`);
  await onTheBench(page);
  await page.getByLabel("Name", { exact: true }).fill("the lock gates, evening");
  await page.getByRole("switch", { name: "it ended in a crash" }).click();
  await page.reload();
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("the lock gates, evening");
  await expect(page.getByRole("switch", { name: "it ended in a crash" })).toBeChecked();
  await open(page, "/campaigns/new");
  await page.getByLabel("Name").first().fill("Half planned");
  await page.getByLabel("Rounds").fill("7");
  await page.reload();
  await expect(page.getByLabel("Name").first()).toHaveValue("Half planned");
  await expect(page.getByLabel("Rounds")).toHaveValue("7");
  await page.getByRole("button", { name: "Clear the form" }).click();
  await page.reload();
  await expect(page.getByLabel("Rounds")).toHaveValue("3");
});

test("a video in hand is there again after a reload", async ({ page, request }) => {
  const job = await freshJob(request, "Quiet Machines");
  await open(page, `/jobs/${job}/runs/new`);
  await onTheBench(page);
  await page.getByRole("tab", { name: "From a video" }).click();
  await page.getByLabel("Video file").setInputFiles("samples/captures/lamp-room.webm");
  await expect(page.getByText("480 × 270")).toBeVisible();
  await page.reload();
  await page.locator("[data-ready]").waitFor();
  await page.getByRole("tab", { name: "From a video" }).click();
  await expect(page.getByText("480 × 270")).toBeVisible();
});

test("at 200 % zoom the page keeps half of the height, and nothing scrolls sideways", async ({
  page,
  request,
}) => {
  // 1280 × 800 at 200 % is 640 × 400 CSS pixels (WCAG 2.2, success criterion 1.4.4, and 1.4.10 for reflow).
  await page.setViewportSize({ width: 640, height: 400 });
  const job = await demoJob(request, "Copper Regatta");
  for (const path of ["/", "/jobs", `/jobs/${job}`, `/jobs/${job}/runs/new`, "/board", "/kit/rigs", "/log"]) {
    await open(page, path);
    const content = (await page.locator("#content").boundingBox())!;
    expect([path, content.height >= 200]).toEqual([path, true]);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect([path, wide]).toEqual([path, 640]);
  }
});

test("after an edit, E opens the run that is looked at then", async ({ page, request }) => {
  const job = await demoJob(request, "The Drowned Gallery");
  const { runs } = await (await request.get(`/api/v1/jobs/${job}`)).json();
  await open(page, `/jobs/${job}?run=${runs[0].id}`);
  const sheet = page.getByRole("dialog");
  for (const run of runs.slice(0, 3)) {
    await page.keyboard.press("e");
    await expect(sheet.getByLabel("Name", { exact: true })).toHaveValue(run.label);
    await sheet.getByLabel("Notes").fill(`looked at ${run.number}, ${Date.now()}`);
    await sheet.getByRole("button", { name: /^Keep|^Save/ }).click();
    await expect(sheet).toBeHidden();
    await page.keyboard.press("ArrowDown");
  }
});

test("a saved job is taken in whole: its runs with settings, notes and faults", async ({ page, request }) => {
  const job = await demoJob(request, "Copper Regatta");
  const saved = await (await request.get(`/api/v1/jobs/${job}/file`)).json();
  // As on another machine, where none of its names is on the shelf.
  saved.job.title = `Copper Regatta from afar ${Date.now()}`;
  saved.job.rig = `Pipit from afar ${Date.now()}`;
  await open(page, "/board");
  await page.keyboard.press("ControlOrMeta+o");
  await page
    .getByLabel("Log files")
    .setInputFiles([
      { name: "job.json", mimeType: "application/json", buffer: Buffer.from(JSON.stringify(saved)) },
    ]);
  await page.getByRole("button", { name: "Take the job in" }).click();
  await page.waitForURL(/\/jobs\/[0-9a-f-]+$/, { timeout: 60_000 });
  const made = await (await request.get(`/api/v1${new URL(page.url()).pathname}`)).json();
  const withTrace = saved.runs.filter(({ trace }: { trace: string | null }) => trace !== null);
  expect(made.runs).toHaveLength(withTrace.length);
  expect(made.faults).toHaveLength(saved.faults.length);
  for (const [at, run] of made.runs.entries()) {
    const before = withTrace[at];
    expect([run.label, run.notes, run.settings]).toEqual([before.label, before.notes, before.settings]);
    expect(Math.abs(run.summary.averageFps / before.summary.averageFps - 1)).toBeLessThan(1e-4);
  }
});

test("a name that is there already is asked about, and leads to what has it", async ({ page, request }) => {
  await open(page, "/kit/systems/new");
  await page.getByLabel("Name").first().fill("CINDER 32");
  await page.getByRole("textbox", { name: /^Rate 1/ }).fill("60");
  await page.getByRole("button", { name: "Keep the system" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Is it the same one?" })).toBeVisible();
  await page.getByRole("link", { name: "Open the one that is there" }).click();
  const { rows } = await (await request.get("/api/v1/find?search=Cinder%2032")).json();
  const { path } = rows.find(({ kind }: { kind: string }) => kind === "system");
  await page.waitForURL(`**${path}`);
});
