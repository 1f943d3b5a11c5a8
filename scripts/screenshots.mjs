// npm run screenshots: one picture of each main view, from the demo data, into docs/screenshots/.
import { mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { ensureBuild, prepareDatabase, startServer, stopServer } from "./lib/application.mjs";
import { launchOptions } from "./lib/browser.mjs";
import { throwAwayCluster } from "./lib/cluster.mjs";
import { ensureChromium, ensurePackages, ensurePostgres } from "./lib/install.mjs";
import { freePort, root, say } from "./lib/run.mjs";

ensurePostgres();
ensureChromium();
ensurePackages();
const { chromium } = await import("@playwright/test");
const folder = join(root, "docs", "screenshots");
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
const database = throwAwayCluster();
let server = null;
try {
  const url = await database.start();
  prepareDatabase(url, { demo: true });
  ensureBuild();
  const port = await freePort(3610);
  server = await startServer({ port, url, quiet: true });
  const address = `http://127.0.0.1:${port}`;
  const browser = await chromium.launch(launchOptions());
  const context = await browser.newContext({ baseURL: address, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const { rows } = await (await page.request.get("/api/v1/jobs")).json();
  const job = (title) => `/jobs/${rows.find((row) => row.title === title).id}`;

  const choose = async (name, option) => {
    await page.getByRole("main").getByRole("combobox", { name, exact: true }).click();
    await page.getByRole("option", { name: option, exact: true }).click();
  };

  /** name, path, what to do before the picture, theme */
  const views = [
    ["bench", "/"],
    ["jobs", "/jobs"],
    ["job", job("Copper Regatta"), async () => page.keyboard.press("ArrowUp")],
    ["job-overlay-daylight", job("The Drowned Gallery"), async () => {
      await page.keyboard.press("ArrowUp");
      await page.keyboard.press("o");
    }, "daylight"],
    ["comparison", job("Copper Regatta"), async () => {
      for (let k = 0; k < 9; k++) await page.keyboard.press("ArrowUp");
      await page.getByRole("list", { name: "Thread" }).getByRole("button").last().click({ modifiers: ["Shift"] });
      await page.getByText(/^(Better|Worse)/).waitFor({ timeout: 20_000 });
      await page.getByText(/Noise floor/).scrollIntoViewIfNeeded();
    }],
    ["new-run", `${job("The Orchard Ledger")}/runs/new`, async () => {
      await page.getByLabel("Log file").setInputFiles(join(root, "samples", "areas-first-visit.csv"));
      await page.getByRole("region", { name: "Preview" }).waitFor();
    }],
    ["tally", `${job("The Orchard Ledger")}/runs/new`, async () => {
      await page.getByRole("tab", { name: "Tally by eye" }).click();
      for (const reading of ["30", "30", "28", "30", "29", "30"]) {
        await page.getByLabel(/Look when it ticks/).fill(reading);
        await page.keyboard.press("Enter");
      }
    }],
    ["rigs", "/kit/rigs"],
    ["titles", "/kit/titles?filter=hard"],
    ["rig-form-daylight", "/kit/rigs/new", undefined, "daylight"],
    ["engine-daylight", "/kit/engines", async () => {
      await page.getByRole("link", { name: "Harrow" }).click();
      await page.getByText("Back ends").waitFor();
    }, "daylight"],
    ["house-rules", "/kit/rules", async () => {
      await page.getByRole("link", { name: "Lending desk" }).click();
      await page.getByLabel(/^Steady: speed at least/).fill("99.9");
      await page.getByRole("button", { name: "See what would change" }).click();
      await page.getByText(/would change/).last().scrollIntoViewIfNeeded();
    }],
    ["preflight", "/kit/preflight"],
    ["planner", "/kit/planner", async () => {
      await choose("System", "Satchel");
      await choose("Display", "Tansy, own screen");
      await choose("Beside", "Dovecote, television");
    }],
    ["planner-two-screens-daylight", "/kit/planner", async () => {
      await choose("System", "Twofold");
      await choose("Screens", "side by side");
    }, "daylight"],
  ];
  for (const [name, path, act, theme = "evening"] of views) {
    await context.addCookies([{ name: "theme", value: theme, url: address }]);
    await page.goto(path);
    await page.locator("[data-ready]").waitFor();
    await page.waitForLoadState("networkidle");
    await act?.();
    await page.waitForTimeout(700);
    await page.screenshot({ path: join(folder, `${name}.png`) });
    say(`docs/screenshots/${name}.png`);
  }
  await browser.close();
} finally {
  await stopServer(server);
  database.remove();
}
