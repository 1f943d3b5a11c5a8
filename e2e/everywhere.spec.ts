import { expect, test, type Page } from "@playwright/test";
import { findings } from "./findings";
import { Hands, freshJob, log, onTheBench, open } from "./support";

/** Every page there is, each with the ids that the demo gives it. */
async function pages(page: Page): Promise<string[]> {
  const get = async (path: string) => (await page.request.get(`/api/v1${path}`)).json();
  const { rows } = await get("/jobs?limit=200");
  const of = (wanted: string) => rows.find(({ title }: { title: string }) => title === wanted).id;
  const trialsOf = async (wanted: string): Promise<string[]> =>
    (await get(`/jobs/${of(wanted)}`)).trials.map(
      ({ id }: { id: string }) => `/jobs/${of(wanted)}/trials/${id}`,
    );
  const kinds = ["compare", "screen", "resolution", "power", "heat", "clocks", "memory", "rate"];
  const [rig] = (await get("/rigs")).rows;
  const [title] = (await get("/titles")).rows;
  const setting = (await get("/find?search=scale")).rows.find(
    ({ kind }: { kind: string }) => kind === "setting",
  );
  const [profile] = (await get("/profiles")).rows;
  const [campaign] = (await get("/campaigns")).rows;
  const { campaign: planned } = await get(`/campaigns/${(await get("/campaigns")).rows[1].id}`);
  const place = `rig=${profile.rigId}&engine=${profile.engineId}`;
  return [
    "/",
    "/live",
    "/look",
    "/look?way=tally",
    "/beside",
    "/jobs",
    "/jobs/new",
    `/jobs/${of("Basalt Choir")}`,
    `/jobs/${of("Copper Regatta")}`,
    ...(await trialsOf("Basalt Choir")),
    ...(await trialsOf("Marsh Rally 3")),
    ...(await trialsOf("Ninth Parallel")),
    ...(await trialsOf("The Drowned Gallery")),
    ...kinds.map((kind) => `/jobs/${of("Quiet Machines")}/trials/new?kind=${kind}`),
    `/jobs/${of("Quiet Machines")}/runs/new`,
    "/profiles",
    ...["layers", "file", "elsewhere"].map((tab) => `/profiles?${place}&tab=${tab}`),
    `/jobs/${of("Copper Regatta")}/recipe`,
    "/campaigns",
    "/campaigns/new",
    `/campaigns/${campaign.id}`,
    `/campaigns/${campaign.id}?tab=timetable`,
    "/board",
    "/board/best",
    "/log",
    "/log?view=crashes",
    `/builds/${planned.plan.arms[1].buildId}`,
    "/publish?of=board",
    "/kit/abilities",
    "/kit/rigs",
    `/kit/rigs/${rig.id}`,
    "/kit/rigs/new",
    "/kit/titles",
    `/kit/titles/${title.id}`,
    "/kit/titles/new",
    "/kit/systems",
    "/kit/systems/new",
    "/kit/engines",
    "/kit/engines/new",
    setting.path,
    "/kit/rules",
    "/kit/rules/new",
    "/kit/preflight",
    "/kit/planner",
    "/kit/store",
    "/kit/people",
    "/kit/workshop",
    "/api",
  ];
}

/** What is made when it is looked at stands there. */
const laidOut = async (page: Page) => page.getByText(/^Laying out/).waitFor({ state: "hidden" });

test("no finding of any level on any page, in both themes, lists and dialogs open (axe)", async ({ page }) => {
  test.setTimeout(700_000);
  const found: string[] = [];
  const look = async (where: string, within?: string) => {
    for (const theme of ["evening", "daylight"]) {
      await page.evaluate((name) => (document.documentElement.dataset.theme = name), theme);
      // A theme changes colours and nothing else.
      const rules = theme === "daylight" ? ["color-contrast"] : undefined;
      found.push(...(await findings(page, { within, rules })).map((each) => `${where}, ${theme}: ${each}`));
    }
  };
  for (const path of await pages(page)) {
    await open(page, path);
    await laidOut(page);
    await look(path);
  }
  await open(page, "/jobs");
  await page.keyboard.press("ControlOrMeta+k");
  await page.getByPlaceholder("Go to a place").waitFor();
  await look("the palette", "[role=dialog]");
  await page.keyboard.press("Escape");
  await page.keyboard.press("?");
  await page.getByRole("dialog", { name: "Keys of this page" }).waitFor();
  await look("the keys", "[role=dialog]");
  await page.keyboard.press("Escape");
  await page.getByRole("combobox", { name: "Sorted by" }).click();
  await page.getByRole("listbox").waitFor();
  await look("an open list", "[role=listbox]");
  const { rows } = await (await page.request.get("/api/v1/jobs?search=Copper")).json();
  for (const [key, name] of [
    ["g", "a fault"],
    ["e", "a run"],
    ["j", "a job"],
  ] as const) {
    await open(page, `/jobs/${rows[0].id}`);
    await page.locator("[data-testid=trace][data-drawn=yes]").waitFor();
    await page.keyboard.press(key);
    await page.getByRole("dialog").waitFor();
    await look(`the sheet of ${name}`, "[role=dialog]");
  }
  expect(found).toEqual([]);
});

