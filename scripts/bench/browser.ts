// The import of a million rows through the real interface: time in the worker, and the longest task of the page.
import { chromium } from "@playwright/test";
import { writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { launchOptions } from "../lib/browser.mjs";
import { line, longLog } from "./timing";

const address = process.env.LAMP_ADDRESS!;
const file = join(tmpdir(), "velvet-lamp-bench.csv");
writeFileSync(file, longLog(1_000_000));
const browser = await chromium.launch(launchOptions());
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const { rows } = await (await page.request.get(`${address}/api/v1/jobs`)).json();
const { id: job, rigId } = rows.find((row: { title: string }) => row.title === "The Orchard Ledger");
await page.request.put(`${address}/api/v1/bench`, { data: { rigId } });

const longest = (tasks: number[]) =>
  tasks.length === 0 ? "none" : `${tasks.length}, longest ${Math.max(...tasks).toFixed(0)} ms`;
console.log("Browser, a log of 1,000,000 rows");
for (let round = 1; round <= 3; round++) {
  await page.goto(`${address}/jobs/${job}/runs/new`);
  await page.locator("[data-ready]").waitFor();
  await page.evaluate(() => {
    const seen = ((window as { longTasks?: number[] }).longTasks = [] as number[]);
    new PerformanceObserver((list) => list.getEntries().forEach(({ duration }) => seen.push(duration))).observe(
      { type: "longtask" },
    );
  });
  const start = performance.now();
  await page.getByLabel("Log files").setInputFiles(file);
  await page.getByRole("region", { name: "Preview" }).waitFor();
  const read = performance.now() - start;
  const reading = await page.evaluate(() => (window as { longTasks?: number[] }).longTasks!.splice(0));
  const kept = performance.now();
  await page.getByRole("button", { name: /Keep this run/ }).click();
  await page.waitForURL(/\?run=/);
  await page.locator("[data-testid=trace][data-drawn=yes]").waitFor();
  const drawn = performance.now() - kept;
  const tasks = await page.evaluate(() => (window as { longTasks?: number[] }).longTasks!);
  line(`Round ${round}: chosen to preview (under 3 s)`, `${(read / 1000).toFixed(2)} s`);
  line(`Round ${round}: kept, judged and drawn`, `${(drawn / 1000).toFixed(2)} s`);
  line(`Round ${round}: page tasks over 50 ms while reading (none is wanted)`, longest(reading));
  line(`Round ${round}: page tasks over 50 ms while keeping and opening the job`, longest(tasks));
  await page.evaluate(() => ((window as { longTasks?: number[] }).longTasks!.length = 0));
  for (const key of ["+", "+", "+", "ArrowRight", "0"]) {
    await page.keyboard.press(key);
    await page.waitForTimeout(120);
  }
  const zooming = await page.evaluate(() => (window as { longTasks?: number[] }).longTasks!);
  line(`Round ${round}: page tasks over 50 ms while zooming`, longest(zooming));
}
await browser.close();
