import { expect, test, type APIRequestContext, type Page } from "@playwright/test";
import { freshJob, Hands, log, open } from "./support";

const json = async (request: APIRequestContext, path: string) => (await request.get(`/api/v1${path}`)).json();

/** A rig of its own: a phone whose graphics driver can be chosen of three. */
async function phoneWithDrivers(request: APIRequestContext, name: string) {
  const { rows } = await json(request, "/rigs?search=Pipit");
  const {
    id: _id,
    version: _version,
    revisions: _revisions,
    ...pipit
  } = await json(request, `/rigs/${rows[0].id}`);
  const spec = {
    ...pipit.spec,
    driver: { version: "24.1", date: "2026-05-02" },
    drivers: [
      { version: "23.3", date: "2025-11-20", note: "" },
      { version: "22.0", date: null, note: "shipped with it" },
    ],
    cooling: { ...pipit.spec.cooling, coolers: [{ name: "Desk fan", noiseDb: 34 }] },
    switches: [
      {
        key: "turbo",
        label: "Turbo",
        values: ["off", "on"],
        default: "off",
        fastest: "on",
        relieves: ["processor"],
        costsSpeed: false,
        picture: 0,
        heat: 1,
        restart: false,
        caution: "Warm in the hand.",
      },
    ],
  };
  const made = await request.post("/api/v1/rigs", { data: { name, spec } });
  expect(made.status()).toBe(201);
  return { id: (await made.json()).id as string, spec };
}

/** Runs of a trial by eye, a run for each arm in turn, at the rates given. */
async function runsOf(
  request: APIRequestContext,
  trialId: string,
  jobId: string,
  rates: number[],
  rounds: number,
  spec: { powerModes: { name: string }[]; displays: { name: string }[] },
  places: string[] = [""],
) {
  const { trial } = await json(request, `/trials/${trialId}`);
  for (let round = 0; round < rounds; round++)
    for (const [arm, fps] of rates.entries()) {
      const { settings, conditions } = trial.arms[arm];
      const run = {
        jobId,
        source: "tally",
        label: "",
        fileName: null,
        settings,
        conditions: {
          powerMode: spec.powerModes[0]?.name ?? null,
          clocks: null,
          display: spec.displays[0]!.name,
          pluggedIn: false,
          docked: false,
          cooler: false,
          roomC: 21,
          capturePath: "by eye",
          ...conditions,
        },
        cacheState: "warm",
        crashed: false,
        skippedRows: 0,
        preflight: [],
        notes: "",
        trialId,
        arm,
      };
      const readings = Array.from({ length: 12 }, (_, k) => ({
        fps: fps + ((k + round) % 3) - 1,
        second: 5 * k,
        scene: places[Math.floor((k * places.length) / 12)],
      }));
      const sent = await request.post("/api/v1/tallies", { data: { run, readings } });
      expect([sent.status(), await sent.text()]).toEqual([201, expect.anything()]);
    }
}

/** Plans a trial in the browser: what varies, which values. @returns its id */
async function vary(page: Page, job: string, what: string | RegExp, values: string[], rounds: number) {
  await open(page, `/jobs/${job}/trials/new`);
  await page.getByLabel("What varies").click();
  if (typeof what === "string") await page.getByPlaceholder("type to find").fill(what);
  await page.getByRole("option", { name: what }).first().click();
  const ticks = page.getByRole("group", { name: /^Values of/ });
  for (const tick of await ticks.getByRole("checkbox").all()) {
    const name = await tick.evaluate((box) => box.parentElement!.innerText.trim());
    const wanted = values.some((value) => name.includes(value));
    if ((await tick.isChecked()) !== wanted) await tick.click();
  }
  await page.getByLabel("Runs of each").fill(String(rounds));
  await page.getByRole("button", { name: "Begin" }).click();
  await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  return page.url().split("/").at(-1)!;
}

