import { expect, test } from "@playwright/test";
import { readFileSync, rmSync, truncateSync, writeFileSync } from "node:fs";
import { choose, freshJob, open } from "./support";

// An independent calculation in another language, beside the measured logs.
const table = readFileSync("samples/README.md", "utf8")
  .split("\n")
  .filter((line) => /^\| [a-z0-9-]+\.csv/.test(line))
  .map((line) =>
    line
      .split("|")
      .slice(1, -1)
      .map((cell) => cell.trim()),
  );

test.describe("measured logs through the real interface", () => {
  let job: string;
  test.beforeAll(async ({ request }) => {
    // Counted by their frames: a title free of its rate shows fps large.
    job = await freshJob(request, "Basalt Choir");
  });
  test("every one kept, and shown as the table has it", async ({ page }) => {
    test.setTimeout(180_000);
    expect(table.length).toBeGreaterThan(10);
    for (const [file, frames, , fps, median, p99, percentile, worstMean, worstTime] of table) {
      await open(page, `/jobs/${job}/runs/new`);
      const putOn = page.getByRole("button", { name: /on the bench/ });
      if (await putOn.isVisible()) await putOn.click();
      await page.getByLabel("Log files").setInputFiles(`samples/${file}`);
      await page.getByRole("button", { name: /Keep this run/ }).click();
      await page.waitForURL(/\?run=/);
      const reading = page.getByRole("region", { name: "Reading" });
      // What is shown is rounded; half of the last digit shown is the most it may differ.
      const shows = async (name: string, value: string, digits: number) => {
        const text = await reading
          .locator("div", { has: page.getByText(name, { exact: true }) })
          .locator("dd")
          .last()
          .textContent();
        expect(Math.abs(parseFloat(text!) - Number(value)), `${file}, ${name}`).toBeLessThanOrEqual(
          0.5001 * 10 ** -digits,
        );
      };
      await expect(reading).toContainText(`${Number(fps).toFixed(2)} fps of`);
      await shows("Median frame", median, 2);
      await shows("99 % frame", p99, 2);
      await shows("1 % low, percentile", percentile, 1);
      await shows("1 % low, worst mean", worstMean, 1);
      await shows("1 % low, worst time", worstTime, 1);
      await expect(reading).toContainText(Number(frames).toLocaleString("en-GB"));
      // To 4 decimals: what the database keeps, as the API gives it.
      const id = new URL(page.url()).searchParams.get("run");
      const { runs } = await (await page.request.get(`/api/v1/jobs/${job}`)).json();
      const { summary } = runs.find((run: { id: string }) => run.id === id);
      // The table is rounded at its fourth digit, and a kept frame time to Float32 (1e-5 of 200 ms).
      for (const [kept, outside] of [
        [summary.averageFps, fps],
        [summary.p99FrameTimeMs, p99],
        [summary.lows.worstTime.one, worstTime],
        [summary.lows.worstMean.one, worstMean],
      ]) {
        expect(Math.abs(kept - Number(outside)), file).toBeLessThan(0.00007);
      }
    }
  });
});

