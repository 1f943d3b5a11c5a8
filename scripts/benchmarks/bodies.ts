// Bodies made to be costly to read, at the endpoints' own bounds and past them: how long the thread that answers
// stands still, and how long everybody else waits meanwhile.
import pg from "pg";
import { endpointList, usualBounds } from "@/contract";
import { asker } from "./asker";
import { largest, sender, type Sent } from "./laden";
import { line } from "./timing";

const address = process.env.LAMP_ADDRESS!;
const rounds = Number(process.argv[2] ?? 5);
const asked = sender(address);

const id = "00000000-0000-4000-8000-000000000000";
const list = (many: number, of: string) => `[${Array<string>(many).fill(of).join(",")}]`;
const each = (many: number, of: (k: number) => string) =>
  Array.from({ length: many }, (_, k) => of(k)).join(",");
const keyed = (many: number) => `{${each(many, (k) => `"k${k}":1`)}}`;
const apart = (many: number, of: (k: number) => string) => `[${each(many, of)}]`;
const megabyte = 1024 * 1024;

/**
 * By what is wanted of the parser: as much as fits into the bytes of an endpoint, and as much as its bounds let in.
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
const json = endpointList.filter(({ method, bounds }) => method !== "GET" && bounds !== null);
const usual = json.find(({ id: own, bounds }) => own === "addTitle" && bounds === usualBounds)!;
const own = json.filter(({ bounds }) => bounds !== usualBounds);

let most = 0;
const asking = asker(address, ["/api/v1/health"], 1, ({ ms }) => (most = Math.max(most, ms)));
const rest = async (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

const inWords = (times: number[]) => {
  times.sort((a, b) => a - b);
  return `${times[Math.floor(times.length / 2)]!.toFixed(0)} (${times.at(-1)!.toFixed(0)})`;
};

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
    await asked.stoodStill();
    most = 0;
    const answer = await asked.send(sent);
    status = answer.status;
    if (taken && status >= 300) throw new Error(`${sent.path}: ${status} ${answer.text.slice(0, 300)}`);
    await rest(50);
    waits.push(most);
    still.push(await asked.stoodStill());
  }
  return `${status}, stands still ${inWords(still)}, others wait ${inWords(waits)} ms`;
}

await asked.stoodStill();
most = 0;
await rest(2000);
line(
  "Health asked by itself, the longest of two seconds",
  `stands still ${(await asked.stoodStill()).toFixed(0)}, waits ${most.toFixed(0)} ms`,
);
for (const endpoint of [usual, ...own]) {
  const { keys, values, texts } = endpoint.bounds!;
  console.log(
    `\n${endpoint.method} ${endpoint.path}: ${(endpoint.mostBytes / megabyte).toFixed(0)} MB, ${keys.toLocaleString("en-GB")} names, ${values.toLocaleString("en-GB")} values, ${texts.toLocaleString("en-GB")} texts`,
  );
  for (const [name, make] of hostile) {
    const body = make(keys, values, endpoint.mostBytes, texts);
    if (body.length > endpoint.mostBytes) continue;
    const path = endpoint.path.replace(/\{\w+\}/g, id);
    line(`  ${name}`, await longest(() => ({ method: endpoint.method, path, body })));
  }
}

console.log("\nAs they should be, as large as endpoints take them");
const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
await client.connect();
const large = await largest(asked, client);
const taken = true;
line(
  "  150,000 frames appended",
  await longest(async (round) => large.piece(await large.opened(`growing ${round}.csv`)), { taken }),
);
line(
  "  a run ended with 10,000 marks",
  await longest(
    async (round) => {
      const run = await large.opened(`growing ${rounds + round}.csv`);
      await asked.send(large.piece(run));
      return large.finish(run);
    },
    { taken },
  ),
);
line(
  "  a publication of 100,000 cells",
  await longest((round) => large.publication(`large ${round}`), { taken }),
);
line("  a profile of 12,000 values", await longest(large.profile, { taken }));
line("  a run of 60 MB", await longest(large.run, { many: Math.min(rounds, 3), taken }));
await client.end();
await asking.end();
