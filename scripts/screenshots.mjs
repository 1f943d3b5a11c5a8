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
  await ensureBuild();
  const port = await freePort(3610);
  server = await startServer({ port, url, quiet: true });
  const address = `http://127.0.0.1:${port}`;
  const launch = launchOptions();
  // With hinting letters are put on whole pixels and run together.
  const browser = await chromium.launch({ ...launch, args: [...launch.args, "--font-render-hinting=none"] });
  const context = await browser.newContext({ baseURL: address, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const { rows } = await (await page.request.get("/api/v1/jobs")).json();
  const idOf = (title, rig) => rows.find((row) => row.title === title && (!rig || row.rig === rig)).id;
  const job = (title) => `/jobs/${idOf(title)}`;
  /** The address of a job's n-th trial, from 1. */
  const trial = async (title, n, rig) => {
    const { trials } = await (await page.request.get(`/api/v1/jobs/${idOf(title, rig)}`)).json();
    return `/jobs/${idOf(title, rig)}/trials/${trials[n - 1].id}`;
  };

  /** The address of a title's profile, by names. */
  const profileOf = async (rig, engine, title) => {
    const { rows: places } = await (await page.request.get("/api/v1/profiles")).json();
    const { rigId, engineId } = places.find((row) => row.rig === rig && row.engine === engine);
    const place = `rig=${rigId}&engine=${engineId}`;
    const { titles } = await (await page.request.get(`/api/v1/profile?${place}`)).json();
    return `/profiles?${place}&title=${titles.find(({ name }) => name === title).id}`;
  };

  /** Puts a job's rig on the bench where another lies there. */
  const onTheBench = async () => {
    const putOn = page.getByRole("button", { name: /on the bench$/ });
    if (await putOn.isVisible()) await putOn.click();
    // A log that was chosen on this page before is there again, in place of what asks for one.
    await page.getByRole("tab", { name: "Tally by eye" }).waitFor();
  };

  /** Brings a run of a made-up device for a minute, as an agent does, and leaves it open. */
  const watched = async () => {
    const send = async (path, data, token) => {
      const headers = { "idempotency-key": crypto.randomUUID() };
      if (token) headers.authorization = `Bearer ${token}`;
      return (await page.request.post(`/api/v1${path}`, { data, headers })).json();
    };
    const { rigId } = rows.find(({ title }) => title === "Glasshouse Duel");
    const { code } = await send(`/rigs/${rigId}/pairings`);
    const { token } = await send("/pairings/claims", { code, name: "Pipit on the sofa" });
    const { id } = await send("/device/runs", { form: "frames" }, token);
    const frames = [];
    for (let ms = 0; ms < 70_000; ms += frames.at(-1))
      frames.push(
        16.7 + 1.5 * Math.sin(ms / 3000) ** 2 + (frames.length % 700 === 650 ? 60 : 0.6 * Math.sin(ms)),
      );
    const every = (of) => Array.from({ length: 280 }, (_, k) => [250 * k, of(k / 280)]).flat();
    const pieces = [
      { role: "trace", sequence: 0, values: frames },
      { role: "temperature", sequence: 0, values: every((at) => 52 + 14 * (1 - Math.exp(-2 * at))) },
      { role: "watts", sequence: 0, values: every((at) => 5.1 + 0.3 * Math.sin(20 * at)) },
      { role: "gpu", sequence: 0, values: every((at) => 88 + 6 * Math.sin(50 * at)) },
      { role: "battery", sequence: 0, values: every((at) => 81 - 2 * at) },
    ];
    await send(`/device/runs/${id}/pieces`, { pieces }, token);
    await page.reload();
    await page.getByTestId("live-rate").filter({ hasText: /\d/ }).waitFor();
    await page.keyboard.press("m");
    await page.getByTestId("live-marks").waitFor();
  };

  /** name, path, what to do before the picture, theme */
  const views = [
    ["bench", "/"],
    [
      "job",
      `${job("Copper Regatta")}?run=${(await (await page.request.get(`/api/v1/jobs/${idOf("Copper Regatta")}`)).json()).runs[0].id}`,
    ],
    [
      "job-overlay-daylight",
      `${job("The Drowned Gallery")}?run=${(await (await page.request.get(`/api/v1/jobs/${idOf("The Drowned Gallery")}`)).json()).runs[1].id}`,
      async () => page.keyboard.press("o"),
      "daylight",
    ],
    ["trial-engines", await trial("Glasshouse Duel", 1)],
    ["sweep-resolution", await trial("Basalt Choir", 1)],
    ["sweep-power-daylight", await trial("Ninth Parallel", 1, "Tansy"), undefined, "daylight"],
    ["sweep-heat", await trial("Ninth Parallel", 1, "Pipit")],
    ["sweep-clocks", await trial("Marsh Rally 3", 2)],
    ["sweep-rate-daylight", await trial("Ninth Parallel", 2, "Tansy"), undefined, "daylight"],
    [
      "new-run",
      `${job("The Orchard Ledger")}/runs/new`,
      async () => {
        await onTheBench();
        await page.getByLabel("Log files").setInputFiles(join(root, "samples", "areas-first-visit.csv"));
        await page.getByRole("region", { name: "Preview" }).waitFor();
      },
    ],
    [
      "tally",
      `${job("The Orchard Ledger")}/runs/new`,
      async () => {
        await onTheBench();
        await page.getByRole("tab", { name: "Tally by eye" }).click();
        for (const reading of ["30", "30", "28", "30", "29", "30"]) {
          await page.getByLabel(/Look when it ticks/).fill(reading);
          await page.keyboard.press("Enter");
        }
      },
    ],
    [
      "queue",
      `${job("Quiet Machines")}/runs/new?trial=${(await trial("Quiet Machines", 1)).split("/").at(-1)}`,
      async () => {
        await onTheBench();
        const rows = (seconds, ms) =>
          [
            "frame time ms",
            ...Array.from({ length: (1000 * seconds) / ms }, (_, i) =>
              (ms * (1 + 0.03 * Math.sin(i * 1.3))).toFixed(3),
            ),
          ].join("\n");
        await page.getByLabel("Log files").setInputFiles(
          [18.1, 16.9, 17.8].map((ms, at) => ({
            name: `weaving-floor-${at + 4}.csv`,
            mimeType: "text/csv",
            buffer: Buffer.from(`${rows(30 + at, ms)}\n`),
          })),
        );
        await page.getByRole("region", { name: "Preview" }).waitFor();
      },
    ],
    [
      "profile",
      await profileOf("Pipit", "Plait", "The Orchard Ledger"),
      async () => page.getByRole("button", { name: /^Hold frames to the display, Title/ }).focus(),
    ],
    [
      "capture-daylight",
      `${job("Quiet Machines")}/runs/new`,
      async () => {
        await onTheBench();
        await page.getByRole("tab", { name: "From a video" }).click();
        await page.getByLabel("Video file").setInputFiles(join(root, "samples", "captures", "lamp-room.webm"));
        await page.getByRole("button", { name: "none: add its box" }).first().click();
        for (const [side, value] of [
          ["left", "8"],
          ["top", "6"],
          ["width", "110"],
          ["height", "24"],
        ])
          await page.getByLabel(`Counter, ${side}, pixels`).fill(value);
        await page.getByRole("button", { name: /^Measure it/ }).click();
        await page.getByRole("button", { name: /^Keep this run/ }).waitFor({ timeout: 60_000 });
      },
      "daylight",
    ],
    [
      "campaign",
      "/campaigns",
      async () => {
        await page.getByRole("link", { name: "Which engine for the Twofold" }).click();
        await page.getByRole("table", { name: "Titles by arms" }).waitFor();
      },
    ],
    [
      "board-daylight",
      "/board",
      async () => page.getByText(/^Dotted cells with figures/).waitFor({ timeout: 60_000 }),
      "daylight",
    ],
    ["log", "/log"],
    [
      "look-daylight",
      "/look",
      async () => {
        await page.getByLabel("Log files").setInputFiles(join(root, "samples", "areas-first-visit.csv"));
        await page.getByRole("region", { name: "Preview" }).waitFor();
      },
      "daylight",
    ],
    ["live", "/live", watched],
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