test.describe("bad input, nothing lost", () => {
  let job: string;
  test.beforeAll(async ({ request }) => {
    job = await freshJob(request, "Basalt Choir");
  });
  test.beforeEach(async ({ page }) => {
    await open(page, `/jobs/${job}/runs/new`);
    const putOn = page.getByRole("button", { name: /on the bench/ });
    if (await putOn.isVisible()) await putOn.click();
    await expect(page.getByText("Drop logs here")).toBeVisible();
  });
  const alert = (page: import("@playwright/test").Page) => page.getByRole("main").getByRole("alert");
  const frames = (n: number) => Array.from({ length: n }, (_, i) => `${(i + 1) * 20},20`).join("\n");

  test("what can't be a log says why in place, and the next file is read", async ({ page }) => {
    for (const [content, says] of [
      ["", "The file is empty"],
      ["frame time ms\n", "a header and no rows"],
      [Buffer.from(Array.from({ length: 5000 }, (_, i) => (i * 37) % 256)), "isn't text"],
      ["apples,pears\n1,2\n", "No column looks like"],
    ] as const) {
      await choose(page, "log.csv", content);
      await expect(alert(page)).toContainText(says);
      await alert(page).getByRole("button", { name: "Put it away" }).click();
    }
    await choose(page, "log.csv", `frame time ms\n${frames(60)}`.replaceAll(/\d+,/g, ""));
    await expect(page.getByRole("region", { name: "Preview" })).toContainText("50.00");
  });
  test("negative times and NaN: the lines are named, and the rows can be left out", async ({ page }) => {
    await choose(page, "log.csv", `frame time ms\n${"20\n".repeat(100)}-5\nNaN\n${"20\n".repeat(100)}`);
    await expect(alert(page)).toContainText("lines 102, 103");
    await page.getByRole("button", { name: "Leave those 2 rows out" }).click();
    await expect(page.getByRole("region", { name: "Preview" })).toContainText("50.00");
  });
  test("two logs glued together: one is chosen", async ({ page }) => {
    await choose(
      page,
      "log.csv",
      `elapsed ms,frame time ms\n${frames(60)}\nelapsed ms,frame time ms\n${frames(80)}\n`,
    );
    await expect(alert(page)).toContainText("The clock starts again at line 63");
    await page.getByRole("button", { name: "Read log 2" }).click();
    await expect(page.getByRole("region", { name: "Preview" })).toContainText("80");
  });
  test("a column taken for the wrong thing is corrected, and the figures follow", async ({ page }) => {
    await choose(page, "log.csv", `engine ms,frame time ms\n${"25,20\n".repeat(120)}`);
    const preview = page.getByRole("region", { name: "Preview" });
    await expect(preview).toContainText("50.00");
    await preview.getByRole("combobox", { name: "What engine ms is" }).click();
    await page.getByRole("option", { name: "frame time", exact: true }).click();
    await expect(preview).toContainText("40.00");
  });
  test("a missing unit is judged and shown for confirming", async ({ page }) => {
    await choose(page, "log.csv", `frametime\n${"16667\n".repeat(120)}`);
    await expect(page.getByRole("region", { name: "Preview" })).toContainText("judged from its values: us");
  });
  test("two gigabytes are refused by size, unread, with the limit said", async ({ page }, info) => {
    const huge = info.outputPath("huge.csv");
    writeFileSync(huge, "frame time ms\n");
    truncateSync(huge, 2 * 1024 ** 3);
    await page.getByLabel("Log files").setInputFiles(huge);
    await expect(alert(page)).toContainText("The file is 2,048 MB; logs up to 512 MB are read.");
    rmSync(huge);
  });
  test("a long read shows progress, can be cancelled, and leaves nothing", async ({ page }) => {
    await choose(page, "long.csv", `frame time ms\n${"16.667\n".repeat(3_000_000)}`);
    await expect(page.getByRole("progressbar")).toBeVisible();
    await page.getByRole("button", { name: "Cancel" }).click();
    await expect(page.getByText("Drop logs here")).toBeVisible();
    const { runs } = await (await page.request.get(`/api/v1/jobs/${job}`)).json();
    expect(runs).toEqual([]);
  });
  test("an import that the server refuses leaves no half run, and the log stays", async ({ page }) => {
    await page.route("**/api/v1/runs", (route) => route.abort());
    await choose(page, "log.csv", `frame time ms\n${"20\n".repeat(200)}`);
    await page.getByRole("button", { name: /Keep this run/ }).click();
    await expect(alert(page)).toContainText("doesn't answer");
    await page.unroute("**/api/v1/runs");
    await page.getByRole("button", { name: /Keep this run/ }).click();
    await page.waitForURL(/\?run=/);
    const { runs } = await (await page.request.get(`/api/v1/jobs/${job}`)).json();
    expect(runs).toHaveLength(1);
  });
});
