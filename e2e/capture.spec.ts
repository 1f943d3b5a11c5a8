import { readFileSync } from "node:fs";
import { spawnSync } from "node:child_process";
import { expect, test } from "@playwright/test";
import { freshJob, onTheBench, open } from "./support";

const file = "samples/captures/lamp-room.webm";
const truth = JSON.parse(readFileSync(`${file}.json`, "utf8"));

test("from a dropped video to its verdict, by the truth that it was drawn from; the counter's lie is measured", async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  const job = await freshJob(request, "Quiet Machines");
  await open(page, `/jobs/${job}/runs/new`);
  await onTheBench(page);
  await page.getByRole("tab", { name: "From a video" }).click();
  await page.getByText("Drop a video of the screen here.").waitFor();
  // Nothing of the video leaves the page: only what was measured does.
  const sent: number[] = [];
  page.on("request", (asked) => sent.push(asked.postDataBuffer()?.length ?? 0));
  await page.getByLabel("Video file").setInputFiles(file);
  await expect(page.getByText("480 × 270")).toBeVisible();
  // The counter's box is drawn by the mouse, and put right by keys.
  const picture = page.getByRole("img", { name: "The video's picture at the chosen moment" });
  const { x, y, width, height } = (await picture.boundingBox())!;
  await page.mouse.move(x + (10 / 480) * width, y + (7 / 270) * height);
  await page.mouse.down();
  await page.mouse.move(x + (115 / 480) * width, y + (30 / 270) * height, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByLabel("Counter, width, pixels")).toHaveValue(/^10[3-7]$/);
  await page.getByLabel("Counter, left, pixels").fill("8");
  await page.getByLabel("Counter, top, pixels").fill("6");
  await picture.focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("slider", { name: "Moment of the video" })).toHaveAttribute(
    "aria-valuenow",
    "17",
  );
  await page.getByLabel("What is marked").fill("the lamp room");
  await page.getByRole("button", { name: "Begins here" }).click();
  await page.getByRole("slider", { name: "Moment of the video" }).press("End");
  await page.getByRole("button", { name: "Ends here" }).click();
  await page.getByRole("button", { name: /^Measure it/ }).click();
  const preview = page
    .getByRole("region", { name: "Preview" })
    .or(page.locator("section", { hasText: "Keep this run" }));
  await expect(preview.first()).toContainText("Measured from a video of 60 pictures a second", {
    timeout: 60_000,
  });
  await expect(preview.first()).toContainText(/The counter disagrees: it says 60\.0 fps, the pictures 40\.\d/);
  await page.getByRole("button", { name: /Keep this run/ }).click();
  await page.waitForURL((url) => !url.pathname.endsWith("/runs/new"));
  const { runs } = await (await request.get(`/api/v1/jobs/${job}`)).json();
  const [run] = runs;
  expect(run).toMatchObject({ source: "capture", capture: { capturedFrames: 720, counterDisagrees: true } });
  expect(Math.abs(run.summary.averageFps / truth.averageFps - 1)).toBeLessThan(0.003);
  expect(Math.abs(run.summary.frames - truth.frames)).toBeLessThanOrEqual(2);
  expect(Math.max(...sent)).toBeLessThan(30_000);
  await expect(page.getByRole("region", { name: "Reading" })).toContainText("Measured from a video");
});

test("a file that holds no picture is refused in a sentence, and so it is at a terminal", async ({
  page,
  request,
}) => {
  const job = await freshJob(request, "Quiet Machines");
  await open(page, `/jobs/${job}/runs/new`);
  await onTheBench(page);
  await page.getByRole("tab", { name: "From a video" }).click();
  await page.getByText("Drop a video of the screen here.").waitFor();
  await page.getByLabel("Video file").setInputFiles({
    name: "notes.mp4",
    mimeType: "video/mp4",
    buffer: Buffer.from("this is no video at all"),
  });
  await expect(page.getByRole("main").getByRole("alert")).toContainText(
    "notes.mp4: this is no video in MP4, WebM, MOV or MKV.",
  );
  const told = spawnSync("npm", ["run", "-s", "lamp", "--", "capture", "README.md"], { encoding: "utf8" });
  expect([told.status, told.stdout]).toEqual([2, ""]);
  expect(told.stderr.trim().split("\n").at(-1)).toBe(
    "lamp: README.md: this is no video in MP4, WebM, MOV or MKV.",
  );
});

test("the same from a terminal: figures by the truth, one JSON object", () => {
  test.setTimeout(120_000);
  const told = spawnSync("npm", ["run", "-s", "lamp", "--", "capture", file, "--box", "8,6,110,24", "--json"], {
    encoding: "utf8",
  });
  expect(told.status).toBe(0);
  const made = JSON.parse(told.stdout);
  expect(made).toMatchObject({
    form: "captured",
    capturedFrames: 720,
    ceiling: false,
    counterDisagrees: true,
    verdict: { openBecause: null },
  });
  expect(Math.abs(made.averageFps / truth.averageFps - 1)).toBeLessThan(0.003);
  expect(made.averageFpsInterval[0]).toBeLessThanOrEqual(truth.averageFps);
  expect(made.averageFpsInterval[1]).toBeGreaterThanOrEqual(truth.averageFps);
  // Wrong pictures, missed or invented: at most two in a hundred captured ones of a still scene.
  const begins = (times: number[], unit: number) => {
    let at = 0;
    return new Set(times.map((time) => Math.round((at += time) / unit) - Math.round(time / unit)));
  };
  const [seen, shown] = [begins(made.frameTimes, 1000 / 60), begins(truth.shown, 1)];
  const wrong =
    [...seen].filter((frame) => !shown.has(frame)).length +
    [...shown].filter((frame) => !seen.has(frame)).length;
  expect(wrong / 720).toBeLessThanOrEqual(0.02);
  const readings: { atMs: number; fps: number }[] = made.counter.readings;
  expect(readings.filter(({ fps }) => fps === 60).length / readings.length).toBeGreaterThanOrEqual(0.98);
  expect(readings.length / truth.counter.length).toBeGreaterThanOrEqual(0.9);
});
