// Bodies made to be costly to read, at the doors' own bounds and past them: how long everybody else waits
// meanwhile.
import { doorList, usualBounds } from "@/contract";
import { asker } from "./asker";
import { line } from "./timing";

const address = process.env.LAMP_ADDRESS!;
const rounds = Number(process.argv[2] ?? 5);

const id = "00000000-0000-4000-8000-000000000000";
const list = (many: number, of: string) => `[${Array<string>(many).fill(of).join(",")}]`;
const keyed = (many: number) => `{${Array.from({ length: many }, (_, k) => `"k${k}":1`).join(",")}}`;
const apart = (many: number, of: (k: number) => string) =>
  `[${Array.from({ length: many }, (_, k) => of(k)).join(",")}]`;
const megabyte = 1024 * 1024;

/**
 * By what is wanted of the parser: as much as fits into the bytes of a door, and as much as its bounds let in.
 */
const hostile: [name: string, body: (keys: number, values: number, bytes: number, texts: number) => string][] =
  [
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
async function longest(path: string, method: string, body: string): Promise<string> {
  const waits: number[] = [];
  let status = 0;
  for (let round = 0; round < rounds; round++) {
    await rest(150);
    most = 0;
    const sent = await fetch(address + path, {
      method,
      headers: {
        "content-type": "application/json",
        "idempotency-key": crypto.randomUUID(),
        "if-match": '"1"',
      },
      body,
    });
    await sent.arrayBuffer();
    status = sent.status;
    await rest(50);
    waits.push(most);
  }
  waits.sort((a, b) => a - b);
  return `${status}, median ${waits[Math.floor(rounds / 2)]!.toFixed(0)}, most ${waits.at(-1)!.toFixed(0)} ms`;
}

await rest(1000);
most = 0;
await rest(2000);
line("Health asked by itself, the longest of two seconds", `${most.toFixed(0)} ms`);
for (const door of [usual, ...own]) {
  const { keys, values, texts } = door.bounds!;
  console.log(
    `\n${door.method} ${door.path}: ${(door.mostBytes / megabyte).toFixed(0)} MB, ${keys.toLocaleString("en-GB")} names, ${values.toLocaleString("en-GB")} values, ${texts.toLocaleString("en-GB")} texts`,
  );
  for (const [name, make] of hostile) {
    const body = make(keys, values, door.mostBytes, texts);
    if (body.length > door.mostBytes) continue;
    line(`  ${name}`, await longest(`/api/v1${door.path.replace(/\{\w+\}/g, id)}`, door.method, body));
  }
}
await asking.end();
