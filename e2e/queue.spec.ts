import { expect, test, type APIRequestContext, type Page } from "@playwright/test";
import { Hands, freshJob, log, open } from "./support";

const arm = (name: string, settings: object, level: number | null = null) => ({
  name,
  settings,
  conditions: {},
  buildId: null,
  level,
});

/** A trial planned through its endpoint, on a job whose rig lies on the bench. */
async function planned(
  request: APIRequestContext,
  job: string,
  trial: { kind: string; name: string; rounds: number; keys?: string[] },
  armsOf: (settings: Record<string, unknown>) => ReturnType<typeof arm>[],
) {
  const { standing, job: found } = await (await request.get(`/api/v1/jobs/${job}`)).json();
  const bench = await (await request.get("/api/v1/bench")).json();
  await request.put("/api/v1/bench", {
    data: { rigId: found.rigId, jobId: job },
    headers: { "if-match": `"${bench.version}"` },
  });
  const { keys = [], ...rest } = trial;
  const made = await request.post("/api/v1/trials", {
    data: {
      jobId: job,
      cold: false,
      plan: { minutes: null, soakMinutes: null, elsewhereWatts: null, keys },
      arms: armsOf(standing.settings),
      ...rest,
    },
  });
  expect(made.status()).toBe(201);
  return (await made.json()).id as string;
}

/**
 * Keeps what is advised. While the rig's spread is made anew of the new runs there is no advice for a moment,
 * and nothing to keep: every press counts.
 */
const decide = async (page: Page, hands: Hands, said: string) =>
  expect(async () => {
    await hands.press("k");
    await expect(page.getByText(said).first()).toBeVisible({ timeout: 2000 });
  }).toPass();

const kept = (page: Page) => page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);

test("a trial of one setting, 10 logs, in at most 20 clicks or keys after planning", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Kite Weather");
  const id = await planned(request, job, { kind: "compare", name: "Smoothing off", rounds: 5 }, (settings) => [
    arm("as it is", settings),
    arm("none", { ...settings, smoothing: "none" }),
  ]);
  const { trial } = await (await request.get(`/api/v1/trials/${id}`)).json();
  await open(page, `/jobs/${job}/trials/${id}`);
  const hands = new Hands(page);
  // Dropped on the trial itself; the arms by the plan's running order, the rates tell afterwards whether that
  // was so.
  const files = (trial.left as number[]).map((place, at) => ({
    name: `log-${at + 1}.csv`,
    content: log(15, [45, 58][place]! + 0.1 * at),
  }));
  await hands.drop(files);
  const list = page.getByRole("list", { name: "Logs in running order" });
  await expect(list.getByRole("listitem")).toHaveCount(10);
  await expect(page.getByText("By the plan’s running order")).toBeVisible();
  await expect(page.getByRole("button", { name: "Keep all 10 runs" })).toBeEnabled();
  await hands.press("ControlOrMeta+Enter");
  await kept(page);
  await expect(page.getByText("5 of 5", { exact: true })).toHaveCount(2);
  await page.getByRole("button", { name: /^Keep none/ }).waitFor();
  await decide(page, hands, "none kept");
  console.log(`10 logs kept and decided: ${hands.clicks + hands.keys} clicks and keys`);
  expect(hands.clicks + hands.keys).toBeLessThanOrEqual(20);
  const { runs } = await (await request.get(`/api/v1/trials/${id}`)).json();
  expect(runs).toHaveLength(10);
  for (const run of runs) {
    expect(Math.abs(run.summary.averageFps - [45, 58][run.arm]!)).toBeLessThan(1.5);
    expect(run.settings.smoothing === "none").toBe(run.arm === 1);
  }
});

test("a sweep of 6, in at most 12 clicks or keys: the files' names say their levels", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Basalt Choir");
  const id = await planned(
    request,
    job,
    { kind: "resolution", name: "Scales", rounds: 1, keys: ["scale"] },
    (settings) => [1, 2, 3, 4, 5, 6].map((scale) => arm(`×${scale}`, { ...settings, scale }, scale)),
  );
  await open(page, `/jobs/${job}/trials/${id}`);
  const hands = new Hands(page);
  const rate = (scale: number) => 1000 / Math.max(7.5, 3.2 + (3.9 * 640 * 448 * scale ** 2) / 1e6);
  await hands.drop(
    [6, 1, 4, 2, 5, 3].map((scale) => ({ name: `x${scale}.csv`, content: log(12, rate(scale)) })),
  );
  await expect(page.getByText("Each file’s name tells its arm")).toBeVisible();
  await expect(page.getByRole("button", { name: "Keep all 6 runs" })).toBeEnabled();
  await hands.press("ControlOrMeta+Enter");
  await kept(page);
  await page.getByRole("button", { name: /^Keep ×3/ }).waitFor();
  await decide(page, hands, "×3 kept");
  console.log(`sweep of 6 kept and decided: ${hands.clicks + hands.keys} clicks and keys`);
  expect(hands.clicks + hands.keys).toBeLessThanOrEqual(12);
  const { runs } = await (await request.get(`/api/v1/trials/${id}`)).json();
  for (const run of runs) expect(run.fileName).toBe(`x${run.arm + 1}.csv`);
});

