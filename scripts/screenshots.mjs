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

  /** name, path, what to do before the picture, theme */
  const views = [
    ["bench", "/"],
    ["jobs", "/jobs"],
    ["job", job("Copper Regatta"), async () => page.keyboard.press("ArrowUp")],
    ["job-overlay-daylight", job("The Drowned Gallery"), async () => {
      await page.keyboard.press("ArrowUp");
      await page.keyboard.press("o");
    }, "daylight"],
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
    ["kit", "/kit"],
    ["rig-form-daylight", "/kit/rigs/new", undefined, "daylight"],
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
