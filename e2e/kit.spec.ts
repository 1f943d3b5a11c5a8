import { expect, test, type Page } from "@playwright/test";
import { open } from "./support";

/** Name of what has the focus, as a reader would say it. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const at = document.activeElement as HTMLInputElement | null;
    return (at?.getAttribute("aria-label") ?? at?.labels?.[0]?.innerText ?? at?.innerText ?? "")
      .replace(/\s+/g, " ")
      .trim();
  });

/** Presses Tab until what is named has the focus; nothing but keys. */
async function tabTo(page: Page, name: string | RegExp) {
  for (let k = 0; k < 250; k++) {
    const now = await focused(page);
    if (typeof name === "string" ? now === name : name.test(now)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`Tab never reached ${name}; it is at “${await focused(page)}”.`);
}
async function type(page: Page, name: string | RegExp, text: string) {
  await tabTo(page, name);
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type(text);
}
/** Opens a choice by key and takes an option by its first letters. */
async function pick(page: Page, name: string, option: string) {
  await tabTo(page, name);
  await page.keyboard.press("Enter");
  await page.getByRole("listbox").waitFor();
  await page.keyboard.type(option, { delay: 30 });
  await page.keyboard.press("Enter");
  await page.getByRole("listbox").waitFor({ state: "detached" });
}
async function press(page: Page, name: string | RegExp, key = "Enter") {
  await tabTo(page, name);
  await page.keyboard.press(key);
}

test("a rig, a two-screen system, a title and an engine with twelve settings by keyboard alone, then used in a run", async ({
  page,
}) => {
  test.setTimeout(240_000);
  await open(page, "/kit/rigs/new");
  await type(page, "Name", "Wicker");
  await type(page, "Kind of device", "clamshell handheld");
  await type(page, /^Refresh/, "60");
  await type(page, /^or its charge/, "5000");
  await type(page, /^at a voltage of/, "3,85");
  await press(page, "Keep the rig");
  await page.waitForURL("**/kit/rigs");
  await expect(page.getByRole("table", { name: "Rigs" })).toContainText("Wicker");

  await open(page, "/kit/systems/new");
  await type(page, "Name", "Lantern Twin");
  await press(page, "Screen");
  await type(page, /^Width of screen 1/, "400");
  await type(page, /^Height of screen 1/, "240");
  await page.keyboard.press("Shift+Tab");
  await page.keyboard.press("Shift+Tab");
  await press(page, "Screen");
  await type(page, /^Width of screen 2/, "320");
  await type(page, /^Height of screen 2/, "240");
  await type(page, /^Rate 1/, "60");
  await press(page, "Keep the system");
  await page.waitForURL("**/kit/systems");
  await expect(page.getByRole("table", { name: "Systems" })).toContainText("400×240 + 320×240");

  await open(page, "/kit/titles/new");
  await type(page, "Name", "Moth Parade");
  await pick(page, "System", "Lantern");
  await type(page, /^Own rate/, "30");
  await pick(page, "Hardness", "hard");
  await press(page, "Keep the title");
  await page.waitForURL("**/kit/titles");

  await open(page, "/kit/engines/new");
  await type(page, "Name", "Osier");
  await press(page, "runs Lantern Twin", " ");
  await type(page, "Version 1", "1.0");
  const settings: [key: string, label: string, kind: "switch" | "number" | "choice"][] = Array.from(
    { length: 12 },
    (_, i) => [`setting_${i + 1}`, `Setting number ${i + 1}`, (["switch", "number", "choice"] as const)[i % 3]],
  );
  for (const [index, [key, label, kind]] of settings.entries()) {
    const n = index + 1;
    await press(page, "Setting");
    await type(page, `Key ${n}`, key);
    await type(page, `Label ${n}`, label);
    if (kind !== "switch") await pick(page, `Type ${n}`, kind);
    if (kind === "number") await type(page, `Default ${n}`, "3");
    if (kind === "choice") {
      await type(page, `Default ${n}`, "plain");
      await type(page, `Choices ${n}`, "plain, fancy");
    }
  }
  await press(page, "Keep the engine");
  await page.waitForURL("**/kit/engines");
  await expect(page.getByRole("table", { name: "Engines" })).toContainText("Osier");

  await open(page, "/jobs/new");
  await pick(page, "Rig", "Wicker");
  await pick(page, "Title", "Moth");
  await pick(page, "Engine and build", "Osier");
  await press(page, "Open the job");
  await page.getByText("No run yet.").waitFor();
  await page.keyboard.press("n");
  await page.getByRole("heading", { name: "New run" }).waitFor();
  await pick(page, "Setting number 3", "fancy");
  await press(page, "All done");
  await page.keyboard.press("Home");
  await tabTo(page, "From logs");
  await page.keyboard.press("ArrowRight");
  await tabTo(page, /^Look when it ticks/);
  for (const reading of ["30", "30", "29"]) {
    await page.keyboard.type(reading);
    await page.keyboard.press("Enter");
  }
  await press(page, /^Keep this tally/);
  await page.waitForURL(/\?run=/);
  const job = /jobs\/([^?]+)/.exec(page.url())![1];
  const { runs } = await (await page.request.get(`/api/v1/jobs/${job}`)).json();
  expect(runs[0].settings).toMatchObject({
    setting_1: false,
    setting_2: 3,
    setting_3: "fancy",
    setting_12: "plain",
  });
  expect(Object.keys(runs[0].settings)).toHaveLength(12);
  expect(runs[0].preflight.length).toBeGreaterThan(5);
  expect(runs[0].preflight.every(({ ticked }: { ticked: boolean }) => ticked)).toBe(true);
  const rig = (await (await page.request.get("/api/v1/bench")).json()).rig;
  expect(rig).toMatchObject({ name: "Wicker", spec: { batteryWh: 19.25 } });
});

test("the planner's figures on screen: 320×240 on a 16:10 screen covers 83.3 %, ×4 is the useful scale (common practice)", async ({
  page,
}) => {
  await open(page, "/kit/planner");
  const pickByMouse = async (name: string, option: string) => {
    await page.getByRole("main").getByRole("combobox", { name, exact: true }).click();
    await page.getByRole("option", { name: option, exact: true }).click();
  };
  await pickByMouse("System", "Cinder 32");
  await pickByMouse("Display", "Tansy, own screen");
  const row = (scale: string) =>
    page
      .getByRole("table")
      .first()
      .getByRole("row")
      .filter({ has: page.getByRole("cell", { name: scale, exact: true }) });
  await expect(page.getByText("Covers 83.3 %")).toBeVisible();
  await expect(row("×4")).toContainText("useful");
  await expect(row("×6")).toContainText("1920×1440");
  await expect(row("×2")).toContainText("4×");
  await expect(page.getByTestId("plan-sentence")).toHaveText(/^Try ×4 first \(1280×960\)/);
  await pickByMouse("System", "Satchel");
  await pickByMouse("Beside", "Dovecote, television");
  await expect(page.getByTestId("plan-sentence").nth(1)).toContainText(
    "Try ×8 first (3840×2160): it meets the 2160 lines it is shown at exactly",
  );
  await pickByMouse("System", "Twofold");
  await pickByMouse("Screens", "side by side");
  await expect(page).toHaveURL(/layout=side/);
  await page.reload();
  await expect(row("×2").first()).toContainText("768×480 + 640×480");
});

test("hostile catalogues are refused with the path of the fault, or shown harmlessly", async ({ page }) => {
  await open(page, "/kit/engines");
  await page.getByRole("link", { name: "Tender" }).click();
  await page.getByText("Read a catalogue file").waitFor();
  const out = await (
    await page.request.get(`/api/v1/engines/${/engines\/([^?]+)/.exec(page.url())![1]}/catalogue`)
  ).json();
  const offer = (text: string) =>
    page
      .getByLabel("Catalogue file")
      .setInputFiles({ name: "catalogue.json", mimeType: "application/json", buffer: Buffer.from(text) });
  const alert = page.getByRole("main").getByRole("alert");
  await offer("x".repeat(10 * 1024 * 1024));
  await expect(alert).toContainText("The file is 10.0 MB");
  await offer("[".repeat(3000) + "]".repeat(3000));
  await expect(alert).toContainText("nested more than 8 deep");
  await offer(JSON.stringify({ ...out, settings: [{ ...out.settings[0], default: "many" }] }));
  await expect(alert).toContainText("settings.0.default: This setting takes a number.");
  await offer(JSON.stringify(out).replace('"engine"', '"engine":"x","engine"'));
  await expect(alert).toContainText("stands twice");
  // A script in a label is text like any other.
  await offer(
    JSON.stringify({
      ...out,
      settings: [
        {
          ...out.settings[0],
          label: "<img src=x onerror=\"document.title='caught'\"><script>document.title='caught'</script>",
        },
        ...out.settings.slice(1),
      ],
    }),
  );
  await page.waitForURL("**/kit/engines");
  await page.getByRole("link", { name: "Tender" }).click();
  await expect(page.getByRole("button", { name: /^Edit <img src=x/ })).toBeVisible();
  await expect(page).toHaveTitle(/Velvet Lamp$/);
  await offer(JSON.stringify(out));
  await page.waitForURL("**/kit/engines");
});

test("lists: search, sort, filter, choose many by key, and undo", async ({ page }) => {
  await open(page, "/kit/titles");
  const table = page.getByRole("table", { name: "Titles" });
  await page.keyboard.press("/");
  await page.keyboard.type("gallery");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/search=gallery/);
  await expect(table.getByRole("row")).toHaveCount(6);
  await table.getByRole("button", { name: "Own rate" }).click();
  await expect(table.getByRole("row").nth(1)).toContainText("The Drowned Gallery");
  await table.getByRole("row").nth(1).focus();
  await page.keyboard.press(" ");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press(" ");
  await page.getByRole("button", { name: "Retire 2" }).click();
  await expect(table.getByRole("row")).toHaveCount(4);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(table.getByRole("row")).toHaveCount(6);
  await table.getByRole("row").nth(1).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("The Drowned Gallery");
  await page.goBack();
  await expect(page).toHaveURL(/search=gallery/);
  await page.goto("/kit/titles?search=nothing%20like%20it");
  await expect(page.getByText("No title matches.")).toBeVisible();
});

