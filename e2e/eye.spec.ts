import { expect, test, type APIRequestContext, type Page } from "@playwright/test";
import { freshJob, open } from "./support";

// Four whole jobs as they are done without any log: numbers read off a screen, and decided in seconds. What the
// hand does is counted, beside the readings themselves.

/** Keys pressed and clicks made beside typing readings. */
class Eye {
  actions = 0;
  constructor(readonly page: Page) {}
  async key(key: string) {
    await this.page.waitForTimeout(200);
    this.actions++;
    await this.page.keyboard.press(key);
  }
  async click(name: string | RegExp) {
    this.actions++;
    await this.page.getByRole("button", { name }).first().click();
  }
  /** Types readings in one line, as they were read. */
  async read(readings: string) {
    const field = this.page.getByLabel(/Look when it ticks/);
    await field.waitFor();
    await field.fill(readings);
    this.actions++;
    await field.press("Enter");
  }
}

async function onTheTallyPad(page: Page) {
  await page
    .getByRole("heading", { name: /^New run$|isn't on the bench$/ })
    .first()
    .waitFor();
  const putOn = page.getByRole("button", { name: /on the bench$/ });
  if (await putOn.isVisible()) await putOn.click();
  const tab = page.getByRole("tab", { name: "Tally by eye" });
  await tab.waitFor();
  if ((await tab.getAttribute("data-state")) !== "active") await tab.click();
}

/** The baseline of a job, read off the screen. */
async function baseline(page: Page, job: string, readings: string) {
  await open(page, `/jobs/${job}/runs/new`);
  await onTheTallyPad(page);
  await page.getByLabel(/Look when it ticks/).fill(readings);
  await page.getByLabel(/Look when it ticks/).press("Enter");
  await page.getByRole("button", { name: "Keep this tally" }).click();
  await page.waitForURL(/\?run=/);
}

const view = async (request: APIRequestContext, job: string) =>
  (await request.get(`/api/v1/jobs/${job}`)).json();
const trialIn = (page: Page) => page.url().match(/trials\/([0-9a-f-]{36})/)![1]!;

const sizes = [
  { name: "desktop", size: { width: 1280, height: 800 } },
  { name: "phone", size: { width: 390, height: 844 } },
];

for (const { name, size } of sizes) {
  test.describe(`by eye, ${name}`, () => {
    test.use({ viewport: size });

    test("a mode sweep: what was kept is on the strip, in the job, on the board and in the recipe", async ({
      page,
      request,
    }) => {
      test.setTimeout(120_000);
      const eye = new Eye(page);
      const job = await freshJob(request, "Paper Lighthouse");
      const { rigId } = (await view(request, job)).job;
      const onBench = async (change: object) => {
        const { version } = await (await request.get("/api/v1/bench")).json();
        const put = await request.put("/api/v1/bench", {
          data: change,
          headers: { "If-Match": `"${version}"` },
        });
        expect(put.status()).toBeLessThan(300);
        return put.json();
      };
      const { conditions } = await onBench({ rigId });
      await onBench({ rigId, conditions: { ...conditions, powerMode: "Hush" } });
      await baseline(page, job, "31 32 31");
      await open(page, `/jobs/${job}/trials/new?kind=power`);
      await page.getByLabel(/^Runs of each/).fill("1");
      await page.getByRole("button", { name: "Begin" }).click();
      await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
      const { arms } = (await view(request, job)).trials[0];
      await page.goto(`/jobs/${job}/runs/new?trial=${trialIn(page)}&arm=0`);
      await page.locator("[data-ready]").waitFor();
      await onTheTallyPad(page);
      // One pad for all of them: S goes to the next arm.
      for (const [at, { name: mode }] of arms.entries()) {
        await eye.read(mode === "Brisk" ? "60 60 59" : mode === "Hush" ? "31 32 31" : "44 45 44");
        if (at < arms.length - 1) await eye.key("s");
      }
      await eye.key("ControlOrMeta+Enter");
      await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
      await expect(page.getByTestId("advice")).toContainText(/Brisk holds 59\.94\sfps/);
      await eye.key("k");
      await expect(page.getByText("Brisk kept").first()).toBeVisible();
      await expect(page.getByText(/The bench is set to what holds: power mode Brisk/).first()).toBeVisible();
      // A reading each, the way to the next, one to keep and one to decide.
      expect(eye.actions).toBeLessThanOrEqual(2 * arms.length + 2);
      const bench = await (await request.get("/api/v1/bench")).json();
      expect(bench.conditions.powerMode).toBe("Brisk");
      const after = await view(request, job);
      expect(after.holds.conditions.powerMode).toBe("Brisk");
      expect(after.runs.find(({ id }: { id: string }) => id === after.tellingRunId).conditions.powerMode).toBe(
        "Brisk",
      );
      // The confirmation is stamped with it, closes the job, and everybody says the same.
      await open(page, `/jobs/${job}/runs/new`);
      await onTheTallyPad(page);
      await eye.read("60 59 60");
      await page.getByRole("button", { name: "Keep this tally" }).click();
      await page.waitForURL(/\?run=/);
      const closed = await request.post(`/api/v1/jobs/${job}/closing`, {
        data: { note: "" },
        headers: { "If-Match": `"${(await view(request, job)).job.version}"` },
      });
      expect(closed.status()).toBeLessThan(300);
      expect((await closed.json()).conditions.powerMode).toBe("Brisk");
      expect(await (await request.get(`/api/v1/jobs/${job}/recipe`)).text()).toContain("Brisk");
      const { rows } = await (await request.get("/api/v1/board/titles?search=Paper+Lighthouse")).json();
      const cells = rows.flatMap(({ cells: own }: { cells: { jobId: string; powerMode: string }[] }) => own);
      expect(cells.find(({ jobId }: { jobId: string }) => jobId === job)).toMatchObject({
        powerMode: "Brisk",
        confirmed: true,
      });
      console.log(`mode sweep of ${arms.length}, ${name}: ${eye.actions} keys beside the readings`);
    });

    test("one change, one look each way: judged in at most six keys beside the readings", async ({
      page,
      request,
    }) => {
      test.setTimeout(120_000);
      const eye = new Eye(page);
      const job = await freshJob(request, "Basalt Choir");
      await baseline(page, job, "38 39 38 gpu 97 core 60");
      await page
        .getByRole("region", { name: "Try next" })
        .or(page.getByRole("button", { name: "Reading" }))
        .first()
        .waitFor();
      const began = Date.now();
      await eye.key("y");
      await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
      // The baseline is its first look, and the look that is left is the other arm's.
      await expect(page.getByTestId("left")).toContainText(/^1 run to go/);
      await eye.key("n");
      await page.waitForURL(/\/runs\/new\?/);
      await onTheTallyPad(page);
      await eye.read("60 59 60");
      await eye.key("ControlOrMeta+Enter");
      await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
      await expect(page.getByTestId("advice")).toContainText(/^Keep .*: \+5\d\.\d/);
      await eye.key("k");
      await expect(page.getByText(/ kept$/).first()).toBeVisible();
      expect(eye.actions).toBeLessThanOrEqual(6);
      console.log(
        `one change, ${name}: ${eye.actions} keys beside the readings, ${((Date.now() - began) / 1000).toFixed(1)} s`,
      );
    });

    test("a scale sweep from three looks: the largest that holds, and the one to try between", async ({
      page,
      request,
    }) => {
      test.setTimeout(120_000);
      const eye = new Eye(page);
      const job = await freshJob(request, "Basalt Choir");
      await baseline(page, job, "60 60 60");
      await open(page, `/jobs/${job}/trials/new?kind=resolution`);
      await page.getByRole("button", { name: "Begin" }).click();
      await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
      // What holds is ×2; a look says which is next, A plans it, N goes there.
      for (let look = 0; look < 4; look++) {
        const { trials } = await view(request, job);
        const open = trials[0].left[0];
        if (open === undefined) break;
        const scale = trials[0].arms[open].level as number;
        await eye.key("n");
        await page.waitForURL(/\/runs\/new\?/);
        await onTheTallyPad(page);
        await eye.read(scale <= 2 ? "60 59 60" : scale === 3 ? "48 48 47" : "31 30 31");
        await eye.key("ControlOrMeta+Enter");
        await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
        await expect(page.getByTestId("advice")).toContainText(`×${scale}`);
        const next = page.getByText(/^Run ×\d+ next/);
        if (!(await next.isVisible())) break;
        await eye.key("a");
        await expect(page.getByTestId("left")).toContainText("1 run to go");
      }
      await expect(page.getByTestId("advice")).toContainText(/^Keep ×2: ×2 is the largest measured that holds/);
      await eye.key("k");
      await expect(page.getByText("×2 kept").first()).toBeVisible();
      console.log(`scale sweep, ${name}: ${eye.actions} keys beside the readings`);
    });

    test("a title of seven scenes is stepped through with Enter, and says how many hold", async ({
      page,
      request,
    }) => {
      test.setTimeout(120_000);
      const scenes = ["dock", "market", "fog", "bridge", "storm", "cellar", "roof"];
      // Other tests count the titles of Basalt Choir's system.
      const { rows } = await (await request.get("/api/v1/titles?search=Satchel")).json();
      const title = await request.post("/api/v1/titles", {
        data: {
          systemId: rows[0].systemId,
          name: `Seven Rooms, ${name}, ${Date.now()}`,
          nativeFps: 60,
          tied: true,
          region: "",
          hardness: "hard",
          memoryNeededGb: null,
          notes: "",
          scenes: scenes.map((scene) => ({
            name: scene,
            how: "",
            seconds: 20,
            worst: false,
            fps: scene === "cellar" ? 30 : null,
          })),
          patches: [],
        },
      });
      expect(title.status()).toBe(201);
      const job = await freshJob(request, "Basalt Choir", { titleId: (await title.json()).id });
      await open(page, `/jobs/${job}/runs/new`);
      await onTheTallyPad(page);
      const eye = new Eye(page);
      const rates = { dock: 60, market: 60, fog: 44, bridge: 59, storm: 51, cellar: 30, roof: 60 };
      for (const [scene, rate] of Object.entries(rates)) {
        await eye.read("");
        await expect(page.getByRole("combobox", { name: "Scene of the readings" })).toContainText(scene);
        await eye.read(`${rate} ${rate} ${rate}`);
      }
      await eye.key("ControlOrMeta+Enter");
      await page.waitForURL(/\?run=/);
      const [run] = (await view(request, job)).runs;
      expect(run.places).toMatchObject({ hold: 5, of: 7 });
      console.log(`seven scenes, ${name}: ${eye.actions} keys beside the readings`);
      // On a phone the reading lies in a drawer; its table is the same.
      if (name === "phone") return;
      const held = page.getByText(/5 of 7 places hold \(95.%: 36 to 92.%\)/).first();
      await held.click();
      const table = page.getByRole("table", { name: "Places" }).first();
      await expect(table.getByRole("row", { name: /^fog/ })).toContainText(/Gutters.*44\.0 of 60\.0/);
      await expect(table.getByRole("row", { name: /^cellar/ })).toContainText(/Steady.*30\.0 of 30\.0/);
    });
  });
}

test("won't start is one key and what was seen; overruled lights stand beside the computed ones", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Basalt Choir");
  await open(page, `/jobs/${job}/runs/new`);
  await onTheTallyPad(page);
  await page.waitForTimeout(200);
  await page.keyboard.press("w");
  await page.getByLabel("What was seen").fill("black picture, then back to the shelf");
  await page.keyboard.press("Enter");
  await page.waitForURL(/\?run=/);
  const reading = page.getByRole("region", { name: "Reading" });
  await expect(reading).toContainText("Dark");
  await baseline(page, job, "44 45 44 45");
  const { runs } = await view(request, job);
  const { id, version } = runs.at(-1);
  const changed = await request.patch(`/api/v1/runs/${id}`, {
    data: { overruled: { grade: "steady", reason: "playable to me" } },
    headers: { "If-Match": `"${version}"` },
  });
  expect(changed.status()).toBeLessThan(300);
  await page.reload();
  await expect(page.getByTestId("overruled").first()).toContainText(/Steady to .*: “playable to me”/);
  await expect(reading).toContainText("Gutters");
});
