import { expect, type APIRequestContext, type Page } from "@playwright/test";

/** The job of a title that was opened first: the demo's own, whatever other tests added. */
async function firstOpened(request: APIRequestContext, title: string) {
  const query = new URLSearchParams({ sort: "title", search: title });
  const { rows } = await (await request.get(`/api/v1/jobs?${query}`)).json();
  return rows.find((row: { title: string }) => row.title === title);
}

/** Its id. */
export const demoJob = async (request: APIRequestContext, title: string): Promise<string> =>
  (await firstOpened(request, title)).id;

/** A job of its own on the rig of another, so that tests don't lean on one another's runs. */
export async function freshJob(
  request: APIRequestContext,
  like: string,
  changes: Record<string, unknown> = {},
): Promise<string> {
  const { rigId, titleId, buildId, houseRulesId } = await firstOpened(request, like);
  const made = await request.post("/api/v1/jobs", {
    data: {
      rigId,
      titleId,
      buildId,
      houseRulesId,
      aim: "speed",
      targetFps: null,
      beginsFrom: "defaults",
      ...changes,
    },
  });
  expect(made.status(), await made.text()).toBe(201);
  return (await made.json()).id;
}

/** Opens a page and waits until its keys and buttons are alive. */
export async function open(page: Page, path: string) {
  await page.goto(path);
  await page.locator("[data-ready]").waitFor();
}

let brought = 0;
/** A log that no other is the same file as: one that was kept before would be refused. */
const another = (content: string | Buffer) =>
  typeof content === "string" ? Buffer.from(`${content}# ${Date.now()} ${++brought}\n`) : content;

/** Chooses a log on the new-run page. */
export async function choose(page: Page, name: string, content: string | Buffer) {
  await page
    .getByLabel("Log files")
    .setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(content) });
}

/** What a log row holds beside its frame time, by the second since the start. */
export type Channels = Record<string, (second: number) => number>;

/** A frame log as a logger writes it: a row a frame, with telemetry beside it. */
export function log(
  seconds: number,
  fps: number | ((second: number) => number),
  channels: Channels = {},
): string {
  const names = Object.keys(channels);
  const rows = [["frame time ms", ...names].join(",")];
  let ms = 0;
  for (let i = 0; ms < seconds * 1000; i++) {
    const rate = typeof fps === "number" ? fps : fps(ms / 1000);
    // A little unevenness, the same every time.
    const frame = (1000 / rate) * (1 + 0.03 * Math.sin(i * 1.3) + 0.02 * Math.sin(i * 0.37));
    ms += frame;
    rows.push([frame.toFixed(4), ...names.map((name) => channels[name](ms / 1000).toFixed(2))].join(","));
  }
  return `${rows.join("\n")}\n`;
}

/** Puts the job's rig on the bench where another lies there. */
export async function onTheBench(page: Page) {
  await page
    .getByRole("heading", { name: /^New run$|isn't on the bench$/ })
    .first()
    .waitFor();
  const putOn = page.getByRole("button", { name: /on the bench$/ });
  if (await putOn.isVisible()) await putOn.click();
  await page.getByText("Drop logs here").waitFor();
}

/** Brings a log in on the new-run page that is open, by its keys, and waits to be back. */
export async function bringByKeys(page: Page, content: string, name = "log.csv") {
  await page.getByText("Drop logs here").waitFor();
  // Keys come alive a moment after what they belong to is seen; a person's hand is slower.
  await page.waitForTimeout(200);
  const chooser = page.waitForEvent("filechooser", { timeout: 10_000 });
  await page.keyboard.press("l");
  await (await chooser).setFiles({ name, mimeType: "text/csv", buffer: another(content) });
  await page.getByRole("region", { name: "Preview" }).waitFor();
  await page.waitForTimeout(200);
  await page.keyboard.press("ControlOrMeta+Enter");
  await page.waitForURL((url) => !url.pathname.endsWith("/runs/new"));
}

/** Brings a log in by its own file field, for one arm of the trial at `path`. */
export async function bringTo(page: Page, path: string, content: string, setUp?: () => Promise<void>) {
  await open(page, path);
  await onTheBench(page);
  await setUp?.();
  await choose(page, "log.csv", another(content));
  await page.getByRole("button", { name: /Keep this run/ }).click();
  await page.waitForURL((url) => !url.pathname.endsWith("/runs/new"));
}

/** What is said about a run of a job on its rig. */
export function particulars(
  jobId: string,
  rig: { spec: { powerModes: { name: string }[]; displays: { name: string }[] } },
) {
  return {
    jobId,
    source: "log",
    label: "grown",
    fileName: null,
    settings: { scale: 2 },
    conditions: {
      powerMode: rig.spec.powerModes[0]!.name,
      clocks: null,
      display: rig.spec.displays[0]!.name,
      pluggedIn: false,
      docked: false,
      cooler: false,
      roomC: null,
      capturePath: "engine log",
    },
    cacheState: "warm",
    crashed: false,
    skippedRows: 0,
    preflight: [],
    notes: "",
  };
}

/** Clicks and keys of a person, counted as they are made. */
export class Hands {
  clicks = 0;
  keys = 0;
  constructor(private readonly page: Page) {}
  /** Files dropped on the window: one movement of the hand, counted as a click. */
  async drop(files: { name: string; content: string }[]) {
    this.clicks++;
    const data = await this.page.evaluateHandle((given) => {
      const transfer = new DataTransfer();
      given.forEach(({ name, content }, at) =>
        transfer.items.add(new File([content], name, { type: "text/csv", lastModified: 1e12 + at * 60_000 })),
      );
      return transfer;
    }, files);
    await this.page.dispatchEvent("main", "drop", { dataTransfer: data });
  }
  async click(place: ReturnType<Page["locator"]>) {
    this.clicks++;
    await place.click();
  }
  async type(text: string) {
    this.keys += text.length;
    await this.page.keyboard.type(text);
  }
  async press(key: string) {
    this.keys++;
    await this.page.keyboard.press(key);
  }
}

/** Plans a trial through its endpoint. @param armsOf from the settings in force */
export async function addTrialOf(
  request: APIRequestContext,
  jobId: string,
  { name, rounds }: { name: string; rounds: number },
  armsOf: (settings: Record<string, unknown>) => { name: string; settings: Record<string, unknown> }[],
): Promise<string> {
  const { standing } = await (await request.get(`/api/v1/jobs/${jobId}`)).json();
  const made = await request.post("/api/v1/trials", {
    data: {
      jobId,
      kind: "compare",
      name,
      rounds,
      cold: false,
      plan: { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: [] },
      arms: armsOf(standing.settings).map((arm) => ({ ...arm, conditions: {}, buildId: null, level: null })),
    },
  });
  expect(made.status()).toBe(201);
  return (await made.json()).id;
}
