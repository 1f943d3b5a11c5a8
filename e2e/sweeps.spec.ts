import { expect, test, type Page } from "@playwright/test";
import { bringTo, freshJob, log, open } from "./support";

/** Begins the plan that is shown and gives the trial's id. */
async function begin(page: Page): Promise<string> {
  await page.getByRole("button", { name: "Begin" }).click();
  await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  return page.url().split("/").at(-1)!;
}

/** Keeps the recommendation in one key, and shows what the job has of it. */
async function keep(page: Page, kept: string) {
  await page.getByRole("button", { name: `Keep ${kept}` }).waitFor();
  await page.keyboard.press("k");
  await expect(page.getByText(`${kept} kept`).first()).toBeVisible();
  await page.keyboard.press("Escape");
  await page.getByRole("region", { name: "Profile" }).waitFor();
}

test("resolution, from plan to kept: run in any order, the next level proposed, the law drawn", async ({
  page,
  request,
}) => {
  test.setTimeout(180_000);
  const job = await freshJob(request, "Basalt Choir");
  await bringTo(page, `/jobs/${job}/runs/new`, log(12, 45));
  await open(page, `/jobs/${job}/trials/new?kind=resolution`);
  const levels = page.getByRole("group", { name: /levels/ });
  await levels.getByRole("checkbox", { name: "×5" }).click();
  await expect(page.getByText(/5 runs in turns: ×1, ×2, ×3, ×4, ×5/)).toBeVisible();
  await levels.getByRole("checkbox", { name: "×5" }).click();
  await levels.getByRole("checkbox", { name: "×3" }).click();
  const id = await begin(page);
  // 3.2 + 3.4 ms a million pixels, floored at 7.5 ms: ×3 holds, ×4 doesn't.
  const rate = (scale: number) => 1000 / Math.max(7.5, 3.2 + (3.9 * 640 * 448 * scale ** 2) / 1e6);
  for (const [arm, scale] of [
    [2, 4],
    [0, 1],
    [1, 2],
  ])
    await bringTo(page, `/jobs/${job}/runs/new?trial=${id}&arm=${arm}`, log(12, rate(scale)));
  // After three levels it proposes the one that would settle it, and a key adds it.
  await expect(page.getByText(/Run ×3 next/)).toBeVisible();
  await page.keyboard.press("a");
  await expect(page.getByTestId("left")).toContainText("1 run to go: ×3");
  await bringTo(page, `/jobs/${job}/runs/new?trial=${id}&arm=3`, log(12, rate(3)));
  await expect(page.getByTestId("advice")).toContainText(
    "Keep ×3: the law says ×3 is the largest that holds 59.94 fps",
  );
  await expect(
    page.getByRole("img", { name: "Frame time by internal scale, with the fitted law" }),
  ).toBeVisible();
  await expect(page.getByRole("img", { name: "×3 on the display" })).toBeVisible();
  await keep(page, "×3");
  await expect(page.getByRole("region", { name: "Profile" })).toContainText("Internal scale: 2 → 3");
  expect((await (await request.get(`/api/v1/jobs/${job}`)).json()).standing.settings).toMatchObject({
    scale: 3,
    hold_rate: true,
  });
});

