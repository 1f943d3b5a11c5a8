// Bodies made to be costly to read, at the doors' own bounds and past them: how long the thread that answers
// stands still, and how long everybody else waits meanwhile.
import pg from "pg";
import { doorList, usualBounds } from "@/contract";
import type { Catalogue } from "@/core/kit";
import type { ProfileFile } from "@/core/profile";
import type { Publication } from "@/core/publication";
import { packTrace, traceRole } from "@/core/trace";
import { asker } from "./asker";
import { jobToSendTo, manyFrames, runFrom, titleOf } from "./made";
import { line } from "./timing";

const address = process.env.LAMP_ADDRESS!;
const rounds = Number(process.argv[2] ?? 5);

const id = "00000000-0000-4000-8000-000000000000";
const list = (many: number, of: string) => `[${Array<string>(many).fill(of).join(",")}]`;
const keyed = (many: number) => `{${each(many, (k) => `"k${k}":1`).join(",")}}`;
const each = <Each>(many: number, of: (k: number) => Each) => Array.from({ length: many }, (_, k) => of(k));
const apart = (many: number, of: (k: number) => string) => `[${each(many, of).join(",")}]`;
const megabyte = 1024 * 1024;

/**
 * By what is wanted of the parser: as much as fits into the bytes of a door, and as much as its bounds let in.
 */
const hostile: [name: string, body: (keys: number, values: number, bytes: number, texts: number) => string][] =
  [
    ["a small one", () => `{"name":""}`],
    ["one long text", (_keys, _values, bytes) => `{"name":"${"x".repeat(bytes - 20)}"}`],
    ["escapes", (_keys, _values, bytes) => `{"name":"${"\\u0041".repeat(Math.floor(bytes / 6) - 4)}"}`],
    ["nested as deep as bytes allow", (_keys, _values, bytes) => "[".repeat(bytes / 2) + "]".repeat(bytes / 2)],
    [
      "empty lists, as bytes allow",
      (_keys, _values, bytes) => `{"name":${list(Math.floor(bytes / 3) - 8, "[]")}}`,
    ],
    ["names, as bytes allow", (_keys, _values, bytes) => keyed(Math.floor(bytes / 13))],
    ["empty lists, as bounds allow", (_keys, values) => `{"name":${list(Math.floor(values / 2) - 2, "[]")}}`],
    [
      "texts that differ, as bounds allow",
      (_keys, values, _bytes, texts) => `{"name":${apart(Math.min(values, texts) - 3, (k) => `"s${k}"`)}}`,
    ],
    ["figures, as bounds allow", (_keys, values) => `{"name":${list(values - 3, "16.683")}}`],
    ["names in one object, as bounds allow", (keys) => keyed(keys)],
    [
      "names of their own in many objects, as bounds allow",
      (keys) =>
        `{"name":${apart(Math.floor((keys - 1) / 4), (k) => `{"a${k}":1,"b${k}":1,"c${k}":1,"d${k}":1}`)}}`,
    ],
  ];
const json = doorList.filter(({ method, bounds }) => method !== "GET" && bounds !== null);
const usual = json.find(({ id: own, bounds }) => own === "addTitle" && bounds === usualBounds)!;
const own = json.filter(({ bounds }) => bounds !== usualBounds);