test("a driver trial of three arms: a title keeps the older driver, and is stale after the rig's revision", async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  const { id: rigId, spec } = await phoneWithDrivers(request, `Willow with drivers ${Date.now()}`);
  const job = await freshJob(request, "Copper Regatta", { rigId });
  const trial = await vary(page, job, "Graphics driver", ["23.3", "22.0"], 2);
  const planned = await json(request, `/trials/${trial}`);
  expect(
    planned.trial.arms.map((arm: { settings: Record<string, unknown> }) => arm.settings["rig:driver"]),
  ).toEqual(["24.1", "23.3", "22.0"]);
  await runsOf(request, trial, job, [41, 52, 42], 2, spec);
  await open(page, `/jobs/${job}/trials/${trial}`);
  await page.getByRole("button", { name: /^Keep Graphics driver 23\.3/ }).click();
  await expect(page.getByText(/Graphics driver 23\.3 kept/).first()).toBeVisible();
  // It stands in the title's layer, proven; runs say which driver they were made with.
  const { job: made, runs } = await json(request, `/jobs/${job}`);
  expect(new Set(runs.map((run: { settings: Record<string, unknown> }) => run.settings["rig:driver"]))).toEqual(
    new Set(["24.1", "23.3", "22.0"]),
  );
  const place = `/profile?rig=${rigId}&engine=${made.engineId}&title=${made.titleId}&build=${made.buildId}`;
  const row = async () =>
    (await json(request, place)).rows.find(({ key }: { key: string }) => key === "rig:driver");
  expect(await row()).toMatchObject({ value: "23.3", from: "title", standing: "proven" });
  // The rig's system brings a newer driver: what was measured before it is to be checked again.
  const { version, name } = await json(request, `/rigs/${rigId}`);
  const revised = await request.put(`/api/v1/rigs/${rigId}`, {
    headers: { "if-match": `"${version}"` },
    data: { name, spec: { ...spec, driver: { version: "24.2", date: "2026-11-20" } }, note: "driver 24.2" },
  });
  expect(revised.status()).toBe(200);
  expect(await row()).toMatchObject({ value: "23.3", from: "title", standing: "stale", stale: ["revision"] });
  await open(page, `/profiles?rig=${rigId}&engine=${made.engineId}&title=${made.titleId}`);
  await expect(page.getByRole("button", { name: /^Graphics driver, Title on rig: 23\.3/ })).toBeVisible();
});