test("what is typed and not kept is there again when the form is opened anew", async ({ page }) => {
  await open(page, "/kit/systems/new");
  await page.getByLabel("Name").fill("Half Typed");
  await page.getByRole("navigation", { name: "Places" }).getByRole("link", { name: "Jobs" }).click();
  await page.getByRole("heading", { name: "Jobs" }).waitFor();
  await open(page, "/kit/systems/new");
  await expect(page.getByLabel("Name")).toHaveValue("Half Typed");
  await page.getByRole("button", { name: "Forget it" }).click();
  await expect(page.getByLabel("Name")).toHaveValue("");
});

test("a driver update is a revision; other thresholds are shown before they judge", async ({ page }) => {
  await open(page, "/kit/rigs");
  await page.getByRole("link", { name: "Shale" }).click();
  await page.getByLabel("Driver version").fill("22.2");
  await page.getByLabel("What changed").fill("driver 22.2");
  await page.getByRole("button", { name: "Keep the rig" }).click();
  await page.waitForURL("**/kit/rigs");
  await page.getByRole("link", { name: "Shale" }).click();
  await expect(page.getByText("Revision 2, driver 22.2")).toBeVisible();

  await open(page, "/kit/rules");
  await page.getByRole("link", { name: "Lending desk" }).click();
  await page.getByLabel(/^Steady: speed at least/).fill("99.95");
  await page.getByRole("button", { name: "See what would change" }).click();
  await expect(page.getByText(/\d+ of \d+ runs would change/)).toBeVisible();
  await page.getByRole("button", { name: "Forget it" }).isVisible();
});