let most = 0;
const asking = asker(address, ["/api/v1/health"], 1, ({ ms }) => (most = Math.max(most, ms)));
const rest = async (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * The longest that the process's own thread stood still since this was last asked, by its own clock, ms; at the
 * most 10 too much, the pace it looks at.
 */
async function stoodStill(): Promise<number> {
  const text = await (await fetch(`${address}/api/v1/metrics`)).text();
  return 1000 * Number(/^lamp_nodejs_eventloop_lag_max_seconds (\S+)/m.exec(text)?.[1]);
}

const inWords = (times: number[]) => {
  times.sort((a, b) => a - b);
  return `${times[Math.floor(times.length / 2)]!.toFixed(0)} (${times.at(-1)!.toFixed(0)})`;
};

interface Sent {
  method: string;
  path: string;
  /** JSON as a text, anything else as bytes. */
  body: string | Uint8Array<ArrayBuffer>;
}

async function send({ method, path, body }: Sent): Promise<{ status: number; text: string }> {
  const sent = await fetch(`${address}/api/v1${path}`, {
    method,
    headers: {
      "content-type": typeof body === "string" ? "application/json" : "application/octet-stream",
      "idempotency-key": crypto.randomUUID(),
      "if-match": '"1"',
    },
    body,
  });
  return { status: sent.status, text: await sent.text() };
}

/** @param make what is sent, a round: made beforehand */
async function longest(
  make: (round: number) => Sent | Promise<Sent>,
  { many = rounds, taken = false } = {},
): Promise<string> {
  const waits: number[] = [],
    still: number[] = [];
  let status = 0;
  for (let round = 0; round < many; round++) {
    const sent = await make(round);
    await rest(150);
    await stoodStill();
    most = 0;
    const answer = await send(sent);
    status = answer.status;
    if (taken && status >= 300) throw new Error(`${sent.path}: ${status} ${answer.text.slice(0, 300)}`);
    await rest(50);
    waits.push(most);
    still.push(await stoodStill());
  }
  return `${status}, stands still ${inWords(still)}, others wait ${inWords(waits)} ms`;
}

await stoodStill();
most = 0;
await rest(2000);
line(
  "Health asked by itself, the longest of two seconds",
  `stands still ${(await stoodStill()).toFixed(0)}, waits ${most.toFixed(0)} ms`,
);
for (const door of [usual, ...own]) {
  const { keys, values, texts } = door.bounds!;
  console.log(
    `\n${door.method} ${door.path}: ${(door.mostBytes / megabyte).toFixed(0)} MB, ${keys.toLocaleString("en-GB")} names, ${values.toLocaleString("en-GB")} values, ${texts.toLocaleString("en-GB")} texts`,
  );
  for (const [name, make] of hostile) {
    const body = make(keys, values, door.mostBytes, texts);
    if (body.length > door.mostBytes) continue;
    const path = door.path.replace(/\{\w+\}/g, id);
    line(`  ${name}`, await longest(() => ({ method: door.method, path, body })));
  }
}

console.log("\nAs they should be, as large as doors take them");
const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
await client.connect();
const to = await jobToSendTo(client);
const post = (path: string, body: unknown): Sent => ({ method: "POST", path, body: JSON.stringify(body) });
const opened = async (round: number) => {
  const { text } = await send(post("/runs/open", { run: runFrom(`growing ${round}.csv`, to), form: "frames" }));
  return (JSON.parse(text) as { id: string }).id;
};
const frames = Array.from(manyFrames(0.6), (each) => Math.round(each * 1000) / 1000);
const piece = (run: string) => post(`/runs/${run}/pieces`, { role: traceRole, sequence: 0, values: frames });
line("  150,000 frames appended", await longest(async (round) => piece(await opened(round)), { taken: true }));
const marks = each(10_000, (k) => ({ label: `part ${k}`, startMs: k * 200, endMs: k * 200 + 150 }));
line(
  "  a run ended with 10,000 marks",
  await longest(
    async (round) => {
      const run = await opened(rounds + round);
      await send(piece(run));
      return post(`/runs/${run}/finish`, { state: "whole", marks });
    },
    { taken: true },
  ),
);
const published = JSON.parse(
  await (await fetch(`${address}/api/v1/publications?of=board`)).text(),
) as Publication;
const columns = ["device", "title", "frames a second", "verdict", "runs"];
const rows = each(20_000, (k) => [`device ${k % 200}`, `title ${k}`, 30 + (k % 300) / 10, "steady", k % 9]);
line(
  "  a publication of 100,000 cells",
  await longest(
    (round) =>
      post("/others", {
        from: "the benchmark",
        publication: { ...published, name: `large ${round}`, tables: [{ name: "all", columns, rows }] },
      }),
    { taken: true },
  ),
);
line("  a profile of 12,000 values", await longest(await profiles(), { taken: true }));
const bytes = packTrace(
  { form: "frames", frameTimes: manyFrames(60), channels: [], marks: [] },
  { ...runFrom("large.csv", to), again: true },
);
line(
  "  a run of 60 MB",
  await longest(() => ({ method: "POST", path: "/runs", body: bytes }), {
    many: Math.min(rounds, 3),
    taken: true,
  }),
);
await client.end();
await asking.end();

/** A profile as a file: every setting of its engine as it is by itself, for titles enough. */
async function profiles(): Promise<() => Promise<Sent>> {
  const { rows: places } = await client.query<{ rig: string; engine: string; system: string }>(
    `select p.rig_id as rig, p.engine_id as engine, e.system_id as system
     from profile_values p join engine_systems e on e.engine_id = p.engine_id limit 1`,
  );
  const { rig, engine, system } = places[0]!;
  const of = `rig=${rig}&engine=${engine}`;
  const read = async <Answer>(path: string) =>
    (await (await fetch(`${address}/api/v1${path}`)).json()) as Answer;
  const file = await read<ProfileFile>(`/profile/file?${of}`);
  const { settings } = await read<Catalogue>(`/engines/${engine}/catalogue`);
  const titles = each(Math.ceil(12_000 / settings.length), (k) => `Bench title ${k}`);
  for (const name of titles) await send(post("/titles", titleOf(system, name)));
  const [from, at] = ["the benchmark", "2026-11-27T08:00:00Z"];
  const values = titles
    .flatMap((title) =>
      settings.map((setting) => ({
        ...{ layer: "title", system: null, title, build: null, from, at },
        ...{ key: setting.key, value: setting.default },
      })),
    )
    .slice(0, 12_000);
  return async () => {
    const { saw } = await read<{ saw: number }>(`/profile?${of}`);
    return {
      ...post("/profile/file", { rigId: rig, engineId: engine, saw, file: { ...file, values } }),
      method: "PUT",
    };
  };
}