test("in-title resolution, a layer and a patch are varied like settings; the patch's side effect is in the recipe", async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  const { rows } = await json(request, "/titles?search=Copper%20Regatta");
  const { id: _id, version: _v, retired: _r, ...like } = await json(request, `/titles/${rows[0].id}`);
  const title = {
    ...like,
    name: `Copper Regatta in a container ${Date.now()}`,
    options: [
      {
        key: "own-resolution",
        label: "Own resolution",
        values: ["720 lines", "900 lines", "1080 lines"],
        default: "1080 lines",
        fastest: "720 lines",
        relieves: ["graphics"],
        costsSpeed: false,
        picture: 2,
        heat: 0,
        restart: true,
        caution: "",
      },
    ],
    copy: { format: "packed", dump: "own disc", update: "1.2", addOns: "", where: "the card", readMBps: 80 },
    patches: [
      {
        name: "60 fps",
        fps: 60,
        sideEffects: "crowds move at double pace",
        fitsVersion: "1.1",
        changes: "the frame limiter",
        link: "https://example.org/patch",
        sha256: "a".repeat(64),
      },
    ],
  };
  const made = await request.post("/api/v1/titles", { data: title });
  expect(made.status()).toBe(201);
  const titleId = (await made.json()).id;
  const { job: plain } = await json(request, `/jobs/${await freshJob(request, "Copper Regatta", { titleId })}`);
  // An engine that runs through two layers, each in two versions.
  const { id: _engine, version: _saw, ...engine } = await json(request, `/engines/${plain.engineId}`);
  const layered = {
    ...engine,
    name: `${engine.name} wrapped ${Date.now()}`,
    layers: [
      { name: "Compatibility layer", versions: ["8.1", "9.0"] },
      { name: "Graphics translator", versions: ["2.3", "2.4"] },
    ],
  };
  const madeEngine = await request.post("/api/v1/engines", { data: layered });
  expect(madeEngine.status(), await madeEngine.text()).toBe(201);
  const begun = await request.post("/api/v1/jobs/named", {
    data: {
      rig: plain.rig,
      title: title.name,
      system: plain.system,
      engine: layered.name,
      nativeFps: 60,
      refreshHz: 60,
    },
  });
  expect(begun.status(), await begun.text()).toBe(201);
  const { id: job } = await begun.json();
  const view = await json(request, `/jobs/${job}`);
  expect(view.catalogue.map(({ key }: { key: string }) => key)).toEqual(
    expect.arrayContaining([
      "layer:Compatibility-layer",
      "layer:Graphics-translator",
      "title:own-resolution",
      "patch:60-fps",
    ]),
  );
  await open(page, `/jobs/${job}/trials/new`);
  await page.getByLabel("What varies").click();
  await page.getByPlaceholder("type to find").fill("Own resolution");
  await page.getByRole("option", { name: /Own resolution/ }).click();
  await expect(page.getByRole("group", { name: "Values of Own resolution" }).getByRole("checkbox")).toHaveCount(
    2,
  );
  const trial = await vary(page, job, "Patch: 60 fps", ["on"], 2);
  const { rows: rigs } = await json(request, "/rigs?limit=100");
  const { spec } = await json(
    request,
    `/rigs/${rigs.find(({ name }: { name: string }) => name === view.job.rig).id}`,
  );
  const places = ["the lock gates", "the weir"];
  await runsOf(request, trial, job, [30, 57], 2, spec, places);
  await open(page, `/jobs/${job}/trials/${trial}`);
  for (const place of places)
    await expect(
      page.getByRole("table", { name: /place/i }).getByRole("row", { name: new RegExp(place) }),
    ).toBeVisible();
  await page.getByRole("button", { name: /^Keep Patch: 60 fps/ }).click();
  await expect(page.getByText(/Patch: 60 fps on kept/).first()).toBeVisible();
  await open(page, `/jobs/${job}/recipe`);
  const main = page.frameLocator("#content iframe").locator("body");
  await expect(main).toContainText("Patch: 60 fps");
  await expect(main).toContainText("crowds move at double pace");
  // The layers that are in force stand in the settings of the next trial, and can be varied in turn.
  await open(page, `/jobs/${job}/trials/new`);
  await page.getByLabel("What varies").click();
  await page.getByPlaceholder("type to find").fill("Graphics translator");
  await page.getByRole("option", { name: /Graphics translator/ }).click();
  await expect(page.getByText(/As it is now: 2\.4/)).toBeVisible();
  await open(page, `/jobs/${job}/recipe`);
  // The patch is for another version of the title than the copy is.
  await expect(main).toContainText("It fits version 1.1; the copy is 1.2.");
});

test("a switch's caution stands beside it where a run's settings are set", async ({ page, request }) => {
  const { id } = await phoneWithDrivers(request, `Pipit, warm ${Date.now()}`);
  const job = await freshJob(request, "Glasshouse Duel", { rigId: id });
  await open(page, `/jobs/${job}/runs/new`);
  await expect(page.getByRole("main").getByText("Warm in the hand.")).toBeVisible();
});

test("fifty titles are pasted, looked at, and added in one go; one undoing takes them back", async ({
  page,
  request,
}) => {
  const stamp = Date.now();
  const lines = Array.from(
    { length: 50 },
    (_, k) => `Pasted ${stamp} no ${k}; Cinder 32; ${k % 2 ? 30 : 60}; the weir`,
  );
  await open(page, "/kit/titles");
  const before = (await json(request, "/titles")).total;
  await page.getByRole("button", { name: "Paste titles" }).click();
  await page.getByLabel("Lines with titles").fill(lines.join("\n"));
  await expect(page.getByRole("table", { name: "What would be added" }).getByRole("row")).toHaveCount(51);
  await page.getByRole("button", { name: "Add 50 titles" }).click();
  await expect(page.getByText("50 titles added.")).toBeVisible();
  expect((await json(request, "/titles")).total).toBe(before + 50);
  await page.keyboard.press("ControlOrMeta+z");
  await expect.poll(async () => (await json(request, "/titles")).total).toBe(before);
});

