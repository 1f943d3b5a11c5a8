// How long each page and each endpoint that reads holds the thread that answers, on a full shelf with what is as
// large as endpoints take it: a profile of twelve thousand values, somebody's publication of 100,000 cells, a run of
// 60 MB.
import pg from "pg";
import { endpointList } from "@/contract";
import { largest, sender } from "./laden";
import { changeSomething } from "./made";
import { fillShelf, fullShelf } from "./shelf";
import { line } from "./timing";

const address = process.env.LAMP_ADDRESS!;
const rounds = Number(process.argv[2] ?? 5);
const job = await fillShelf(process.env.DATABASE_URL!, fullShelf);
const asked = sender(address);
const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
await client.connect();
const large = await largest(asked, client);
const kept = [];
for (const make of [
  async () => large.profile(0),
  async () => large.profile(1),
  () => large.publication("large"),
  () => large.run(),
])
  kept.push(await asked.send(await make()));
const failed = kept.find(({ status }) => status >= 300);
if (failed) throw new Error(`${failed.status} ${failed.text.slice(0, 300)}`);
const [, , publication, run] = kept.map(({ text }) => (JSON.parse(text) as { id?: string }).id ?? "");

const { of } = await large.profile(0);
const one = async (statement: string): Promise<Record<string, string>> =>
  ((await client.query(statement)).rows[0] ?? {}) as Record<string, string>;
const trial = await one(
  `select t.id, t.job_id as job from trials t join runs r on r.trial_id = t.id where t.deleted_at is null group by 1, 2 order by count(*) desc limit 1`,
);
const ids: Record<string, string> = { jobs: job, runs: run!, others: publication!, trials: trial.id! };
for (const table of ["rigs", "titles", "engines", "systems", "builds", "campaigns", "stills"])
  ids[table] = (await one(`select id from ${table} limit 1`)).id ?? "";
ids["house-rules"] = (await one(`select id from house_rules limit 1`)).id ?? "";

const pages = [
  "/ /jobs /jobs/new /campaigns /campaigns/new /profiles /board /log /publish /look /beside /endpoints /kit",
  "/kit/rigs /kit/titles /kit/systems /kit/engines /kit/rules /kit/abilities /kit/preflight /kit/planner",
  "/kit/workshop /kit/store /kit/people",
]
  .join(" ")
  .split(" ");
pages.push(
  ...["", "/recipe", "/runs/new", "/trials/new"].map((rest) => `/jobs/${job}${rest}`),
  `/jobs/${trial.job}/trials/${trial.id}`,
  `/campaigns/${ids.campaigns}`,
  `/builds/${ids.builds}`,
  `/profiles?${of}`,
  `/profiles/recipe?${of}`,
  ...["rigs", "titles", "engines", "systems"].map((kind) => `/kit/${kind}/${ids[kind]}`),
  `/kit/rules/${ids["house-rules"]}`,
);
const queries: Record<string, string> = {
  viewProfile: `?${of}`,
  saveProfile: `?${of}`,
  viewProfileRecipe: `?${of}`,
  publish: "?of=board",
};
const endpoints = endpointList
  .filter(({ method, streams, id }) => method === "GET" && !streams && id !== "metrics")
  .map(({ id, path }) => {
    const [, kind = ""] = path.split("/");
    return `/api/v1${path.replace(/\{\w+\}/, ids[kind] ?? "")}${queries[id] ?? ""}`;
  });

interface Row {
  path: string;
  status: number;
  bytes: number;
  took: number[];
  still: number[];
}
const rows: Row[] = [];
for (const path of [...pages, ...endpoints]) {
  const row: Row = { path, status: 0, bytes: 0, took: [], still: [] };
  // The first time it is read and compiled.
  for (let round = 0; round <= rounds; round++) {
    await changeSomething(client);
    await asked.stoodStill();
    const began = performance.now();
    const answer = await fetch(address + path);
    row.bytes = (await answer.arrayBuffer()).byteLength;
    const ms = performance.now() - began;
    row.status = answer.status;
    await new Promise((resolve) => setTimeout(resolve, 30));
    const still = await asked.stoodStill();
    if (round > 0) {
      row.took.push(ms);
      row.still.push(still);
    }
  }
  row.took.sort((a, b) => a - b);
  row.still.sort((a, b) => a - b);
  rows.push(row);
}
await client.end();

const median = (sorted: number[]) => sorted[Math.floor(sorted.length / 2)]!;
const short = (path: string) => path.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, "…");
console.log(
  `${rows.length} pages and endpoints, something changed before each: ${rows.filter(({ status }) => status === 200).length} answered 200`,
);
for (const { path, status } of rows.filter((row) => row.status !== 200))
  line(`  ${short(path)}`, String(status));
rows.sort((a, b) => median(b.still) - median(a.still));
console.log("\nThose that hold it longest: stands still (most), answered after (most)");
for (const { path, took, still, bytes } of rows.slice(0, 20))
  line(
    `  ${short(path)}`,
    `${median(still).toFixed(0)} (${still.at(-1)!.toFixed(0)}), ${median(took).toFixed(0)} (${took.at(-1)!.toFixed(0)}) ms, ${Math.round(bytes / 1000)} kB`,
  );
const over = rows.filter(({ still }) => median(still) > 50).length;
line("Over 50 ms", `${over} by the median, ${rows.filter(({ still }) => still.at(-1)! > 50).length} ever`);