test("power: 35 at 15 W, 42 at 20 W, 25 at 30 W, from plan to the sweet spot kept", async ({
  page,
  request,
}) => {
  test.setTimeout(180_000);
  const job = await freshJob(request, "Paper Lighthouse");
  await open(page, `/jobs/${job}/trials/new?kind=power`);
  await page.getByRole("checkbox", { name: /Hush/ }).click();
  await page.getByLabel(/^Runs of each/).fill("1");
  await page.getByLabel(/^Screen and the rest/).fill("2,5");
  const id = await begin(page);
  for (const [arm, fps, watts] of [
    [0, 35, 15],
    [1, 42, 20],
    [2, 25, 30],
  ])
    await bringTo(
      page,
      `/jobs/${job}/runs/new?trial=${id}&arm=${arm}`,
      log(15, fps, { "power W": () => watts }),
    );
  await expect(page.getByTestId("advice")).toContainText("No mode holds 59.94 fps; Brisk is the fastest at 42");
  await expect(page.getByTestId("advice")).toContainText("More power made it slower: Full gives 25");
  await expect(
    page.getByRole("table", { name: "Power modes" }).getByRole("row", { name: /sweet spot/ }),
  ).toContainText("Brisk");
  // 48 Wh, nine tenths of it, over 20 W and 2.5 W of screen: 1.92 h.
  await expect(page.getByRole("row", { name: /sweet spot/ })).toContainText("1.9 h");
  await keep(page, "Brisk");
  await expect(page.getByRole("region", { name: "Profile" })).toContainText("power mode Brisk");
  const { runs } = await (await request.get(`/api/v1/jobs/${job}`)).json();
  expect(runs.map(({ conditions }: { conditions: { powerMode: string } }) => conditions.powerMode)).toEqual([
    "Even",
    "Brisk",
    "Full",
  ]);
});

test("heat: with and without the cooler, throttling found, the curve fitted, cool-down told", async ({
  page,
  request,
}) => {
  test.setTimeout(180_000);
  const job = await freshJob(request, "Glasshouse Duel");
  await open(page, `/jobs/${job}/trials/new?kind=heat`);
  await page.getByLabel(/^Minutes of a run/).fill("5");
  const id = await begin(page);
  const warming =
    (settled: number, tau: number, cap = Infinity) =>
    (second: number) =>
      Math.min(cap, settled - (settled - 35) * Math.exp(-second / tau));
  const bare = warming(95, 120, 74.5),
    hot = (second: number) => bare(second) > 74;
  await bringTo(
    page,
    `/jobs/${job}/runs/new?trial=${id}&arm=0`,
    log(300, (second) => (hot(second) ? 24 : 30), {
      "temperature C": bare,
      "cpu clock MHz": (second) => (hot(second) ? 2300 : 2900),
      "busiest core %": () => 97,
    }),
  );
  await bringTo(
    page,
    `/jobs/${job}/runs/new?trial=${id}&arm=1`,
    log(300, 30, { "temperature C": warming(62, 60), "cpu clock MHz": () => 2900, "busiest core %": () => 97 }),
  );
  await expect(page.getByTestId("advice")).toContainText(
    /Cooler on settles at 6[12]\.\d\s°C.*never at this load.*Bare throttles after 2\.\d\smin/,
  );
  await expect(page.getByRole("table", { name: "Heat of each run" })).toContainText("held by throttling");
  await expect(page.getByTestId("advice")).toContainText(/min to cool between runs/);
  await keep(page, "cooler on");
  await expect(page.getByRole("region", { name: "Profile" })).toContainText("cooler on");
});

test("clocks: a ladder climbed over soaks, a step given up, the last clean one confirmed; cautions shown", async ({
  page,
  request,
}) => {
  test.setTimeout(180_000);
  const job = await freshJob(request, "Marsh Rally 3");
  await open(page, `/jobs/${job}/trials/new?kind=clocks`);
  await expect(page.getByText(/void a warranty/)).toBeVisible();
  await page.getByLabel(/^Soak/).fill("1");
  const id = await begin(page);
  const soak = (arm: number, fps: number, celsius: number) =>
    bringTo(
      page,
      `/jobs/${job}/runs/new?trial=${id}&arm=${arm}`,
      log(61, fps, { "temperature C": () => celsius, "power W": () => 5 + arm }),
    );
  await soak(0, 18, 45);
  await expect(page.getByTestId("advice")).toContainText("Soak balanced for 1 min");
  await soak(1, 30, 55);
  await soak(2, 58, 86);
  await expect(page.getByTestId("advice")).toContainText(
    "Back to balanced, the last clean step, and confirm it",
  );
  await expect(page.getByRole("list", { name: "Steps of the ladder" })).toContainText(
    "given up: it reached 86 °C, the limit is 85 °C",
  );
  await soak(1, 30, 55);
  await expect(page.getByTestId("advice")).toContainText(
    /Balanced is confirmed: 2\smin clean, which rules out more than 8\d\.\d crashes an hour/,
  );
  await keep(page, "balanced");
  await expect(page.getByRole("region", { name: "Profile" })).toContainText("clocks balanced");
});

