// The import of a million rows, and a video measured, through the real interface: time in the worker, and the
// longest task of the page.
import { chromium } from "@playwright/test";
import { writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { launchOptions } from "../lib/browser.mjs";
import { line, longLog } from "./timing";

const address = process.env.LAMP_ADDRESS!;
const file = join(tmpdir(), "velvet-lamp-bench.csv");
const rowsOf = longLog(1_000_000);
const browser = await chromium.launch(launchOptions());
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const { rows } = await (await page.request.get(`${address}/api/v1/jobs`)).json();
const { id: job, rigId } = rows.find((row: { title: string }) => row.title === "The Orchard Ledger");
const { version } = await (await page.request.get(`${address}/api/v1/bench`)).json();
await page.request.put(`${address}/api/v1/bench`, {
  data: { rigId, jobId: job },
  headers: { "if-match": `"${version}"` },
});

const longest = (tasks: number[]) =>
  tasks.length === 0 ? "none" : `${tasks.length}, longest ${Math.max(...tasks).toFixed(0)} ms`;
/** Notes every task of the page that holds it for over 50 ms, from now on. */
const watch = () =>
  page.evaluate(() => {
    const seen = ((window as { longTasks?: number[] }).longTasks = [] as number[]);
    new PerformanceObserver((list) => list.getEntries().forEach(({ duration }) => seen.push(duration))).observe(
      { type: "longtask" },
    );
  });
/** What was noted since it was asked for last. */
const noted = () => page.evaluate(() => (window as { longTasks?: number[] }).longTasks!.splice(0));
console.log("Browser, a log of 1,000,000 rows");
for (let round = 1; round <= 3; round++) {
  await page.goto(`${address}/jobs/${job}/runs/new`);
  await page.locator("[data-ready]").waitFor();
  // A file that was kept before would be refused.
  writeFileSync(file, `${rowsOf}# ${Date.now()}\n`);
  await watch();
  const start = performance.now();
  await page.getByLabel("Log files").setInputFiles(file);
  await page.getByRole("region", { name: "Preview" }).waitFor();
  const read = performance.now() - start;
  const reading = await noted();
  const kept = performance.now();
  await page.getByRole("button", { name: /Keep this run/ }).click();
  await page.waitForURL(/\?run=/);
  await page.locator("[data-testid=trace][data-drawn=yes]").waitFor();
  const drawn = performance.now() - kept;
  const tasks = await noted();
  line(`Round ${round}: chosen to preview (under 3 s)`, `${(read / 1000).toFixed(2)} s`);
  line(`Round ${round}: kept, judged and drawn`, `${(drawn / 1000).toFixed(2)} s`);
  line(`Round ${round}: page tasks over 50 ms while reading (none is wanted)`, longest(reading));
  line(`Round ${round}: page tasks over 50 ms while keeping and opening the job`, longest(tasks));
  for (const key of ["+", "+", "+", "ArrowRight", "0"]) {
    await page.keyboard.press(key);
    await page.waitForTimeout(120);
  }
  const zooming = await noted();
  line(`Round ${round}: page tasks over 50 ms while zooming`, longest(zooming));
}
console.log("Browser, the page of an engine with 60 settings");
const { job: jobRow } = await (await page.request.get(`${address}/api/v1/jobs/${job}`)).json();
const engine = await (await page.request.get(`${address}/api/v1/engines/${jobRow.engineId}`)).json();
const large = await page.request.post(`${address}/api/v1/engines`, {
  data: {
    name: `Trestle ${Date.now()}`,
    systemIds: engine.systemIds,
    notes: "",
    backEnds: [],
    builds: [{ version: "1", branch: "stable", date: null, notes: "" }],
    catalogue: Array.from({ length: 60 }, (_, n) => ({
      ...engine.catalogue[0],
      key: `setting_${n}`,
      label: `Setting number ${n}`,
      linked: [],
    })),
  },
});
const { id: engineId } = await large.json();
for (let round = 1; round <= 5; round++) {
  const start = performance.now();
  await page.goto(`${address}/kit/engines/${engineId}`);
  await page.locator("[data-ready]").waitFor();
  await page.getByRole("searchbox", { name: "Search the settings" }).waitFor();
  const ready = performance.now() - start;
  const nodes = await page.evaluate(() => document.querySelectorAll("*").length);
  line(
    `Round ${round}: asked for to answering keys (under 1 s, under 1,500 nodes)`,
    `${(ready / 1000).toFixed(2)} s, ${nodes} nodes`,
  );
}
console.log("Browser, the demo's video of 12 s at 480 × 270, 60 a second");
for (let round = 1; round <= 3; round++) {
  await page.goto(`${address}/jobs/${job}/runs/new`);
  await page.locator("[data-ready]").waitFor();
  await page.getByRole("tab", { name: "From a video" }).click();
  await watch();
  await page.getByLabel("Video file").setInputFiles("samples/captures/lamp-room.webm");
  await page.getByRole("button", { name: /^Measure it/ }).click();
  const start = performance.now();
  await page.getByRole("button", { name: /^Measure again/ }).waitFor();
  line(`Round ${round}: pressed to measured`, `${((performance.now() - start) / 1000).toFixed(2)} s`);
  line(`Round ${round}: page tasks over 50 ms meanwhile (none is wanted)`, longest(await noted()));
}
await browser.close();