test("what is there already is said in the preview of pasted titles, and another title of nearly that name is added", async ({
  page,
  request,
}) => {
  const { rows } = await json(request, "/titles?search=Glasshouse");
  const [there] = rows;
  const { total } = await json(request, "/titles");
  await open(page, "/kit/titles");
  await page.getByRole("button", { name: "Paste titles" }).click();
  const lines = [there.name, there.name.toUpperCase().replace(" ", "  "), `Pasted ${Date.now()}`];
  await page
    .getByLabel("Lines with titles")
    .fill(lines.map((name) => `${name}; ${there.system}; 60`).join("\n"));
  const preview = page.getByRole("table", { name: "What would be added" });
  await expect(preview.getByText("There already, and left as it is.")).toHaveCount(1);
  await expect(preview.getByText(`“${there.name}” is there already: taken for the same.`)).toBeVisible();
  await expect(page.getByRole("button", { name: "Add 1 title", exact: true })).toBeVisible();
  await preview.getByRole("switch", { name: "another title" }).click();
  await page.getByRole("button", { name: "Add 2 titles" }).click();
  await expect(page.getByText("2 titles added.")).toBeVisible();
  expect((await json(request, "/titles")).total).toBe(total + 2);
  await page.keyboard.press("ControlOrMeta+z");
  await expect.poll(async () => (await json(request, "/titles")).total).toBe(total);
});

test("a rig from what its system prints, taken field by field, with a switch of its own", async ({
  page,
  request,
}) => {
  await open(page, "/kit/rigs/new");
  const name = `Printed ${Date.now()}`;
  await page.getByLabel("Name", { exact: true }).first().fill(name);
  await page
    .getByLabel("What the device prints")
    .fill(
      [
        "Model name:              Core A",
        "  Core(s) per socket:    4",
        "  Socket(s):             1",
        "  CPU max MHz:           1800.0000",
        "Mem:         7864320     2212340     1500000",
        "eDP-1 connected primary 1280x800+0+0",
        "   1280x800      60.00*+  40.00",
      ].join("\n"),
    );
  await expect(page.getByRole("list", { name: "What was read" }).getByRole("listitem")).toHaveCount(3);
  await page.getByRole("button", { name: "Take all 3" }).click();
  await page.getByRole("button", { name: "Switch", exact: true }).click();
  await page.getByLabel("Name of Switch 1").fill("Game mode");
  await page.getByRole("button", { name: "Keep the rig" }).click();
  await page.waitForURL("**/kit/rigs");
  const { rows } = await json(request, `/rigs?search=${encodeURIComponent(name)}`);
  const { spec } = await json(request, `/rigs/${rows[0].id}`);
  expect(spec).toMatchObject({
    memoryGb: 7.5,
    processor: { clusters: [{ cores: 4, boostGhz: 1.8 }] },
    displays: [{ width: 1280, height: 800, refreshHz: [60, 40] }],
    switches: [{ key: "Game-mode", label: "Game mode", values: ["off", "on"], default: "off" }],
  });
});

test("three builds or engines are compared in five clicks from the job", async ({ page, request }) => {
  const job = await freshJob(request, "Glasshouse Duel");
  await open(page, `/jobs/${job}`);
  const hands = new Hands(page);
  await hands.press("w");
  await page.waitForURL(/trials\/new/);
  await page.locator("[data-ready]").waitFor();
  await hands.click(page.getByLabel("What varies"));
  await hands.click(page.getByRole("option", { name: /^Engine and build/ }));
  const ticks = page.getByRole("group", { name: /^Values of/ }).getByRole("checkbox");
  for (let at = 0; at < 2; at++) if (!(await ticks.nth(at).isChecked())) await hands.click(ticks.nth(at));
  await hands.click(page.getByRole("button", { name: "Begin" }));
  await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  const { trial } = await json(request, `/trials/${page.url().split("/").at(-1)}`);
  expect(trial.arms.length).toBeGreaterThanOrEqual(3);
  console.log(`clicks to a trial of three engines: ${hands.clicks}, keys: ${hands.keys}`);
  expect(hands.clicks).toBeLessThanOrEqual(5);
});

