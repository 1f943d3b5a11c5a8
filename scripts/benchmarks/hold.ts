// Uploads that stall, trickle, are cut or come all into one job, and what a person beside them waits: pages, and
// small imports. At last some minutes of all that mixed, with the memory of what answers.
//   npm run bench -- hold [seconds of each] [minutes of the mixture]
import { connect, type Socket } from "node:net";
import pg from "pg";
import { packTrace } from "@/core/trace";
import { asker } from "./asker";
import { jobsToSendTo, manyFrames, runFrom } from "./made";
import { memoryOf } from "./memoryOf";
import { line } from "./timing";

const seconds = Number(process.argv[2] ?? 20);
const minutes = Number(process.argv[3] ?? 5);
const address = process.env.LAMP_ADDRESS!;
const { port } = new URL(address);

const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
await client.connect();
// What a person brings in, and what others do, goes to jobs of their own.
const [own, to] = await jobsToSendTo(client);
await client.end();
if (!own || !to) throw new Error("The demo has no two jobs under way.");
const small = (name: string, job: typeof own) =>
  packTrace({ form: "frames", frameTimes: manyFrames(0.015), channels: [], marks: [] }, runFrom(name, job));
const large = packTrace(
  { form: "frames", frameTimes: manyFrames(20), channels: [], marks: [] },
  runFrom("large.csv", to),
);

let made = 0;
/** Brings a small run in. @returns status and how long it took, ms */
async function bringIn(job = to): Promise<{ status: number; ms: number }> {
  const began = performance.now();
  const sent = await fetch(`${address}/api/v1/runs`, {
    method: "POST",
    headers: { "content-type": "application/octet-stream" },
    body: small(`small ${++made}.csv`, job!),
  });
  await sent.arrayBuffer();
  return { status: sent.status, ms: performance.now() - began };
}

/** An upload of 60 MB whose body doesn't come as it should. */
function upload(first: Uint8Array, more: (socket: Socket) => () => void): () => void {
  const socket = connect(Number(port), "127.0.0.1");
  socket.on("error", () => undefined);
  socket.write(
    `POST /api/v1/runs HTTP/1.1\r\nhost: 127.0.0.1:${port}\r\ncontent-type: application/octet-stream\r\ncontent-length: 60000000\r\n\r\n`,
  );
  socket.write(first);
  socket.resume();
  const end = more(socket);
  return () => {
    end();
    socket.destroy();
  };
}
const stalled = () => upload(large.subarray(0, 100_000), () => () => undefined);
const trickled = (bytesPerSecond: number) =>
  upload(large.subarray(0, 10_000), (socket) => {
    const timer = setInterval(() => socket.writable && socket.write(new Uint8Array(bytesPerSecond / 4)), 250);
    return () => clearInterval(timer);
  });
const cut = () =>
  upload(large.subarray(0, 5_000_000), (socket) => {
    const timer = setTimeout(() => socket.destroy(), 500);
    return () => clearTimeout(timer);
  });

/** Does something again and again until it is ended. */
function again(pause: number, act: () => void): () => void {
  act();
  const timer = setInterval(act, pause);
  return () => clearInterval(timer);
}
const many = (number: number, begin: () => () => void) => {
  const ends = Array.from({ length: number }, begin);
  return () => ends.forEach((end) => end());
};
/** Forty at once, and forty more when they are kept. */
function intoOneJob(): () => void {
  let isOver = false;
  void (async () => {
    while (!isOver) await Promise.allSettled(Array.from({ length: 40 }, async () => bringIn()));
  })();
  return () => (isOver = true);
}

const hindrances: [string, () => () => void][] = [
  ["nothing else", () => () => undefined],
  [
    "40 uploads that stall, begun anew every 3 s",
    () => {
      let ends = many(40, stalled);
      const stop = again(3000, () => (ends(), (ends = many(40, stalled))));
      return () => (stop(), ends());
    },
  ],
  ["2 uploads that stall and are left so", () => many(2, stalled)],
  ["100 uploads at 3 kB/s", () => many(100, () => trickled(3_000))],
  ["40 uploads that are cut, begun anew every second", () => again(1000, () => void many(40, cut))],
  ["40 small imports at once into another job, again and again", intoOneJob],
];

const paths = ["/", "/jobs", `/jobs/${to.job}`, "/board", "/api/v1/rigs"];
for (let k = 0; k < 8; k++) for (const path of paths) await (await fetch(address + path)).arrayBuffer();

const said = (times: number[]): string => {
  if (times.length === 0) return "none";
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.min(times.length - 1, Math.floor(share * times.length))]!.toFixed(0);
  return `${times.length} times, median ${at(0.5)}, 95 % under ${at(0.95)}, worst ${at(1)} ms`;
};

/** A person's pages and small imports beside something. */
async function beside(what: string, begin: () => () => void, lasts: number): Promise<void> {
  const pages: number[] = [];
  const imports: { status: number; ms: number }[] = [];
  const statuses: number[] = [];
  const end = begin();
  const asking = asker(address, paths, 30, ({ ms, status }) => (pages.push(ms), statuses.push(status)));
  const until = performance.now() + lasts;
  while (performance.now() < until) {
    imports.push(await bringIn(own));
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
  end();
  await asking.end();
  line(`Beside ${what}: pages`, `${said(pages)}, ${statuses.filter((status) => status >= 500).length} of 5xx`);
  line(
    "  small imports",
    `${said(imports.map(({ ms }) => ms))}, ${imports.filter(({ status }) => status !== 201).length} refused`,
  );
}

for (const [what, begin] of hindrances) {
  await beside(what, begin, seconds * 1000);
  // What was begun is over.
  await new Promise((resolve) => setTimeout(resolve, 6_000));
}

const memories: number[] = [];
const mixture = () => {
  const ends = [
    again(5000, () => void many(6, stalled)),
    again(2000, () => void many(6, cut)),
    again(6000, () => void many(4, () => trickled(3_000))),
    again(2000, () => void Promise.allSettled([1, 2, 3].map(async () => bringIn()))),
    again(1000, () => memories.push(memoryOf(process.env.LAMP_SERVER!))),
  ];
  return () => ends.forEach((end) => end());
};
if (minutes > 0) {
  await beside(`all of these mixed, ${minutes} min`, mixture, minutes * 60_000);
  const fifth = Math.floor(memories.length / 5);
  const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const parts = [0, 1, 2, 3, 4].map((k) => mean(memories.slice(k * fifth, (k + 1) * fifth)));
  line("Memory, mean of each fifth of it, MB", parts.map((part) => part.toFixed(0)).join(", "));
  line("The last fifth over the second", `${(parts[4]! / parts[1]!).toFixed(2)} (0.90 to 1.10)`);
}
process.exit(0);