test("no page scrolls sideways at 360 px, nor at 200 % zoom on 1280 × 800, and no figure may leave its unit", async ({
  browser,
  baseURL,
}) => {
  test.setTimeout(300_000);
  const phone = { width: 360, height: 740 };
  const context = await browser.newContext({ viewport: phone, hasTouch: true, baseURL });
  const page = await context.newPage();
  const wide: string[] = [];
  const parted: string[] = [];
  for (const path of await pages(page)) {
    await page.setViewportSize(phone);
    await open(page, path);
    await laidOut(page);
    const text = await page.locator("body").innerText();
    parted.push(
      ...(text.match(/\S*\d (?:%|°C|[GM]?Hz|[GM]B|Wh?|fps|ms|s|min|h|px)(?![A-Za-z])/g) ?? []).map(
        (found) => `${path}: ${found}`,
      ),
    );
    // Zoomed to twice its size, a page has half the pixels each way (WCAG 2.2, 1.4.10).
    for (const size of [phone, { width: 640, height: 400 }]) {
      await page.setViewportSize(size);
      const over = await page.evaluate(() => {
        const main = document.querySelector("main")!;
        return Math.max(
          document.documentElement.scrollWidth - document.documentElement.clientWidth,
          main.scrollWidth - main.clientWidth,
        );
      });
      if (over > 0) wide.push(`${path} at ${size.width}: ${over} px`);
    }
  }
  expect(wide).toEqual([]);
  expect(parted).toEqual([]);
  await context.close();
});

test("a new screen is called by its heading, and has the focus there; the first stop skips to the content", async ({
  page,
}) => {
  await open(page, "/");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "Skip to the content" })).toBeFocused();
  await page.keyboard.press("2");
  await page.waitForURL("**/jobs");
  await expect(page.getByRole("heading", { name: "Jobs" })).toBeFocused();
  await expect(page).toHaveTitle("Jobs – Velvet Lamp");
});

test("keys without Ctrl are changed, and switched off", async ({ page }) => {
  await open(page, "/jobs");
  await page.keyboard.press("?");
  await page.getByRole("textbox", { name: "Key for: new job" }).fill("m");
  await page.keyboard.press("Escape");
  await page.keyboard.press("n");
  await page.waitForTimeout(300);
  await expect(page).toHaveURL(/\/jobs$/);
  await page.keyboard.press("m");
  await page.waitForURL("**/jobs/new");
  await open(page, "/jobs");
  await page.keyboard.press("?");
  await page.getByRole("switch", { name: "keys without Ctrl or Alt" }).click();
  await page.keyboard.press("Escape");
  await page.keyboard.press("m");
  await page.waitForTimeout(300);
  await expect(page).toHaveURL(/\/jobs$/);
  await page.evaluate(() => localStorage.clear());
});

