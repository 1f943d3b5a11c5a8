// Values and requests by the contract's own schemas: as they should be, nearly so, and hostile. Seeded: the
// same again for the same seed.
import { z } from "@/core/schema";
import { endpointList, takesBytes } from "@/contract";
import { seeded } from "@/core/stats";

type Random = ReturnType<typeof seeded>;
type Schema = Record<string, unknown>;
const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random.uniform() * from.length)]!;

/** Texts that something in the way from a request to a page has stumbled over before, somewhere. */
export const hostileTexts = [
  "",
  " ",
  "\u0000",
  "a\u0000b",
  "\ud800",
  "\udfff\ud800",
  "\u202egnitset",
  "\ufeff",
  "'; drop table runs; --",
  '" or 1=1 --',
  "%_\\",
  "<script>window.harmed = true</script>",
  '<img src=x onerror="window.harmed = true">',
  "</title><script>window.harmed = true</script>",
  "javascript:window.harmed=true",
  "{{constructor.constructor('return 1')()}}",
  "${7*7}",
  "=1+1",
  "@SUM(A1)",
  "../../../../etc/passwd",
  "constructor",
  "__proto__",
  "toString",
  "null",
  "NaN",
  "1e400",
  "0x10",
  "-0",
  "𝒯𝒾𝓉𝓁𝑒",
  "مرحبا بالعالم",
  "Z̡̢̧̨̛͎a̴l̷g̸o",
  "a".repeat(300),
  "é".repeat(5000),
  "\r\n\r\nHTTP/1.1 200 OK",
  "00000000-0000-4000-8000-000000000000",
  "not-an-id",
] as const;
const hostileNumbers = [
  0,
  -0,
  -1,
  1,
  0.1,
  1e-320,
  1e308,
  -1e308,
  2 ** 31,
  2 ** 53,
  2 ** 63,
  3e38,
  1e-44,
  16.7,
  1000,
];
const hostileOthers: unknown[] = [
  null,
  true,
  false,
  [],
  {},
  [[]],
  [null],
  { toString: 1 },
  { __proto__: null, a: 1 },
];
const hostile = (random: Random): unknown =>
  pick(random, [
    () => pick(random, hostileTexts),
    () => pick(random, hostileTexts),
    () => pick(random, hostileNumbers),
    () => pick(random, hostileOthers),
    () => Array.from({ length: 200 }, () => pick(random, hostileNumbers)),
    () => Object.fromEntries(Array.from({ length: 60 }, (_, k) => [`k${k}`, k])),
  ])();

/** A value that a JSON schema describes, or, as often as `harm` says, one at some place that it doesn't. */
export function valueBy(
  schema: Schema,
  random: Random,
  harm: number,
  ids: readonly string[],
  depth = 0,
): unknown {
  if (random.uniform() < harm) return hostile(random);
  const again = (inner: unknown) => valueBy((inner ?? {}) as Schema, random, harm, ids, depth + 1);
  if ("const" in schema) return schema.const;
  if (Array.isArray(schema.enum)) return pick(random, schema.enum as unknown[]);
  for (const several of ["anyOf", "oneOf"] as const)
    if (Array.isArray(schema[several])) return again(pick(random, schema[several] as Schema[]));
  if (Array.isArray(schema.allOf)) return again((schema.allOf as Schema[])[0]);
  const type = Array.isArray(schema.type) ? pick(random, schema.type as string[]) : schema.type;
  if (type === "object") {
    const required = new Set((schema.required ?? []) as string[]);
    const made: Record<string, unknown> = {};
    for (const [name, inner] of Object.entries((schema.properties ?? {}) as Record<string, Schema>))
      if (required.has(name) || random.uniform() < 0.7) made[name] = again(inner);
    if (random.uniform() < harm) made[pick(random, hostileTexts)] = hostile(random);
    return made;
  }
  if (type === "array") {
    const { minItems = 0, maxItems = 4 } = schema as { minItems?: number; maxItems?: number };
    if (Array.isArray(schema.prefixItems)) return (schema.prefixItems as Schema[]).map(again);
    const length = Math.min(maxItems, minItems + Math.floor(random.uniform() * 3), depth > 8 ? minItems : 50);
    return Array.from({ length }, () => again(schema.items));
  }
  if (type === "number" || type === "integer") {
    const low = Math.max(-1000, Number(schema.minimum ?? schema.exclusiveMinimum ?? 0));
    const high = Math.min(low + 1000, Number(schema.maximum ?? schema.exclusiveMaximum ?? low + 100));
    const value = low + random.uniform() * (high - low);
    return type === "integer" ? Math.round(value) : value;
  }
  if (type === "boolean") return random.uniform() < 0.5;
  if (type === "null") return null;
  if (schema.format === "uuid")
    return ids.length > 0 ? pick(random, ids) : "00000000-0000-4000-8000-000000000000";
  if (schema.format === "date") return "2026-11-26";
  if (schema.pattern === "^([01]\\d|2[0-3]):[0-5]\\d$") return "19:30";
  const longest = Math.min(40, Number(schema.maxLength ?? 40));
  return "Made up text, as long as it may be, of words".slice(
    0,
    Math.max(Number(schema.minLength ?? 0), 1 + Math.floor(random.uniform() * longest)),
  );
}