test("a queue in hand: moved, given another arm, the same file twice, one that can't be read", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Kite Weather");
  const id = await planned(request, job, { kind: "compare", name: "Smoothing off", rounds: 2 }, (settings) => [
    arm("as it is", settings),
    arm("none", { ...settings, smoothing: "none" }),
  ]);
  await open(page, `/jobs/${job}/runs/new?trial=${id}`);
  const same = log(14, 50);
  await page.getByLabel("Log files").setInputFiles(
    [
      ["a.csv", log(13, 51)],
      ["b.csv", same],
      ["c.csv", same],
      ["d.csv", "nothing,that\nis,a log\n"],
    ].map(([name = "", text = ""]) => ({ name, mimeType: "text/csv", buffer: Buffer.from(text) })),
  );
  const rows = page.getByRole("list", { name: "Logs in running order" }).getByRole("listitem");
  await expect(rows).toHaveCount(4);
  await expect(rows.nth(2)).toContainText("the same file stands before it: left out");
  await expect(rows.nth(3)).toContainText("refused");
  await rows.nth(3).getByRole("button", { name: "Put d.csv away" }).click();
  // The row in hand goes one place down by keys, and to the second arm.
  await rows
    .nth(0)
    .getByRole("button", { name: /a\.csv \d/ })
    .click();
  await page.keyboard.press("Alt+ArrowDown");
  await expect(rows.nth(1)).toContainText("a.csv");
  const armOfA = page.getByRole("combobox", { name: "Arm of a.csv" });
  if (!(await armOfA.textContent())?.includes("none")) await page.keyboard.press("s");
  await expect(page.getByRole("combobox", { name: "Arm of a.csv" })).toContainText("none");
  await page.getByRole("button", { name: "Keep 2 runs" }).click();
  await kept(page);
  const view = await (await request.get(`/api/v1/trials/${id}`)).json();
  expect(view.runs.map((run: { fileName: string }) => run.fileName)).toEqual(["b.csv", "a.csv"]);
  expect(view.runs[1].arm).toBe(1);

  // The copy later: refused with the run it is, and kept when it is meant.
  await open(page, `/jobs/${job}/runs/new?trial=${id}`);
  await page
    .getByLabel("Log files")
    .setInputFiles({ name: "c.csv", mimeType: "text/csv", buffer: Buffer.from(same) });
  await page.getByRole("button", { name: /Keep this run/ }).click();
  await expect(page.getByText(/This file is run \d+ of this job already/).first()).toBeVisible();
  await page.getByRole("button", { name: "It is meant: keep it again" }).click();
  await page.getByRole("button", { name: /Keep this run/ }).click();
  await kept(page);
  expect((await (await request.get(`/api/v1/trials/${id}`)).json()).runs).toHaveLength(3);
});

test("logs are taken from a watched folder as they appear, and those that lay there are left alone", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Kite Weather");
  await planned(request, job, { kind: "compare", name: "Two", rounds: 1 }, (settings) => [
    arm("as it is", settings),
    arm("none", { ...settings, smoothing: "none" }),
  ]);
  // The browser's own private folder stands in for one that a person would pick.
  await page.addInitScript(() => {
    Object.assign(globalThis, { showDirectoryPicker: async () => navigator.storage.getDirectory() });
  });
  await open(page, `/jobs/${job}/runs/new`);
  const write = async (name: string, content: string) =>
    page.evaluate(
      async ([file = "", text = ""]) => {
        const folder = await navigator.storage.getDirectory();
        const stream = await (await folder.getFileHandle(file, { create: true })).createWritable();
        await stream.write(text);
        await stream.close();
      },
      [name, content],
    );
  await write("old.csv", log(12, 60));
  await page.getByRole("button", { name: "Watch a folder for new logs" }).click();
  await expect(page.getByRole("button", { name: /^Watching/ })).toBeVisible();
  await page.waitForTimeout(2000);
  await write("new.csv", log(12, 57));
  await write("notes.md", "no log");
  const preview = page.getByRole("region", { name: "Preview" });
  await expect(preview).toContainText("new.csv", { timeout: 15_000 });
  await expect(page.getByText("old.csv")).toHaveCount(0);
});