test("the palette finds a trial, a title, a setting and what this screen can do", async ({ page }) => {
  await open(page, "/jobs");
  const look = async (text: string) => {
    await page.keyboard.press("ControlOrMeta+k");
    await page.getByPlaceholder("Go to a place").fill(text);
  };
  await look("bell hall");
  await page.getByRole("option", { name: /Which scale holds the bell hall/ }).click();
  await page.waitForURL(/\/trials\//);
  await look("smoothing");
  await expect(page.getByRole("group", { name: "Settings" }).getByRole("option").first()).toBeVisible();
  await page.keyboard.press("Escape");
  await look("back to the job");
  await page.getByRole("group", { name: "On this page" }).getByRole("option").first().click();
  await page.waitForURL(/\/jobs\/[0-9a-f-]{36}$/);
});

test("the trace is read by arrow keys, a stretch is marked by the space bar, and saved as it is drawn", async ({
  page,
}) => {
  const { rows: jobs } = await (await page.request.get("/api/v1/jobs?search=Basalt&filter=closed")).json();
  await open(page, `/jobs/${jobs[0].id}`);
  const chart = page.getByRole("group", { name: /^Frame time of run/ });
  await chart.waitFor();
  await chart.focus();
  await page.keyboard.press("Home");
  await page.keyboard.press("Shift+ArrowRight");
  await expect(chart.getByRole("status")).toHaveText(/s: [\d.]+\sms/);
  await page.keyboard.press(" ");
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press(" ");
  await expect(page.getByRole("region", { name: "Selected stretch" })).toBeVisible();

  const menu = page.getByRole("button", { name: /^Frame time of run.*save or show/ });
  const saved = async (item: string) => {
    await menu.click();
    const download = page.waitForEvent("download");
    await page.getByRole("menuitem", { name: item }).click();
    const file = await download;
    const { readFileSync } = await import("node:fs");
    return { name: file.suggestedFilename(), bytes: readFileSync(await file.path()) };
  };
  const csv = await saved("Save the figures as CSV");
  expect(csv.name).toMatch(/^frame-time-of-run-\d+\.csv$/);
  const [heads = "", ...rows] = csv.bytes.toString().trim().split("\n");
  expect(heads).toMatch(
    /^time \(s\),A shortest \(ms\),A mean \(ms\),A longest \(ms\),A processor \(%\),A graphics \(%\)/,
  );
  expect(rows.length).toBeGreaterThan(200);
  // What the device did stands beside the frames that it did it in.
  const middle = rows[rows.length >> 1]!.split(",").map(Number);
  expect(middle).toHaveLength(heads.split(",").length);
  expect(middle.every((figure) => Number.isFinite(figure) && figure >= 0)).toBe(true);
  const byKey = page.waitForEvent("download");
  await page.keyboard.press("Alt+c");
  expect((await byKey).suggestedFilename()).toBe(csv.name);
  const svg = await saved("Save the picture as SVG");
  expect(svg.bytes.toString()).toMatch(/^<svg/);
  expect(svg.bytes.toString()).not.toContain("var(--");
  const png = await saved("Save the picture as PNG");
  expect(png.bytes.subarray(1, 4).toString()).toBe("PNG");
  await menu.click();
  await page.getByRole("menuitem", { name: "Show the figures as a table" }).click();
  await expect(
    page
      .getByRole("region", { name: /as a table$/ })
      .getByRole("row")
      .nth(1),
  ).toBeVisible();
});

test("a run is edited with its history, left out, and taken back from the list after a reload", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Kite Weather");
  await open(page, `/jobs/${job}/runs/new`);
  await onTheBench(page);
  const hands = new Hands(page);
  await hands.drop([{ name: "one.csv", content: log(15, 58) }]);
  await page.getByRole("button", { name: /Keep this run/ }).click();
  await page.waitForURL(/\?run=/);
  await page.waitForTimeout(300);
  await page.keyboard.press("e");
  const sheet = page.getByRole("dialog", { name: /what is said about it/ });
  await sheet.getByLabel("Notes").fill("fan on its side");
  await sheet.getByLabel("Tags").fill("evening, retake");
  await sheet.getByRole("button", { name: "Keep" }).click();
  await expect(sheet).toHaveCount(0);
  await page.waitForTimeout(300);
  await page.keyboard.press("e");
  await expect(sheet).toContainText("Notes: none → fan on its side");
  await page.keyboard.press("Escape");
  await page.waitForTimeout(200);
  await page.keyboard.press("x");
  await expect(page.getByText("No run yet.")).toBeVisible();
  await page.reload();
  await page.getByText("Left out: 1").click();
  await page.getByRole("button", { name: "Take back" }).click();
  await expect(page.getByRole("region", { name: "Reading" })).toBeVisible();
});

test("a closed job says so at its keys, and is opened from there", async ({ page, request }) => {
  const { rows } = await (await request.get("/api/v1/jobs?filter=closed")).json();
  const closed = rows[0].id;
  await open(page, `/jobs/${closed}`);
  await page.waitForTimeout(300);
  for (const key of ["n", "w", "d", "y"]) {
    const said = await page.getByText("This job is closed.").count();
    await page.keyboard.press(key);
    await expect(page.getByText("This job is closed.")).toHaveCount(said + 1);
  }
  await expect(page).toHaveURL(new RegExp(`/jobs/${closed}`));
  await expect(page.getByTestId("main-action").filter({ visible: true })).toContainText("Open the job again");
});

test("a table and a run are saved as CSV, a job as JSON", async ({ page, request }) => {
  await open(page, "/jobs");
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save Jobs as CSV" }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe("jobs.csv");
  const { rows } = await (await request.get("/api/v1/jobs?search=Basalt&filter=closed")).json();
  const saved = await request.get(`/api/v1/jobs/${rows[0].id}/file`);
  expect(saved.headers()["content-disposition"]).toContain("job.json");
  const job = await saved.json();
  expect(job.runs[0].trace.split("\n")[0]).toMatch(/^frame time \(ms\)/);
  const csv = await request.get(`/api/v1/runs/${job.runs[0].id}/csv`);
  expect(csv.headers()["content-type"]).toContain("text/csv");
  expect((await csv.text()).split("\n")).toHaveLength(job.runs[0].summary.frames + 2);
});