export interface Called {
  endpoint: string;
  method: string;
  path: string;
  headers: Record<string, string>;
  body: string | Uint8Array | undefined;
}

/** Endpoints that take everything away or put it back: a store that is being tried is still wanted. */
const spared = new Set(["removeDemo", "bringDemo", "events", "signIn"]);

/** Endpoints that are asked, each as often as the others. */
export const askedEndpoints = endpointList.filter(({ id }) => !spared.has(id));

/** What a query may end in that no client writes: broken escapes, cursors of nobody's, a name twice. */
const hostileQueries = [
  "%ff",
  "%",
  "cursor=%00",
  "cursor=bm9uc2Vuc2U",
  `cursor=${Buffer.from('["yesterday","x"]').toString("base64url")}`,
  `cursor=${Buffer.from("[null,null]").toString("base64url")}`,
  `cursor=${"x".repeat(5000)}`,
  "rig=x&engine=y&system=z&title=1&run=2&id=3",
  "asOf=31.12.2026",
  "asOf=2026-13-45T99:99:99Z",
  "limit=1e99&limit=-1&search=%F0%9F%92%A1",
  "since=99999999999999999999",
] as const;

/** A request to an endpoint of the contract. @param ids that are there, to be asked for */
export function requestBy(
  random: Random,
  ids: readonly string[],
  endpoint = pick(random, askedEndpoints),
): Called {
  const harm = pick(random, [0, 0.03, 0.15, 0.5]);
  const id = () => (random.uniform() < 0.8 && ids.length > 0 ? pick(random, ids) : pick(random, hostileTexts));
  const path = endpoint.path.replaceAll(/\{\w+\}/g, () => encodeURIComponent(wellFormed(id()) || "x"));
  const query = new URLSearchParams();
  if (endpoint.query) {
    const value = valueBy(
      z.toJSONSchema(endpoint.query, { io: "input", unrepresentable: "any" }),
      random,
      harm,
      ids,
    );
    if (typeof value === "object" && value !== null)
      for (const [name, each] of Object.entries(value))
        if (random.uniform() < 0.6)
          query.append(name, typeof each === "object" ? JSON.stringify(each) : String(each));
  }
  const headers: Record<string, string> = {};
  if (endpoint.edits)
    headers["if-match"] = random.uniform() < 0.8 ? `"${1 + Math.floor(random.uniform() * 3)}"` : "x";
  if (endpoint.creates && random.uniform() < 0.5)
    headers["idempotency-key"] = `key-${Math.floor(random.uniform() * 1e9)}`;
  let body: Called["body"];
  if (endpoint.method !== "GET" && takesBytes(endpoint)) {
    headers["content-type"] = "application/octet-stream";
    body = Uint8Array.from({ length: Math.floor(random.uniform() * 400) }, () =>
      Math.floor(random.uniform() * 256),
    );
  } else if (endpoint.method !== "GET") {
    headers["content-type"] = random.uniform() < 0.03 ? "text/plain" : "application/json";
    const value = endpoint.body
      ? valueBy(z.toJSONSchema(endpoint.body, { io: "input", unrepresentable: "any" }), random, harm, ids)
      : {};
    body = JSON.stringify(value) ?? "null";
    if (random.uniform() < harm / 5) body = body.slice(0, Math.floor(random.uniform() * body.length));
  }
  const asked = [String(query), ...(random.uniform() < 0.1 ? [pick(random, hostileQueries)] : [])].filter(
    Boolean,
  );
  return {
    endpoint: endpoint.id,
    method: endpoint.method,
    path: `/api/v1${path}${asked.length > 0 ? `?${asked.join("&")}` : ""}`,
    headers,
    body,
  };
}

