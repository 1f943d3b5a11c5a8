// What each route weighs as the browser gets it, cold, and how long it takes until it can be used: on this machine as
// it is, and as a phone of four years ago on a slow network.
//   npm run bench -- weight [rounds] [--beside FOLDER]
// FOLDER is another checkout, e.g. of an older commit: it is built, started and weighed by turns with this one.
import { join, resolve } from "node:path";
import { chromium, type Browser } from "@playwright/test";
import pg from "pg";
import { launchOptions } from "../lib/browser.mjs";
import { desktop, phone, weigh, type Profile, type Weight } from "../lib/weight";
import { fillShelf } from "./shelf";
import { line } from "./timing";

const given = process.argv.slice(2);
const besideAt = given.indexOf("--beside");
const beside = besideAt < 0 ? null : resolve(given[besideAt + 1] ?? "");
const rounds = Number(given.find((each) => /^\d+$/.test(each)) ?? 5);
const here = resolve(import.meta.dirname, "../..");

/** An application of a checkout with the demo and a full shelf in a database of its own. */
async function standing(folder: string, wantedPort: number) {
  const lib = async <Module>(name: string) => (await import(join(folder, "scripts/lib", name))) as Module;
  const { ensurePackages } = await lib<typeof import("../lib/install.mjs")>("install.mjs");
  const { throwAwayCluster } = await lib<typeof import("../lib/cluster.mjs")>("cluster.mjs");
  const { ensureBuild, prepareDatabase, startServer, stopServer } =
    await lib<typeof import("../lib/application.mjs")>("application.mjs");
  const { freePort } = await lib<typeof import("../lib/run.mjs")>("run.mjs");
  ensurePackages();
  const cluster = throwAwayCluster();
  const url = await cluster.start();
  prepareDatabase(url, { demo: true });
  await ensureBuild();
  const longest = await fillShelf(url);
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const ids = await client.query(
    "select t.id as trial, t.job_id as job from trials t join runs r on r.job_id = t.job_id where t.job_id <> $1 group by 1, 2 order by count(*) desc limit 1",
    [longest],
  );
  await client.end();
  const port = await freePort(wantedPort);
  const server = await startServer({ port, url, quiet: true });
  const { job, trial } = ids.rows[0] as { job: string; trial: string };
  return {
    address: `http://127.0.0.1:${port}`,
    routes: {
      "first page": "/",
      "a job": `/jobs/${job}`,
      "a job of 200 runs": `/jobs/${longest}`,
      "a trial": `/jobs/${job}/trials/${trial}`,
      "a new run": `/jobs/${job}/runs/new`,
      board: "/board",
      log: "/log",
      titles: "/kit/titles",
      rigs: "/kit/rigs",
      profiles: "/profiles",
      "sign-in": "/sign-in",
    },
    end: async () => {
      await stopServer(server);
      cluster.remove();
    },
  };
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? Number.NaN;
const kB = (bytes: number) => `${(bytes / 1000).toFixed(0).padStart(5)}`;
const inMs = (weights: Weight[], of: (weight: Weight) => number | null) => {
  const values = weights.map(of).filter((value) => value !== null && Number.isFinite(value)) as number[];
  return values.length === 0 ? "    –" : `${median(values).toFixed(0).padStart(5)}`;
};

async function weighed(browser: Browser, address: string, profile: Profile): Promise<Weight[]> {
  // The first opening draws the page on the server for everybody after; it isn't counted.
  await (await fetch(address)).arrayBuffer();
  const weights: Weight[] = [];
  for (let round = 0; round < rounds; round++) weights.push(await weigh(browser, address, profile));
  return weights;
}

const browser = await chromium.launch(launchOptions());
const sides = [{ name: "here", ...(await standing(here, 3710)) }];
try {
  if (beside) sides.unshift({ name: "beside", ...(await standing(beside, 3750)) });
  console.log(`Medians of ${rounds} rounds; kB as sent, ms from the start of the navigation`);
  console.log(
    "scripts, styles, page, all (kB) | usable, trace drawn (ms): desktop | usable, trace drawn: phone profile",
  );
  for (const route of Object.keys(sides[0]!.routes) as (keyof (typeof sides)[0]["routes"])[])
    for (const { name, address, routes } of sides) {
      const onDesktop = await weighed(browser, address + routes[route], desktop);
      const onPhone = await weighed(browser, address + routes[route], phone);
      const of = (value: (weight: Weight) => number) => kB(median(onDesktop.map(value)));
      line(
        `${route}${beside ? `, ${name}` : ""}`,
        [
          [of((w) => w.scripts), of((w) => w.styles), of((w) => w.page), of((w) => w.all)].join(" "),
          [inMs(onDesktop, (w) => w.usable), inMs(onDesktop, (w) => w.traced)].join(" "),
          [inMs(onPhone, (w) => w.usable), inMs(onPhone, (w) => w.traced)].join(" "),
        ].join(" | "),
      );
    }
} finally {
  for (const side of sides) await side.end();
  await browser.close();
}