test("pages hydrate cleanly for a reader in another time zone", async ({ browser, baseURL }) => {
  test.setTimeout(120_000);
  const context = await browser.newContext({ timezoneId: "Pacific/Auckland", locale: "en-NZ", baseURL });
  const page = await context.newPage();
  const said: string[] = [];
  page.on("console", (message) => message.type() === "error" && said.push(`${page.url()}: ${message.text()}`));
  page.on("pageerror", (error) => said.push(`${page.url()}: ${error.message}`));
  for (const path of (await pages(page)).slice(0, 12)) await open(page, path);
  expect(said).toEqual([]);
  await open(page, "/jobs");
  // The moment is the reader's own.
  const iso = await page.locator("tbody time").last().getAttribute("datetime");
  const own = new Intl.DateTimeFormat("en-GB", {
    timeZone: "Pacific/Auckland",
    hour: "2-digit",
    minute: "2-digit",
  }).format(new Date(iso!));
  await expect(page.locator("tbody time").last()).toContainText(own);
  await context.close();
});

test("an engine of 60 settings opens small, and its settings are searched", async ({ page, request }) => {
  const systems = await (await request.get("/api/v1/jobs?limit=1")).json();
  const view = await (await request.get(`/api/v1/jobs/${systems.rows[0].id}`)).json();
  const engine = await (await request.get(`/api/v1/engines/${view.job.engineId}`)).json();
  const [first] = engine.catalogue;
  const made = await request.post("/api/v1/engines", {
    data: {
      name: `Trestle ${Date.now()}`,
      systemIds: engine.systemIds,
      notes: "",
      backEnds: [],
      builds: [{ version: "1", branch: "stable", date: null, notes: "" }],
      catalogue: Array.from({ length: 60 }, (_, n) => ({
        ...first,
        key: `setting_${n}`,
        label: `Setting number ${n}`,
        section: n % 2 ? "Video" : "Core",
        linked: [],
      })),
    },
  });
  expect(made.status()).toBe(201);
  await open(page, `/kit/engines/${(await made.json()).id}`);
  expect(await page.evaluate(() => document.querySelectorAll("*").length)).toBeLessThan(1500);
  await page.getByRole("searchbox", { name: "Search the settings" }).fill("number 47");
  await expect(page.getByRole("button", { name: /^Edit Setting/ })).toHaveCount(1);
  await page.getByRole("button", { name: "Edit Setting number 47" }).click();
  await expect(page.getByLabel("Key 48")).toHaveValue("setting_47");
});

test("where colours are forced, what is chosen keeps an edge and charts keep their colours", async ({
  page,
}) => {
  await page.emulateMedia({ forcedColors: "active" });
  await open(page, "/jobs");
  const jobs = page.getByRole("navigation", { name: "Places" }).getByRole("link", { name: /Jobs/ });
  expect(await jobs.evaluate((link) => getComputedStyle(link).outlineStyle)).toBe("solid");
  const { rows } = await (await page.request.get("/api/v1/jobs?search=Basalt&filter=closed")).json();
  await open(page, `/jobs/${rows[0].id}`);
  const svg = page.locator("svg[data-chart]").first();
  await svg.waitFor();
  expect(await svg.evaluate((drawn) => getComputedStyle(drawn).forcedColorAdjust)).toBe("none");
});

test("at 1024 the trace keeps 560, and what a reading needs is a press away", async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  const { rows } = await (await page.request.get("/api/v1/jobs?search=Basalt&filter=closed")).json();
  await open(page, `/jobs/${rows[0].id}`);
  const trace = page.getByRole("img", { name: /^Frame time of run/ });
  await trace.waitFor();
  expect((await trace.boundingBox())!.width).toBeGreaterThanOrEqual(560);
  await page.getByRole("button", { name: /^Thread/ }).click();
  await expect(page.getByRole("dialog").getByRole("list", { name: "Thread" })).toBeVisible();
});

test("a page asks for no part of others before a link is followed, and then once", async ({ page }) => {
  const sent: number[] = [];
  page.on("response", (response) => {
    const { pathname, searchParams } = new URL(response.url());
    // The page itself is made anew when something changes meanwhile.
    if (searchParams.has("_rsc") && pathname !== "/") sent.push(response.status());
  });
  await open(page, "/");
  await page.waitForTimeout(2_000);
  expect(sent).toEqual([]);
  await page.getByRole("navigation", { name: "Places" }).getByRole("link", { name: "Board" }).click();
  await page.waitForURL(/\/board$/);
  await expect.poll(() => sent.length).toBeGreaterThan(0);
  expect(sent.filter((status) => status !== 200)).toEqual([]);
});
