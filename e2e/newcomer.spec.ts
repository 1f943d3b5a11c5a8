import { expect, test, type Locator, type Page } from "@playwright/test";
import { prepareDatabase, startServer, stopServer, type Server } from "../scripts/lib/application.mjs";
import { throwAwayCluster } from "../scripts/lib/cluster.mjs";
import { freePort } from "../scripts/lib/run.mjs";
import { Hands, log } from "./support";

/* A newcomer's whole way, from a store with nothing on it to a closed job: every key or tap is counted. */

const cluster = throwAwayCluster();
let server: Server | null = null;
let address = "";

test.beforeEach(async () => {
  const url = await cluster.start();
  prepareDatabase(url, { empty: true });
  const port = await freePort(3850);
  server = await startServer({ port, url, quiet: true });
  address = `http://127.0.0.1:${port}`;
});
test.afterEach(async () => {
  await stopServer(server);
  cluster.remove();
});

/** A log of a second more each time: none is the same file as another. */
let seconds = 20;
const file = (fps: number) => ({
  name: `walk-${++seconds}.csv`,
  mimeType: "text/csv",
  buffer: Buffer.from(log(seconds, fps)),
});

/** Rates as the plan's order asks for them: without the change, and with it. */
const rates = { before: [52.2, 52.1, 52.3, 52.0], after: [59.8, 59.9, 59.9, 59.8] };

/** Whether a trial's plan has runs left, once the page says either. */
const runsLeft = async (page: Page) => {
  const left = page.getByTestId("left");
  await left
    .or(page.getByRole("button", { name: /^Keep / }))
    .first()
    .waitFor();
  return left.isVisible();
};

/** What is left of a trial's plan, its next run first: whether it has the change. */
const isChanged = async (page: Page) =>
  !/: as it is/.test((await page.getByTestId("left").textContent()) ?? "");

test("from an empty store to a closed job by keys alone", async ({ page }) => {
  test.setTimeout(240_000);
  const hands = new Hands(page);
  const tabTo = async (place: Locator) => {
    for (let k = 0; k < 60; k++) {
      if (await place.evaluate((element) => element === document.activeElement)) return;
      await hands.press("Tab");
    }
    throw new Error("not reached by Tab");
  };
  /** Presses a key that opens the chooser of files. */
  const bring = async (fps: number) => {
    await page
      .getByText(/^Drop logs/)
      .first()
      .waitFor();
    await expect(page.locator("[data-ready]")).toBeVisible();
    // Keys come alive a moment after what they belong to is seen; a person's hand is slower.
    await page.waitForTimeout(200);
    const chooser = page.waitForEvent("filechooser");
    await hands.press("l");
    await (await chooser).setFiles(file(fps));
    await page.getByRole("region", { name: "Preview" }).waitFor();
  };
  page.setDefaultTimeout(20_000);
  // Choosers are caught from the start: asking for the first one takes longer than a key.
  page.on("filechooser", () => {});
  await page.goto(address);
  await page.locator("[data-ready]").waitFor();
  await bring(52.2);
  // Kept without a name: the field that lacks one has the focus.
  await hands.press("ControlOrMeta+Enter");
  await expect(page.getByRole("combobox", { name: "Rig (needed)" })).toBeFocused();
  for (const name of ["Fern", "Tide Mill", "Ovals", "Oriel"]) {
    await hands.type(name);
    if (name !== "Oriel") await hands.press("Tab");
  }
  await hands.press("ControlOrMeta+Enter");
  await page.waitForURL(/\/jobs\/.*\?run=/);
  await expect(page.getByRole("region", { name: "Reading" })).toContainText("Dims");
  const job = new URL(page.url()).pathname;
  console.log(`newcomer by keys, first verdict kept: ${hands.keys} keys`);

  await hands.press("w");
  await page.waitForURL(/\/trials\/new/);
  // Nothing is known of the engine or the device yet: what is switched is named in place.
  await tabTo(page.getByText("Something that isn't listed"));
  await hands.press("Enter");
  await tabTo(page.getByLabel("What it is called"));
  await hands.type("Light model");
  await tabTo(page.getByRole("button", { name: "List it" }));
  await hands.press("Enter");
  await expect(page.getByRole("checkbox", { name: "Light model on" })).toBeChecked();
  await tabTo(page.getByRole("button", { name: "Begin" }));
  await hands.press("Enter");
  await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
  const trial = page.url();
  for (let k = 0; await runsLeft(page); k++) {
    const fps = (await isChanged(page)) ? rates.after[k % 4] : rates.before[k % 4];
    await hands.press("n");
    await page.waitForURL("**/runs/new**");
    await bring(fps);
    await hands.press("ControlOrMeta+Enter");
    await page.waitForURL(trial);
    await expect(page.locator("[data-ready]")).toBeVisible();
  }
  await expect(page.getByTestId("advice")).toContainText(/^Keep/);
  await hands.press("k");
  await expect(page.getByText(/ kept$/).first()).toBeVisible();
  await hands.press("Escape");
  await page.waitForURL(`**${job}`);
  await page.getByRole("region", { name: "Reading" }).waitFor();
  await hands.press("n");
  await page.waitForURL("**/runs/new**");
  await bring(60);
  await hands.press("ControlOrMeta+Enter");
  await page.getByRole("region", { name: "Reading" }).waitFor();
  await hands.press("d");
  await page.getByRole("dialog").waitFor();
  await tabTo(page.getByRole("button", { name: "Close it" }));
  await hands.press("Enter");
  await expect(page.getByRole("list", { name: "Thread" })).toContainText("Closed");
  console.log(`newcomer by keys, job closed: ${hands.keys} keys, ${hands.clicks} clicks`);
  expect(hands.clicks).toBe(0);
  expect(hands.keys).toBeLessThanOrEqual(100);
});

