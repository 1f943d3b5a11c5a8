import { expect, test, type APIRequestContext } from "@playwright/test";
import { Hands, bringByKeys, bringTo, freshJob, log, onTheBench, open, particulars } from "./support";

const graphicsBound = { "gpu load %": () => 97, "busiest core %": () => 48, "gpu clock MHz": () => 1900 };
const light = { "gpu load %": () => 80, "busiest core %": () => 60, "gpu clock MHz": () => 1900 };

test("a whole job from baseline to profile, by keyboard alone", async ({ page, request }) => {
  test.setTimeout(240_000);
  const job = await freshJob(request, "Basalt Choir");
  // Choosers are caught from the start: asking for the first one takes longer than a key.
  page.on("filechooser", () => {});
  await open(page, `/jobs/${job}`);
  await expect(page.getByText("No run yet.")).toBeVisible();
  // The rig lies on the bench by a press of Enter, where another lies there.
  await page.keyboard.press("n");
  await page
    .getByRole("heading", { name: /^New run$|isn't on the bench$/ })
    .first()
    .waitFor();
  const putOn = page.getByRole("button", { name: /on the bench$/ });
  if (await putOn.isVisible()) {
    await putOn.focus();
    await page.keyboard.press("Enter");
  }
  for (const fps of [45, 45.4, 44.7]) {
    if (!page.url().endsWith("/runs/new")) {
      await page.getByRole("region", { name: "Reading" }).waitFor();
      await page.waitForTimeout(200);
      await page.keyboard.press("n");
      await page.waitForURL("**/runs/new");
    }
    await bringByKeys(page, log(20, fps, graphicsBound));
  }
  await expect(page.getByTestId("diagnosis")).toContainText(
    /Graphics holds it back, with a chance of [5-9] in 10\. Graphics is 97\s% busy/,
  );
  const next = page.getByRole("region", { name: "Try next" });
  await expect(next.getByRole("listitem").first()).toContainText(
    "Internal scale 2 → 1: asks 75 % fewer pixels",
  );
  await expect(next).toContainText(/\d+\s% chance, \d+\smin/);

  await page.keyboard.press("y");
  await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  await expect(page.getByTestId("left")).toHaveText(
    "3 runs to go: Internal scale 1, Internal scale 1, as it is",
  );
  await expect(page.getByText(/Run 3, made before it as things were, counts as the first/)).toBeVisible();
  for (const [fps, channels] of [
    [59.9, light],
    [59.8, light],
    [44.8, graphicsBound],
  ] as const) {
    await expect(page.locator("[data-ready]")).toBeVisible();
    await page.getByRole("link", { name: /^Bring in/ }).waitFor();
    await page.waitForTimeout(200);
    await page.keyboard.press("n");
    await page.waitForURL("**/runs/new**");
    await bringByKeys(page, log(20, fps, channels));
    await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  }
  await expect(page.getByTestId("advice")).toContainText(/Keep Internal scale 1: \+3\d\.\d\s% \(95\s%/);
  await expect(page.getByRole("region", { name: /Internal scale 1 over as it is/ })).toContainText("Better");
  await page.keyboard.press("k");
  await expect(page.getByText("Internal scale 1 kept").first()).toBeVisible();
  await page.getByRole("button", { name: "Take it back" }).waitFor();
  await page.waitForTimeout(200);
  await page.keyboard.press("u");
  await expect(page.getByRole("button", { name: /^Keep Internal scale 1/ })).toBeVisible();
  await page.waitForTimeout(200);
  await page.keyboard.press("k");
  await expect(page.getByText("Internal scale 1 kept").first()).toBeVisible();
  await page.keyboard.press("Escape");
  await page.waitForURL(`**/jobs/${job}`);
  const profile = page.getByRole("region", { name: "Profile" });
  await expect(profile).toContainText("Internal scale: 2 → 1");
  await expect(page.getByRole("region", { name: "Reading" })).toContainText("that confirmation closes the job");

  await page.keyboard.press("n");
  await page.waitForURL("**/runs/new");
  await bringByKeys(page, log(20, 60, light));
  await page.getByRole("region", { name: "Reading" }).waitFor();
  await page.keyboard.press("d");
  await page.getByRole("dialog").waitFor();
  await page.keyboard.press("Tab");
  await page.keyboard.type("Holds on the desk.");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  const thread = page.getByRole("list", { name: "Thread" });
  await expect(thread).toContainText("Closed");
  await expect(thread).toContainText("1 override kept, 7 runs");
  await expect(thread).toContainText("Holds on the desk.");
  await expect(profile).toContainText(/trial 1: \+3\d\.\d\s% \(95\s%/);
  expect((await (await request.get(`/api/v1/jobs/${job}`)).json()).job.closing).toMatchObject({
    overrides: [{ key: "scale", from: 2, to: 1, trial: 1 }],
    note: "Holds on the desk.",
  });
});

test("story 7: two useless settings put back and one kept, each by the computed decision", async ({ page }) => {
  await open(page, "/jobs?search=Copper");
  await page.getByRole("link", { name: "Copper Regatta" }).click();
  const thread = page.getByRole("list", { name: "Thread" });
  for (const [name, came] of [
    ["Other back end", "put back"],
    ["Sound on its own", "put back"],
    ["Lighter machine model", "kept"],
  ])
    await expect(thread.getByRole("link", { name: new RegExp(`${name}.*${came}`) })).toBeVisible();
  await thread.getByRole("link", { name: /Lighter machine model/ }).click();
  await expect(page.getByTestId("advice")).toContainText(
    /Keep lighter: \+4\d\.\d\s% \(95\s%.*Gutters → Steady/,
  );
  await expect(page.getByRole("region", { name: "lighter over as the title asks" })).toContainText(
    "Speed by the engine's report",
  );
});

test("a trial half done is found on the bench, says what is left, and one decided against its runs keeps the reason", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Kite Weather");
  const { standing } = await (await request.get(`/api/v1/jobs/${job}`)).json();
  const arm = (name: string, settings: object) => ({
    name,
    settings,
    conditions: {},
    buildId: null,
    level: null,
  });
  const made = await request.post("/api/v1/trials", {
    data: {
      jobId: job,
      kind: "compare",
      name: "Smoothing off",
      rounds: 2,
      cold: false,
      plan: { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: [] },
      arms: [arm("as it is", standing.settings), arm("none", { ...standing.settings, smoothing: "none" })],
    },
  });
  const { id } = await made.json();
  await bringTo(page, `/jobs/${job}/runs/new?trial=${id}&arm=0`, log(15, 50));
  await open(page, "/");
  await expect(page.getByText("Unfinished trials")).toBeVisible();
  await page
    .getByRole("link", { name: /Smoothing off/ })
    .first()
    .click();
  await expect(page.getByTestId("left")).toContainText("3 runs to go: none, none, as it is");
  await bringTo(page, `/jobs/${job}/runs/new?trial=${id}&arm=1`, log(15, 45));
  // One run a side is a look: −10 % isn't called before the other two are in, and it says what they would do.
  await expect(page.getByTestId("advice-waits")).toContainText(/^2\splanned runs to go/);
  await expect(page.getByRole("region", { name: /none over as it is/ })).toContainText("Undecided");
  await bringTo(page, `/jobs/${job}/runs/new?trial=${id}&arm=1`, log(15, 45.1));
  await bringTo(page, `/jobs/${job}/runs/new?trial=${id}&arm=0`, log(15, 49.9));
  await expect(page.getByTestId("advice")).toContainText(/Put back: −(9|10)\.\d\s%/);
  await page.keyboard.press("k");
  await page.getByLabel("Reason").fill("The edges look right.");
  await page.getByRole("button", { name: /all the same/ }).click();
  await expect(page.getByText("none kept").first()).toBeVisible();
  await expect(page.getByText(/Against the advice: Put back/)).toBeVisible();
  await page.goto(`/jobs/${job}`);
  await expect(page.getByRole("list", { name: "Thread" })).toContainText("The edges look right.");
});

test("a fault outweighs speed: noted in the trace, the verdict follows; a crash counts per hour", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Kite Weather");
  await bringTo(page, `/jobs/${job}/runs/new`, log(30, 60));
  const reading = page.getByRole("region", { name: "Reading" });
  await expect(reading).toContainText("Steady");
  await page.keyboard.press("g");
  const sheet = page.getByRole("dialog");
  await sheet.getByRole("combobox", { name: "How bad" }).click();
  await page.getByRole("option", { name: /severe/ }).click();
  await sheet.getByLabel("Scene").fill("the squall");
  await sheet.getByLabel(/^When in the trace/).fill("12,5");
  await sheet.getByLabel("What was seen").fill("kites without strings");
  await sheet.getByLabel("What helps").fill("cache reset");
  await sheet.getByRole("button", { name: "Note the fault" }).click();
  await expect(reading).toContainText("Gutters");
  await expect(reading.getByRole("region", { name: "Faults" })).toContainText(
    "severe, picture at the squall, 12.5 s: kites without strings",
  );
  await bringTo(page, `/jobs/${job}/runs/new`, log(31, 60), async () =>
    page.getByRole("switch", { name: "it ended in a crash" }).click(),
  );
  await expect(reading).toContainText("Dark");
  await expect(page.getByTestId("crashes")).toContainText("1 crash in 0.02 h with these settings");
});

test("a hand tally of both arms in turns is kept as runs, marked by eye", async ({ page, request }) => {
  const job = await freshJob(request, "Kite Weather");
  const { standing } = await (await request.get(`/api/v1/jobs/${job}`)).json();
  const { id } = await (await request.post("/api/v1/trials", { data: byEye(job, standing.settings) })).json();
  await open(page, `/jobs/${job}/runs/new?trial=${id}&arm=0`);
  await onTheBench(page);
  await page.getByRole("tab", { name: "Tally by eye" }).click();
  await page.getByRole("combobox", { name: "Scene of the readings" }).click();
  await page.getByRole("option", { name: "the squall" }).click();
  const pad = page.getByLabel(/Look when it ticks/),
    arms = page.getByRole("group", { name: "Arm that runs now" });
  for (const [name, readings] of [
    ["A", [60, 60, 59]],
    ["B", [50, 51, 50]],
    ["A", [60, 59, 60]],
  ] as const) {
    await arms.getByRole("button", { name }).click();
    for (const reading of readings) {
      await pad.fill(String(reading));
      await pad.press("Enter");
    }
  }
  await page.getByRole("button", { name: "Take the last reading back" }).click();
  await pad.fill("61");
  await pad.press("Enter");
  await page.getByRole("button", { name: "Keep this tally" }).click();
  await page.waitForURL(`**/trials/${id}`);
  const { runs } = await (await request.get(`/api/v1/jobs/${job}`)).json();
  expect(
    runs.map(
      ({
        arm: place,
        source,
        settings,
        tally,
      }: {
        arm: number;
        source: string;
        settings: { scale: number };
        tally: { readings: number };
      }) => [place, source, settings.scale, tally.readings],
    ),
  ).toEqual([
    [0, "tally", 2, 3],
    [1, "tally", 3, 3],
    [0, "tally", 2, 3],
  ]);
  await expect(page.getByText(/A side holds readings, not frames/)).toBeVisible();
});

test("a comparison shows that it is under way, tells when it can't be had, and is made again when asked", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Kite Weather");
  const path = await comparedByEye(request, job);
  let refusals = 1;
  await page.route("**/outcome", async (route) => {
    await new Promise((done) => setTimeout(done, 1500));
    if (refusals-- > 0) await route.abort("connectionreset");
    else await route.continue();
  });
  await open(page, path);
  await expect(page.getByRole("progressbar", { name: "Comparing" })).toBeVisible();
  await expect(page.getByText("The application doesn't answer.")).toBeVisible();
  await page.getByRole("button", { name: "Compare again" }).click();
  await expect(page.getByRole("progressbar", { name: "Comparing" })).toBeVisible();
  await expect(page.getByText(/A side holds readings, not frames/)).toBeVisible();
});

/** A comparison of two arms with a tally of each, which nobody has looked at yet. */
async function comparedByEye(request: APIRequestContext, jobId: string) {
  const { job, standing } = await (await request.get(`/api/v1/jobs/${jobId}`)).json();
  const rig = await (await request.get(`/api/v1/rigs/${job.rigId}`)).json();
  const trial = await request.post("/api/v1/trials", { data: byEye(jobId, standing.settings) });
  const { id } = await trial.json();
  for (const [arm, fps] of [60, 50].entries()) {
    const run = { ...particulars(jobId, rig), source: "tally", trialId: id, arm };
    const readings = [0, 1, 2].map((second) => ({ fps, second }));
    expect((await request.post("/api/v1/tallies", { data: { run, readings } })).status()).toBe(201);
  }
  // What the rig is believed to vary by is reckoned in the background, and moves what is asked for.
  const pending = async () => (await (await request.get(`/api/v1/trials/${id}`)).json()).pending as string;
  await expect(async () => {
    const before = await pending();
    await new Promise((done) => setTimeout(done, 2500));
    expect(await pending()).toBe(before);
  }).toPass();
  return `/jobs/${jobId}/trials/${id}`;
}

function byEye(jobId: string, settings: object) {
  const arm = (name: string, chosen: object) => ({
    name,
    settings: chosen,
    conditions: {},
    buildId: null,
    level: null,
  });
  return {
    jobId,
    kind: "compare",
    name: "By eye",
    rounds: 2,
    cold: false,
    plan: { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: [] },
    arms: [arm("A", settings), arm("B", { ...settings, scale: 3 })],
  };
}

test("descending is offered first below half speed, and begun in one key", async ({ page, request }) => {
  const job = await freshJob(request, "Basalt Choir");
  await bringTo(
    page,
    `/jobs/${job}/runs/new`,
    log(15, 24, { "gpu load %": () => 60, "busiest core %": () => 98 }),
  );
  await expect(page.getByRole("region", { name: "Try next" })).toContainText(
    "below half speed: try everything at its fastest first",
  );
  await page.keyboard.press("a");
  await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Everything at its fastest");
  await expect(page.getByRole("table", { name: "Arms" })).toContainText("scale 1");
});

test("a screening is planned, run, and shows what its switches do", async ({ page, request }) => {
  test.setTimeout(180_000);
  const job = await freshJob(request, "Basalt Choir");
  await open(page, `/jobs/${job}/trials/new?kind=screen`);
  await expect(page.getByText(/A Plackett–Burman design, folded over: 16 runs/)).toBeVisible();
  await page.getByRole("button", { name: "Begin" }).click();
  await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  const id = page.url().split("/").at(-1)!;
  const { trial } = await (await request.get(`/api/v1/trials/${id}`)).json();
  const key = trial.plan.keys[1];
  // One by hand, the others all at once in the plan's running order.
  const fpsOf = (arm: { settings: Record<string, unknown> }) =>
    arm.settings[key] === trial.before.settings[key] ? 40 : 50;
  const [first, ...others] = trial.left as number[];
  await bringTo(page, `/jobs/${job}/runs/new?trial=${id}&arm=${first}`, log(10, fpsOf(trial.arms[first!])));
  await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  await new Hands(page).drop(
    others.map((arm, at) => ({ name: `${at}.csv`, content: log(10, fpsOf(trial.arms[arm]) + 0.01 * at) })),
  );
  // Fifteen logs, read two at a time.
  const keepAll = page.getByRole("button", { name: `Keep all ${others.length} runs` });
  await expect(keepAll).toBeEnabled({ timeout: 30_000 });
  await page.keyboard.press("ControlOrMeta+Enter");
  await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  await expect(page.getByText(/helps/).first()).toBeVisible();
  await expect(page.getByTestId("left")).toHaveCount(0);
  expect(
    (await (await request.get(`/api/v1/trials/${id}`)).json()).reading.effects
      .filter(({ matters }: { matters: boolean }) => matters)
      .map(({ key: found }: { key: string }) => found),
  ).toEqual([key]);
  await page.keyboard.press("k");
  await expect(page.getByText("what helps kept", { exact: true })).toBeVisible();
  const { standing } = await (await request.get(`/api/v1/jobs/${job}`)).json();
  const changed = Object.keys(standing.settings).filter(
    (each) => standing.settings[each] !== trial.before.settings[each],
  );
  expect(changed).toEqual([key]);
});

test("cold and warm passes stand side by side, and cold ones are kept apart", async ({ page }) => {
  await open(page, "/jobs?search=Drowned");
  await page.getByRole("link", { name: "The Drowned Gallery" }).click();
  await page
    .getByRole("list", { name: "Thread" })
    .getByRole("link", { name: /Compile effects ahead/ })
    .click();
  const passes = page.getByRole("table", { name: "First and later visits" });
  await expect(passes.getByRole("row")).toHaveCount(5);
  const [first, later] = await passes
    .getByRole("row")
    .nth(1)
    .getByRole("cell")
    .allTextContents()
    .then((cells) => cells.slice(2).map((cell) => parseInt(cell)));
  expect(first).toBeGreaterThan(10 * Math.max(1, later));
});

test("bad input at the trial's endpoints: said in words, nothing kept", async ({ request }) => {
  const job = await freshJob(request, "Kite Weather");
  const refused = await request.post("/api/v1/trials", {
    data: { jobId: job, kind: "compare", name: "", arms: [] },
  });
  expect(refused.status()).toBe(422);
  expect(Object.keys((await refused.json()).fields)).toEqual(
    expect.arrayContaining(["name", "arms", "rounds"]),
  );
  expect((await request.get("/api/v1/trials/00000000-0000-4000-8000-000000000000")).status()).toBe(404);
  expect((await request.post(`/api/v1/jobs/${job}/closing`, { data: {} })).status()).toBe(409);
  expect((await request.get(`/api/v1/jobs/${job}`).then((answer) => answer.json())).trials).toEqual([]);
});
