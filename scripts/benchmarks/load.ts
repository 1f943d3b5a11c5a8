import { readQuery } from "@/contract";
// How the pages of a full shelf are answered: alone, by twenty people, by two hundred at once, beside slow
// senders, and for how much memory.
import { connect } from "node:net";
import { readFileSync } from "node:fs";
import autocannon from "autocannon";
import pg from "pg";
import { database } from "@/data";
import { viewBoard, viewHome, viewJob, viewLog, viewRigs, viewTitles } from "@/server";
import { changeSomething } from "./made";
import { fillShelf, fullShelf } from "./shelf";
import { line, ms, timed } from "./timing";

const address = process.env.LAMP_ADDRESS!;
const url = process.env.DATABASE_URL!;
const server = Number(process.env.LAMP_SERVER);
const jobId = await fillShelf(url, fullShelf);
const client = new pg.Client({ connectionString: url });
await client.connect();
const one = async (statement: string): Promise<string> => (await client.query(statement)).rows[0].id as string;
const fortyRuns = await one(
  `select job_id as id from runs where job_id <> '${jobId}' group by 1 having count(*) >= 35 limit 1`,
);
const campaign = await one(`select id from campaigns limit 1`);
const build = await one(`select id from builds order by version limit 1`);
console.log(
  `Shelf: ${fullShelf.rigs} rigs, ${fullShelf.titles} titles, ${fullShelf.jobs} jobs, ${fullShelf.runs} runs, ${fullShelf.faults} faults beside the demo's`,
);

const get = async (path: string) => {
  const answer = await fetch(address + path);
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
  return (await answer.arrayBuffer()).byteLength;
};
const change = async () => changeSomething(client);

console.log("\nOne person, warm: made anew after a change, and kept");
for (const path of [
  "/",
  "/jobs",
  `/jobs/${jobId}`,
  `/jobs/${fortyRuns}`,
  "/jobs/new",
  "/campaigns",
  "/campaigns/new",
  `/campaigns/${campaign}`,
  "/profiles",
  "/board",
  "/log",
  "/log?search=flicers",
  `/builds/${build}`,
  "/publish",
  "/kit/titles",
  "/kit/rigs",
  "/api/v1/jobs",
  "/api/v1/titles?search=title+49",
  "/api/v1/rigs",
  "/api/v1/log",
  "/api/v1/board/titles",
  "/api/v1/publications?of=board",
]) {
  await timed(4, async () => get(path));
  const bytes = await get(path);
  const anew: number[] = [];
  for (let k = 0; k < 9; k++) {
    await change();
    const began = performance.now();
    await get(path);
    anew.push(performance.now() - began);
  }
  anew.sort((a, b) => a - b);
  const kept = await timed(9, async () => get(path));
  line(
    path.replace(/[0-9a-f-]{36}/, (id) => (id === jobId ? "(200 runs)" : id === fortyRuns ? "(40 runs)" : "…")),
    `${anew[4]!.toFixed(0)} ms (${anew[0]!.toFixed(0)} … ${anew[8]!.toFixed(0)}), kept ${kept.median.toFixed(1)} ms, ${Math.round(bytes / 1000)} kB`,
  );
}

console.log("\nThe same figures asked of PostgreSQL alone: its statements sent one after the other");
const store = database() as unknown as { options: { logging: unknown } };
for (const [name, view] of [
  ["the first page", viewHome],
  ["a job of 200 runs", async () => viewJob(jobId)],
  ["the log", async () => viewLog(readQuery("viewLog", {}))],
  ["the board", async () => viewBoard(readQuery("viewBoard", {}))],
  ["titles", async () => viewTitles(readQuery("listTitles", {}))],
  ["rigs", async () => viewRigs(readQuery("listRigs", {}))],
] as const) {
  const asked: { text: string; values: unknown[] }[] = [];
  await view();
  store.options.logging = (text: string, _ms: number, { bind }: { bind?: unknown[] }) =>
    asked.push({
      text: text.replace(/^Execut(?:ed|ing) \([^)]*\): /, "").replace(/;\s*$/, ""),
      values: Array.isArray(bind) ? bind : [],
    });
  await view();
  store.options.logging = false;
  const bare = await timed(7, async () => {
    for (const { text, values } of asked) await client.query(text, values);
  });
  line(
    `${name}: ${asked.length} statements`,
    `${ms(bare)}; in the application ${ms(await timed(7, async () => view()))}`,
  );
}

const memory = () =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server}/status`, "utf8"))?.[1] ?? 0) / 1024;
const shot = async (options: autocannon.Options) => {
  const result = await autocannon({ timeout: 60, ...options });
  const failed = result.errors + result.non2xx;
  return { ...result, failed };
};
console.log("\nTwenty people for ten seconds (30 a second, 95 % under 500 ms)");
for (const [name, path] of [
  ["first page", "/"],
  ["job of 200 runs", `/jobs/${jobId}`],
  ["job of 40 runs", `/jobs/${fortyRuns}`],
]) {
  for (const busy of [false, true]) {
    const timer = busy ? setInterval(() => void change(), 1000) : null;
    const { requests, latency, failed } = await shot({ url: address + path, connections: 20, duration: 10 });
    if (timer) clearInterval(timer);
    line(
      `${name}${busy ? ", something changed every second" : ""}`,
      `${requests.average.toFixed(0)} a second, 97.5 % under ${latency.p97_5} ms, ${failed} failed`,
    );
  }
}
console.log("\nTwo hundred at once (all under 5 s)");
for (const [name, path] of [
  ["first page", "/"],
  ["job of 200 runs", `/jobs/${jobId}`],
]) {
  await change();
  const { latency, failed } = await shot({ url: address + path, connections: 200, amount: 200 });
  line(name!, `the last after ${latency.max} ms, ${failed} failed`);
}

console.log("\nThree hundred senders of a byte a second");
const alone = await timed(15, async () => get("/"));
let closed = 0;
const slow = Array.from({ length: 300 }, () => {
  const socket = connect(Number(new URL(address).port), "127.0.0.1");
  socket.on("error", () => {});
  socket.on("close", () => closed++);
  socket.write(
    `POST /api/v1/runs HTTP/1.1\r\nHost: ${new URL(address).host}\r\nContent-Type: application/octet-stream\r\nContent-Length: 100000\r\n\r\n`,
  );
  const timer = setInterval(() => (socket.destroyed ? clearInterval(timer) : socket.write("a")), 1000);
  return socket;
});
await new Promise((resolve) => setTimeout(resolve, 3000));
const beside = await timed(15, async () => get("/"));
const began = performance.now();
while (closed < slow.length && performance.now() - began < 60_000)
  await new Promise((resolve) => setTimeout(resolve, 250));
line(
  "first page alone, and beside them",
  `${alone.median.toFixed(1)} and ${beside.median.toFixed(1)} ms; ${closed} of ${slow.length} closed after ${((performance.now() - began) / 1000 + 3).toFixed(0)} s`,
);
for (const socket of slow) socket.destroy();

console.log("\nMemory of the process that answers");
const before = memory();
const seen: number[] = [];
for (let k = 0; k < 5; k++) {
  await change();
  await shot({
    url: address,
    connections: 10,
    amount: 4000,
    requests: [
      { path: "/" },
      { path: `/jobs/${fortyRuns}` },
      { path: "/api/v1/titles" },
      { path: "/kit/rigs" },
    ],
  });
  seen.push(memory());
}
line(
  "MB before, and after every 4,000 requests of 20,000",
  [before, ...seen].map((mb) => mb.toFixed(0)).join(" "),
);
await client.end();
await database().close();