test.describe("on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  test("from an empty store to a closed job by touch", async ({ page }) => {
    test.setTimeout(240_000);
    page.setDefaultTimeout(20_000);
    let taps = 0;
    const tap = async (place: Locator) => {
      await place.tap();
      taps++;
    };
    const button = (name: string | RegExp) => page.getByRole("button", { name }).first();
    const bring = async (fps: number, choose: RegExp) => {
      await expect(page.locator("[data-ready]")).toBeVisible();
      const chooser = page.waitForEvent("filechooser");
      await tap(button(choose));
      await (await chooser).setFiles(file(fps));
      await page.getByRole("region", { name: "Preview" }).waitFor();
    };
    await page.goto(address);
    await page.locator("[data-ready]").waitFor();
    await bring(52.2, /Choose logs/);
    for (const [field, name] of [
      ["Rig (needed)", "Fern"],
      ["Title", "Tide Mill"],
      ["System", "Ovals"],
      ["Engine", "Oriel"],
    ] as const) {
      await tap(page.getByRole("combobox", { name: field }));
      await page.keyboard.type(name);
      await page.keyboard.press("Tab");
    }
    await tap(button(/^Keep this run/));
    await page.waitForURL(/\/jobs\/.*\?run=/);
    console.log(`newcomer by touch, first verdict kept: ${taps} taps`);
    const job = new URL(page.url()).pathname;

    await tap(page.getByRole("link", { name: /trial/i }).first());
    await page.waitForURL(/\/trials\/new/);
    await tap(page.getByText("Something that isn't listed"));
    await tap(page.getByLabel("What it is called"));
    await page.keyboard.type("Light model");
    await tap(button("List it"));
    await expect(page.getByRole("checkbox", { name: "Light model on" })).toBeChecked();
    await tap(button(/^Begin/));
    await page.waitForURL(/\/trials\/[0-9a-f-]{36}$/);
    const trial = page.url();
    for (let k = 0; await runsLeft(page); k++) {
      const fps = (await isChanged(page)) ? rates.after[k % 4] : rates.before[k % 4];
      await tap(page.getByRole("link", { name: /^Bring in/ }));
      await page.waitForURL("**/runs/new**");
      await bring(fps, /Choose|Drop logs/);
      await tap(button(/^Keep this run/));
      await page.waitForURL(trial);
    }
    await tap(button(/^Keep /));
    await expect(page.getByText(/ kept$/).first()).toBeVisible();
    await page.goto(address + job);
    const main = page.getByRole("region", { name: "The run's trace" }).getByTestId("main-action");
    await tap(main.getByRole("link", { name: /confirmation/ }));
    await page.waitForURL("**/runs/new**");
    await bring(60, /Choose|Drop logs/);
    await tap(button(/^Keep this run/));
    await page.waitForURL(/\?run=/);
    await tap(main.getByRole("button", { name: /Close the job/ }));
    await tap(page.getByRole("dialog").getByRole("button", { name: "Close it" }));
    await expect(main).toContainText("Open the job again");
    console.log(`newcomer by touch, job closed: ${taps} taps`);
    expect(taps).toBeLessThanOrEqual(40);
  });
});
