// One, two and four processes of the application on one database: what they answer, whom a change reaches, and
// that nothing is done twice.
import autocannon from "autocannon";
import pg from "pg";
import { startServer, stopServer } from "../lib/application.mjs";
import { freePort } from "../lib/run.mjs";
import { changeSomething, titleOf } from "./made";
import { childrenOf, held } from "./held";
import { fillShelf, fullShelf } from "./shelf";
import { line } from "./timing";

const url = process.env.DATABASE_URL!;
const jobId = await fillShelf(url, fullShelf);
const client = new pg.Client({ connectionString: url });
await client.connect();
const count = async (what: string) =>
  Number((await client.query<{ n: string }>(`select count(*) as n from ${what}`)).rows[0]!.n);

/** Hears changes until it is told to stop; tells whether one came. */
async function listener(address: string) {
  const stop = new AbortController();
  const answer = await fetch(`${address}/api/v1/events`, { signal: stop.signal });
  const reader = answer.body!.getReader();
  let heard = "";
  const reading = (async () => {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) return;
      heard += new TextDecoder().decode(value);
    }
  })().catch(() => undefined);
  return {
    hears: (text: string) => heard.includes(text),
    end: async () => {
      stop.abort();
      await reading;
    },
  };
}

const pages = [
  ["first page", "/"],
  ["job of 200 runs", `/jobs/${jobId}`],
  ["health", "/api/v1/health"],
] as const;

/** Twenty people ask for each of these, while something changes every second. */
async function ask(address: string, asked: readonly (readonly [string, string])[], warmSeconds: number) {
  for (const [name, path] of asked) {
    const timer = setInterval(() => void changeSomething(client), 1000);
    const twenty = { url: address + path, connections: 20, timeout: 60 };
    // Every process has to have drawn it several times: one that has drawn it once is far from its pace.
    await autocannon({ ...twenty, duration: warmSeconds });
    const { requests, latency, errors, non2xx } = await autocannon({ ...twenty, duration: 8 });
    clearInterval(timer);
    line(
      `${name}, twenty people, something changed every second`,
      `${requests.average.toFixed(0)} a second, 97.5 % under ${latency.p97_5} ms, ${errors + non2xx} failed`,
    );
  }
}

for (const processes of [1, 2, 4]) {
  const port = await freePort(3610);
  const server = await startServer({ port, url, processes, quiet: true });
  const address = `http://127.0.0.1:${port}`;
  try {
    console.log(`\n${processes} ${processes === 1 ? "process" : "processes"}`);
    await ask(address, pages, 4 + 8 * processes);

    const heard = await Promise.all(Array.from({ length: 12 }, async () => listener(address)));
    const before = await count("titles");
    const system = (await client.query<{ id: string }>(`select system_id as id from titles limit 1`)).rows[0]!
      .id;
    const key = crypto.randomUUID();
    const body = JSON.stringify(titleOf(system, `Told to ${processes} processes`));
    const answers = await Promise.all(
      Array.from({ length: 30 }, async () => {
        const sent = await fetch(`${address}/api/v1/titles`, {
          method: "POST",
          headers: { "content-type": "application/json", "idempotency-key": key },
          body,
        });
        return { status: sent.status, text: await sent.text() };
      }),
    );
    await new Promise((resolve) => setTimeout(resolve, 1500));
    const alike = new Set(answers.map(({ status, text }) => `${status} ${text}`));
    line(
      "a change made once, told to twelve who listen",
      `${heard.filter(({ hears }) => hears('"titles"')).length} heard it`,
    );
    line(
      "thirty tries at once under one key",
      `${answers.filter(({ status }) => status === 201).length} answered, ${alike.size === 1 ? "all the same" : `${alike.size} differently`}, ${(await count("titles")) - before} made`,
    );
    await Promise.all(heard.map(async ({ end }) => end()));

    const letGo = held(processes === 1 ? [server.pid!] : childrenOf(server.pid!), 1 / 4);
    if (letGo) {
      console.log("each held to a quarter of a processor");
      await ask(address, [pages[0], pages[2]], 4);
      letGo();
    } else console.log("this machine lets nobody hold processes to a share of a processor");
  } finally {
    await stopServer(server);
  }
}
await client.end();
