import { expect, test } from "@playwright/test";
import { Hands, log, open } from "./support";

test("from the first screen to a kept verdict on an own device: at most 6 clicks and 30 keys", async ({
  page,
}) => {
  await open(page, "/");
  const hands = new Hands(page);
  await hands.drop([{ name: "sweepers-1.csv", content: log(40 + (Date.now() % 1000) / 50, 60) }]);
  const preview = page.getByRole("region", { name: "Preview" });
  await expect(preview).toContainText("Steady");
  await expect(page.getByTestId("assumed")).toContainText("Judged as a title built for");
  await hands.click(page.getByRole("combobox", { name: "Rig (needed)" }));
  await hands.type("Fern");
  await hands.press("Tab");
  await hands.type("Tide Mill");
  await hands.press("Tab");
  await hands.type("Ovals");
  await hands.press("Tab");
  await hands.type("Oriel");
  await hands.press("ControlOrMeta+Enter");
  await page.waitForURL(/\/jobs\/.*\?run=/);
  await expect(page.getByRole("region", { name: "Reading" })).toContainText("Steady");
  console.log(`first verdict kept: ${hands.clicks} clicks, ${hands.keys} keys`);
  expect(hands.clicks).toBeLessThanOrEqual(6);
  expect(hands.keys).toBeLessThanOrEqual(30);

  // What was named is on the shelf, with what is known of it and nothing else.
  const rigs = await (await page.request.get("/api/v1/rigs?search=Fern")).json();
  expect(rigs.rows[0].spec).toMatchObject({ memoryGb: null, powerModes: [], processor: { clusters: [] } });
  const titles = await (await page.request.get("/api/v1/titles?search=Tide+Mill")).json();
  expect(titles.rows[0]).toMatchObject({ nativeFps: 60, tied: true, system: "Ovals" });

  // A further log of the same goes on with the job that is open.
  await open(page, "/");
  await hands.drop([{ name: "sweepers-2.csv", content: log(41 + (Date.now() % 1000) / 50, 59) }]);
  await expect(preview).toBeVisible();
  await page.getByRole("button", { name: /Of the job in hand: Tide Mill on Fern/ }).click();
  await page.waitForURL(/\/runs\/new$/);
  await expect(preview).toContainText("sweepers-2.csv");
  await page.getByRole("button", { name: /Keep this run/ }).click();
  await page.waitForURL(/\?run=/);
  await expect(page.getByRole("region", { name: "Reading" })).toContainText("59.0");
});

test("what the verdict assumes is changed in place, and the verdict with it", async ({ page }) => {
  await open(page, "/look");
  await page.getByLabel("Log files").setInputFiles({
    name: "thirty.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(log(40, 30)),
  });
  const preview = page.getByRole("region", { name: "Preview" });
  await expect(preview).toContainText("Gutters");
  await page.getByLabel("Rate it was built for").fill("30");
  await expect(preview).toContainText("Steady");
  await page.getByRole("button", { name: /Keep this run/ }).click();
  await expect(page.getByText("A rig needs a name. The rest can come later.")).toBeVisible();
  await expect(page.getByRole("combobox", { name: "Rig (needed)" })).toBeFocused();
  await expect(preview).toContainText("Steady");
});

test("a tally begun on the first screen outlives a reload, and no figure leaves the page", async ({ page }) => {
  await open(page, "/look?way=tally");
  const field = page.getByLabel("Look when it ticks");
  await expect(field).toBeFocused();
  await page.keyboard.type("58");
  await page.keyboard.press("Enter");
  // Typed away from the field: 2 is another place's key elsewhere.
  await page.getByRole("heading", { name: "A first look" }).click();
  await page.keyboard.type("2");
  await expect(page).toHaveURL(/\/look/);
  await expect(field).toHaveValue("2");
  await page.keyboard.press("Backspace");
  for (const reading of ["59", "60", "57"]) {
    await page.keyboard.type(reading);
    await page.keyboard.press("Enter");
  }
  await page.reload();
  await page.locator("[data-ready]").waitFor();
  await expect(page.getByRole("list", { name: "Readings" }).getByRole("listitem")).toHaveText([
    "58",
    "59",
    "60",
    "57",
  ]);
  await page.getByRole("combobox", { name: "Rig (needed)" }).fill("Fern");
  await page.getByRole("button", { name: /Keep this tally/ }).click();
  await page.waitForURL(/\/jobs\/.*\?run=/);
  await open(page, "/look?way=tally");
  await expect(page.getByRole("list", { name: "Readings" })).toHaveCount(0);
});

test("a log dropped on the kit's pages is read as well", async ({ page }) => {
  await open(page, "/kit/systems");
  await new Hands(page).drop([{ name: "a.csv", content: log(15, 60) }]);
  await page.waitForURL(/\/look$/);
  await expect(page.getByRole("region", { name: "Preview" })).toBeVisible();
});