const wellFormed = (text: string) => text.replaceAll(/\p{Surrogate}/gu, "\ufffd");

/** Ids of what is there, by the lists that tell. */
export async function idsAt(address: string): Promise<string[]> {
  const ids: string[] = [];
  for (const list of ["jobs", "rigs", "titles", "campaigns"]) {
    const { rows } = (await (await fetch(`${address}/api/v1/${list}`)).json()) as {
      rows: Record<string, string>[];
    };
    for (const row of rows.slice(0, 12))
      for (const [name, value] of Object.entries(row))
        if (/^id$|Id$/.test(name) && typeof value === "string" && /^[0-9a-f-]{36}$/.test(value))
          ids.push(value);
  }
  const jobs = [...new Set(ids)].slice(0, 12);
  for (const id of jobs) {
    const answer = await fetch(`${address}/api/v1/jobs/${id}`);
    if (!answer.ok) continue;
    const { runs, trials } = (await answer.json()) as { runs: { id: string }[]; trials: { id: string }[] };
    ids.push(...[...runs, ...trials].slice(0, 12).map((each) => each.id));
  }
  return [...new Set(ids)];
}

/** Longer than this an answer hangs, ms. */
export const hangsMs = 2_000;

export interface Found {
  asked: number;
  statuses: Record<string, number>;
  /** Answers of 5xx, answers that hung, and requests that weren't answered at all. */
  bad: { status: number; ms: number; request: Called; said: string }[];
  slowestMs: number;
}

/** Sends requests one after the other, and says what came of them. @param patienceMs an answer takes no longer */
export async function callMany(
  address: string,
  many: number,
  seed: number,
  patienceMs = hangsMs,
): Promise<Found> {
  const random = seeded(seed);
  const ids = await idsAt(address);
  const found: Found = { asked: 0, statuses: {}, bad: [], slowestMs: 0 };
  for (let k = 0; k < many; k++) {
    const request = requestBy(random, ids, askedEndpoints[k % askedEndpoints.length]);
    const began = performance.now();
    let status = 0;
    let said: string;
    try {
      const { body } = request;
      const answer = await fetch(address + request.path, {
        method: request.method,
        headers: request.headers,
        ...(body === undefined ? {} : { body: typeof body === "string" ? body : Buffer.from(body) }),
      });
      status = answer.status;
      said = (await answer.text()).slice(0, 200);
    } catch (error) {
      said = String((error as Error).cause ?? error);
    }
    const ms = performance.now() - began;
    found.asked++;
    found.statuses[status] = (found.statuses[status] ?? 0) + 1;
    found.slowestMs = Math.max(found.slowestMs, ms);
    if (status === 0 || status >= 500 || ms > patienceMs) found.bad.push({ status, ms, request, said });
  }
  return found;
}

/** A text with a few of its bytes changed, cut, doubled or moved. */
export function mutated(text: string, random: Random): string {
  let made = text;
  for (let k = 0; k < 1 + Math.floor(random.uniform() * 4); k++) {
    const at = Math.floor(random.uniform() * made.length),
      to = Math.min(made.length, at + Math.floor(random.uniform() * 60));
    made = pick(random, [
      () => made.slice(0, at) + made.slice(to),
      () => made.slice(0, at) + pick(random, hostileTexts) + made.slice(at),
      () => made.slice(0, to) + made.slice(at, to) + made.slice(to),
      () =>
        made.slice(0, at) +
        pick(random, [
          '"',
          "'",
          ",",
          ";",
          "\t",
          "\r",
          "\n",
          "\r\n",
          "{",
          "}",
          "[",
          "]",
          "\u0000",
          "-",
          "0x",
          "e308",
        ]) +
        made.slice(at),
      () => made.slice(0, at) + String(pick(random, hostileNumbers)) + made.slice(to),
      () =>
        made.replaceAll(pick(random, [",", ".", "\n", '"', ":"]), pick(random, [";", ",", "\r\n", "\t", " "])),
    ])();
  }
  return made;
}