test("the longer ways that were there before, counted: three engines by a campaign, a title by its form", async ({
  page,
}) => {
  await open(page, "/campaigns/new");
  const hands = new Hands(page);
  const main = page.getByRole("main");
  const pick = async (name: string, option: RegExp) => {
    await hands.click(main.getByRole("combobox", { name, exact: true }));
    await hands.click(page.getByRole("option", { name: option }).first());
  };
  await hands.click(page.getByLabel("Find a title"));
  await hands.type("Glass");
  await hands.click(page.getByRole("switch", { name: "Glasshouse Duel" }));
  await pick("Engine of arm 1", /^Plait 5\.1/);
  for (const [at, engine] of [/^Plait Swift/, /^Plait Weave/].entries()) {
    await hands.click(page.getByRole("button", { name: "Arm", exact: true }));
    await pick(`Engine of arm ${at + 2}`, engine);
  }
  await hands.click(page.getByRole("button", { name: "Plan it" }));
  await page.waitForURL(/\/campaigns\/[0-9a-f-]{36}$/);
  console.log(`clicks to a campaign of three engines: ${hands.clicks}, keys: ${hands.keys}`);

  await open(page, "/kit/titles/new");
  const form = new Hands(page);
  await form.click(page.getByLabel("Name", { exact: true }));
  await form.type(`Typed ${Date.now() % 1000}`);
  await form.click(page.getByLabel("System", { exact: true }));
  await form.click(page.getByRole("option").first());
  await form.click(page.getByRole("button", { name: "Keep the title" }));
  await page.waitForURL("**/kit/titles");
  console.log(`clicks for one title by its form: ${form.clicks}, keys: ${form.keys}`);
  expect(hands.clicks).toBeGreaterThan(5);
});

test("two rigs are compared from the trial's form, as a campaign of one title", async ({ page, request }) => {
  const job = await freshJob(request, "Glasshouse Duel");
  const { job: made } = await json(request, `/jobs/${job}`);
  await open(page, `/jobs/${job}/trials/new`);
  const hands = new Hands(page);
  await hands.click(page.getByLabel("What varies"));
  await hands.type("Rig");
  await hands.click(page.getByRole("option", { name: /^Rig ?now / }));
  await hands.click(page.getByRole("group", { name: "Other rigs" }).getByRole("checkbox", { name: "Tansy" }));
  await hands.click(page.getByRole("button", { name: "Begin the campaign" }));
  await page.waitForURL(/\/campaigns\/[0-9a-f-]{36}$/);
  expect(hands.clicks).toBeLessThanOrEqual(5);
  const { campaign, titles } = await json(request, `/campaigns/${page.url().split("/").at(-1)}`);
  expect(titles.map(({ titleId }: { titleId: string }) => titleId)).toEqual([made.titleId]);
  expect(campaign.plan.arms.map(({ name, buildId }: Record<string, string>) => [name, buildId])).toEqual([
    [made.rig, made.buildId],
    ["Tansy", made.buildId],
  ]);
  expect(campaign.plan.rounds).toBe(3);
});

test("best by system: who wins where from trials and campaigns, each with what it rests on", async ({
  page,
  request,
}) => {
  await open(page, "/board");
  await page.getByRole("link", { name: /Best by system/ }).click();
  await page.waitForURL("**/board/best");
  const { best } = await json(request, "/board/best?way=engine");
  expect(best.length).toBeGreaterThan(0);
  const [first] = best;
  const table = page.getByRole("table", { name: `Best for ${first.system} on ${first.rig}` });
  await expect(table.getByRole("row")).toHaveCount(first.rows.length + 1);
  await table.getByRole("link").first().click();
  await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  await open(page, "/board/best?way=power%20mode");
  await expect(page.getByRole("table", { name: "Steady on the least watts" })).toBeVisible();
});

test("from the bench to a first run in three clicks: a title, and its log", async ({ page, request }) => {
  const { rows } = await json(request, "/titles?search=Kite%20Weather");
  await open(page, "/");
  const hands = new Hands(page);
  await hands.click(page.getByLabel("Begin with a title"));
  await hands.click(page.getByRole("option", { name: /^Kite Weather/ }).first());
  await page.waitForURL(/\/jobs\/[0-9a-f-]+\/runs\/new$/);
  await expect(page.getByText("Drop logs here")).toBeVisible();
  await hands.drop([{ name: "first.csv", content: log(21, 55) }]);
  await page.getByRole("region", { name: "Preview" }).waitFor();
  expect(hands.clicks).toBeLessThanOrEqual(3);
  const { job } = await json(request, `/jobs/${page.url().split("/").at(-3)}`);
  expect(job.titleId).toBe(rows[0].id);
  await page.waitForTimeout(200);
  await page.keyboard.press("ControlOrMeta+Enter");
  await page.waitForURL(/\?run=/);
});