test("memory: the slope to the wall, what more memory would give, noted", async ({ page, request }) => {
  const job = await freshJob(request, "Glasshouse Duel");
  await open(page, `/jobs/${job}/trials/new?kind=memory`);
  await page.getByLabel(/^Minutes of the run/).fill("4");
  const id = await begin(page);
  await bringTo(
    page,
    `/jobs/${job}/runs/new?trial=${id}&arm=0`,
    log(240, 30, { "memory MB": (second) => 3000 + (200 * second) / 60 + 4 * Math.sin(second) }),
  );
  // 8\sGB less what the system keeps is 7,619\sMB: (7619 − 3000) / 200 = 23.1 min.
  await expect(page.getByTestId("advice")).toContainText(
    /Memory grows by 200\sMB a minute; what the rig leaves it is full after 23\.\d\smin/,
  );
  await expect(page.getByTestId("advice")).toContainText(/With 12\sGB it would last about 4\d\smin/);
  await page.keyboard.press("p");
  await page.getByRole("button", { name: /Take it back/ }).waitFor();
  await expect(page.getByRole("heading", { name: "Decided" })).toBeVisible();
});

test("rate: free 42 to 50, locked at 30 by a limiter that counts double; the target goes with it and comes back", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Quiet Machines");
  await open(page, `/jobs/${job}/trials/new?kind=rate`);
  await expect(page.getByText(/counts double: 120 gives 60/)).toBeVisible();
  const id = await begin(page);
  await bringTo(
    page,
    `/jobs/${job}/runs/new?trial=${id}&arm=0`,
    log(60, (second) => 46 + 4 * Math.sin(second / 5)),
  );
  await expect(page.getByTestId("advice")).toContainText(
    "Lock at 30 fps: 100 % of windows hold it behind the cap, every frame for 2 refreshes",
  );
  await expect(
    page.getByRole("table", { name: "Candidate rates" }).getByRole("row", { name: /recommended/ }),
  ).toContainText("60");
  await keep(page, "30 fps");
  await expect(page.getByRole("region", { name: "Profile" })).toContainText("Rate limit: 0 → 60");
  const target = async () => (await (await request.get(`/api/v1/jobs/${job}`)).json()).job.targetFps;
  expect(await target()).toBe(30);
  await open(page, `/jobs/${job}/trials/${id}`);
  await page.keyboard.press("u");
  await page.getByRole("button", { name: /^Keep 30\sfps/ }).waitFor();
  expect(await target()).toBeNull();
});

test("a tied title is never offered slow motion", async ({ page, request }) => {
  const job = await freshJob(request, "Paper Lighthouse");
  await open(page, `/jobs/${job}/trials/new?kind=rate`);
  await expect(page.getByText(/never capped below 59.94\sfps, which would be slow motion/)).toBeVisible();
});

test("a plan that can't be says why: one power mode, no clock options, rules that forbid", async ({
  page,
  request,
}) => {
  const dovecote = await freshJob(request, "Kite Weather");
  await open(page, `/jobs/${dovecote}/trials/new?kind=power`);
  await expect(page.getByText("Dovecote has one power mode only.")).toBeVisible();
  await page.getByRole("tab", { name: "Clocks" }).click();
  await expect(page.getByText(/Dovecote has no clock options written down/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Begin" })).toBeDisabled();
});
