// Large runs sent at once, and what they cost everybody else: how long pages take meanwhile, and the memory of
// what answers.
import { constants, setPriority } from "node:os";
import pg from "pg";
import { packTrace } from "@/core/trace";
import { asker } from "./asker";
import { changeSomething, jobToSendTo, manyFrames, runFrom } from "./made";
import { memoryOf } from "./memoryOf";
import { line } from "./timing";

const many = Number(process.argv[2] ?? 8);
const megabytes = Number(process.argv[3] ?? 60);
const address = process.env.LAMP_ADDRESS!;
const server = process.env.LAMP_SERVER!;

const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
await client.connect();
const to = await jobToSendTo(client);
const { job } = to;
const frameTimes = manyFrames(megabytes);
const body = (n: number) =>
  packTrace({ form: "frames", frameTimes, channels: [], marks: [] }, runFrom(`large ${n}.csv`, to));

const memory = () => memoryOf(server);

const bodies = Array.from({ length: many }, (_, n) => body(n));
const paths = ["/", "/jobs", `/jobs/${job}`, "/board", "/api/v1/rigs", "/api/v1/health"];
// Warm: a page that was drawn once is far from its pace.
for (let drawn = 0; drawn < 12; drawn++) {
  await changeSomething(client);
  for (const path of paths) await (await fetch(address + path)).arrayBuffer();
}
await client.end();
const before = memory();
let most = before,
  isBusy = true;
const took = new Map<string, number[]>(paths.map((path) => [path, []]));
const watching = (async () => {
  while (isBusy) {
    most = Math.max(most, memory());
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
})();
const asking = asker(address, paths, 30, ({ path, ms }) => took.get(path)?.push(ms));
// What sends stands for other machines: here it shares the processors, and gives way.
if (process.platform === "linux") setPriority(0, constants.priority.PRIORITY_BELOW_NORMAL);

const began = performance.now();
const answers = await Promise.all(
  bodies.map(async (each) => {
    const sent = await fetch(`${address}/api/v1/runs`, {
      method: "POST",
      headers: { "content-type": "application/octet-stream", "idempotency-key": crypto.randomUUID() },
      body: each,
    });
    return { status: sent.status, text: await sent.text() };
  }),
);
isBusy = false;
await Promise.all([watching, asking.end()]);

line(
  `${many} uploads of ${megabytes} MB at once`,
  `${((performance.now() - began) / 1000).toFixed(0)} s, ${answers.filter(({ status }) => status === 201).length} kept`,
);
for (const { status, text } of answers) if (status !== 201) console.log(`  ${status} ${text.slice(0, 200)}`);
line("Memory before, and at the most meanwhile", `${before.toFixed(0)} and ${most.toFixed(0)} MB (600)`);
for (const [path, times] of took) {
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.min(times.length - 1, Math.floor(share * times.length))]!.toFixed(0);
  line(
    `  ${path.replace(job, "…")}, ${times.length} times meanwhile`,
    `median ${at(0.5)}, 95 % under ${at(0.95)}, most ${at(1)} ms, ${times.filter((ms) => ms > 300).length} over 300`,
  );
}
