import { createHash } from "node:crypto";
import type { ReactNode } from "react";
import { createElement } from "react";
import { z } from "zod";
import { doorList, doors, withWords, type Door, type DoorName } from "@/contract";
import {
  asRead,
  BodyGauge,
  Problem,
  Room,
  answeredOnce,
  knockOf,
  mayPass,
  asProblem,
  countRequest,
  heavy,
  journal,
  nobody,
  useCases,
  watchChanges,
  type Knock,
  type SentAsRead,
} from "@/server";
import { isOwnHost, isOwnOrigin } from "@/serve/addresses";
import { ProblemPanel } from "@/ui";

/** What a route with an id in its address is handed. */
export interface WithId {
  params: Promise<{ id: string }>;
}

/** Only the application's own names are answered: a page elsewhere can't point a name of its own at us. */
function checkHost(request: Request): void {
  if (!isOwnHost(request.headers.get("host")))
    throw new Problem(421, "This address isn't answered.", "Open the application at the address it printed.");
}

/** Pages of other sites may not write. */
function checkOrigin({ headers }: Request, secure: boolean): void {
  const [origin, site, host] = ["origin", "sec-fetch-site", "host"].map((name) => headers.get(name));
  if (
    !isOwnOrigin({ origin: origin ?? null, site: site ?? null, host: host ?? null }, secure ? "https" : "http")
  )
    throw new Problem(
      403,
      "This request came from another site and was refused.",
      "Use the application's own page.",
    );
}

/** Whoever knocks has to be let do what the door does. */
function checkRights({ asker }: Knock, { who }: Door): void {
  if (mayPass(asker, who)) return;
  if (asker === null)
    throw new Problem(401, "Nobody is let in here without signing in.", "Sign in, or send a token.");
  throw new Problem(
    403,
    who === "tunes" ? "You may read here, not change." : "This token doesn't open this door.",
    "Ask whoever keeps this machine.",
  );
}

const unkept = { "cache-control": "no-store" };

function refused(error: unknown): Response {
  let problem: Problem;
  try {
    problem = asProblem(error);
  } catch (unknown) {
    journal().error({ err: unknown }, "unexpected");
    problem = new Problem(
      500,
      "Something went wrong here.",
      "Nothing was changed. Try again; the log of the server says more.",
    );
  }
  return Response.json(withWords(problem.toJSON()), {
    status: problem.status,
    headers: { "content-type": "application/problem+json", ...unkept },
  });
}

/** The door that a method and a path under /api/v1 lead to, with the id in the path. */
function doorAt(method: string, segments: string[]): { door: Door; id: string } | null {
  for (const door of doorList) {
    if (door.method !== method) continue;
    const parts = door.path.slice(1).split("/");
    if (parts.length !== segments.length) continue;
    if (!parts.every((part, at) => part.startsWith("{") || part === segments[at])) continue;
    // Words stand before ids: /runs/open is no run called "open".
    return { door, id: segments[parts.findIndex((part) => part.startsWith("{"))] ?? "" };
  }
  return null;
}

/** The version that an edit saw, by its If-Match. */
function sawIn(request: Request, { edits }: Door): number | null {
  if (edits === null) return null;
  const tag = request.headers.get("if-match");
  if (tag === null && edits === "optional") return null;
  if (tag === null)
    throw new Problem(
      428,
      "An edit has to say which version it saw.",
      'Read it first, and send its version as If-Match: "N".',
    );
  const found = /^(?:W\/)?"(\d{1,9})"$/.exec(tag.trim());
  if (!found) throw new Problem(422, "If-Match names no version.", 'Send the version in quotes: "3".');
  return Number(found[1]);
}

/** A body is JSON where it says so; what a form of another site can send isn't. */
function checkType(request: Request): void {
  const type = request.headers.get("content-type") ?? "";
  if (!/^application\/([\w.-]+\+)?json\b/i.test(type))
    throw new Problem(415, "The request's body doesn't say that it is JSON.", "Send it as application/json.");
}

const noJson = () => new Problem(400, "The request's body is no JSON.", "Send a JSON object.");

/** What a body may hold to be read at once; figures in a list are read in no time. */
const easy = { bytes: 2 * 1024 * 1024, keys: 8_000, texts: 20_000, values: 40_000 };

function jsonIn(bytes: Uint8Array): unknown {
  if (bytes.length === 0) return undefined;
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    throw noJson();
  }
}

/** From here on an answer is called slow, ms. */
const slowMs = 1000;

/** Said with every answer: it is what it says it is, and no page of somebody else's. */
const guards = {
  "x-content-type-options": "nosniff",
  "x-frame-options": "DENY",
  "referrer-policy": "same-origin",
  "cross-origin-resource-policy": "same-origin",
  "content-security-policy": "default-src 'none'; frame-ancestors 'none'",
};

/**
 * Answers any request under /api/v1 by the contract; refusals and slow answers leave a line with their kind,
 * not their content.
 */
export async function answerDoor(request: Request, segments: string[]): Promise<Response> {
  const began = performance.now();
  const requestId = crypto.randomUUID();
  const door = doorAt(request.method, segments)?.door.id ?? "none";
  const response = await answered(request, segments);
  const ms = performance.now() - began;
  for (const [name, value] of Object.entries({ ...guards, "x-request-id": requestId }))
    response.headers.set(name, value);
  countRequest(door, response.status, ms / 1000);
  const told = { requestId, door, method: request.method, status: response.status, ms: Math.round(ms) };
  if (response.status >= 500) journal().error(told, "failed");
  else if (response.status >= 400 && response.status !== 404) journal().warn(told, "refused");
  else if (ms > slowMs) journal().warn(told, "slow");
  return response;
}

async function answered(request: Request, segments: string[]): Promise<Response> {
  try {
    checkHost(request);
    const knock = knockOf(request.headers);
    if (request.method !== "GET") checkOrigin(request, knock.secure);
    const found = doorAt(request.method, segments);
    if (!found)
      throw new Problem(404, "There is no such door.", "The doors are listed at /api/v1/openapi.json.");
    const { door } = found;
    checkRights(knock, door);
    if (door.gives === "events") return events(request);
    const saw = sawIn(request, door);
    const length = Number(request.headers.get("content-length") ?? 0) || 0;
    const asIt = async () => carriedOut(request, found, knock, saw, length);
    // Small ones come in as they are.
    return await (request.method === "GET" || door.mostBytes < smallBytes
      ? asIt()
      : room.within(length || door.mostBytes, asIt));
  } catch (error) {
    return refused(error);
  }
}

/** Doors that take no more than this need no room of their own, bytes. */
const smallBytes = 4 * 1024 * 1024;

async function carriedOut(
  request: Request,
  { door, id }: { door: Door; id: string },
  knock: Knock,
  saw: number | null,
  length: number,
): Promise<Response> {
  const key = door.creates ? request.headers.get("idempotency-key") : null;
  const digest = key === null ? null : createHash("sha256");
  const gauge = door.bounds && new BodyGauge(door.bounds);
  const bytes =
    request.method === "GET"
      ? new Uint8Array()
      : await bodyOf(request, door.mostBytes, length, (part) => {
          gauge?.see(part);
          digest?.update(part);
        });
  if (door.takes === "json" && bytes.length > 0) checkType(request);
  const isMuch =
    gauge !== null &&
    (bytes.length > easy.bytes ||
      gauge.keys > easy.keys ||
      gauge.texts > easy.texts ||
      gauge.values > easy.values);
  const body = door.takes === "bytes" ? bytes : isMuch ? await readAside(bytes, door) : jsonIn(bytes);
  const query = Object.fromEntries(new URL(request.url).searchParams);
  const agent = request.headers.get("user-agent") ?? "";
  const asked = { actor: knock.asker ?? nobody, knock, agent, id, query, body, saw };
  const useCase = useCases[door.id as Exclude<DoorName, "events">];
  const once = key !== null && digest ? { key, digest: digest.digest("hex") } : null;
  return given(door, await answeredOnce(once, door.id, door.status, () => useCase(asked)));
}

/** A body that holds much, read by its door's schema away from the thread that answers others. */
async function readAside(bytes: Uint8Array, door: Door): Promise<unknown> {
  const read = await heavy("readBody", [bytes, door.id as DoorName]);
  if (read === null) throw noJson();
  if (!read.ok) throw new z.ZodError(read.issues);
  return asRead(read.body);
}

function given(door: Door, answer: unknown): Response {
  const aWhile = { "cache-control": "private, max-age=3600" };
  if (door.gives === "png")
    return new Response(answer as Uint8Array<ArrayBuffer>, {
      headers: { "content-type": "image/png", ...aWhile },
    });
  if (door.gives === "bytes") {
    const { stream, length } = answer as SentAsRead;
    return new Response(stream, {
      headers: { "content-type": "application/octet-stream", "content-length": String(length), ...aWhile },
    });
  }
  if (door.gives === "file") return file(door, answer as Record<string, unknown>);
  if (door.gives === "csv" || door.gives === "calendar" || door.gives === "plain") {
    const { name, text } = answer as { name: string; text: string | Uint8Array<ArrayBuffer> };
    return new Response(text, {
      headers: {
        "content-type": `text/${door.gives}; charset=utf-8`,
        "content-disposition": `attachment; filename="${name}"`,
        ...unkept,
      },
    });
  }
  const version = (answer as { version?: unknown } | undefined)?.version;
  const tag: HeadersInit = typeof version === "number" ? { etag: `"${version}"` } : {};
  if (door.id === doors.signIn.id || door.id === doors.signOut.id) {
    const { cookie, ...said } = answer as { cookie: string };
    return Response.json(said, { status: door.status, headers: { ...unkept, "set-cookie": cookie } });
  }
  return Response.json(withWords(answer ?? {}), { status: door.status, headers: { ...unkept, ...tag } });
}

/** An answer that is kept as a file, laid out for reading. */
function file({ id }: Door, answer: Record<string, unknown>): Response {
  const name =
    typeof answer.engine === "string" ? answer.engine.replace(/[^A-Za-z0-9]+/g, "-").toLowerCase() : "";
  const headers: Record<string, string> = {
    "content-type": id === doors.catalogueSchema.id ? "application/schema+json" : "application/json",
    ...unkept,
  };
  if (id === doors.exportCatalogue.id)
    headers["content-disposition"] = `attachment; filename="${name}-catalogue.json"`;
  if (id === doors.saveJob.id) headers["content-disposition"] = `attachment; filename="job.json"`;
  return new Response(
    answer instanceof Uint8Array ? (answer as BodyInit) : `${JSON.stringify(answer, null, 2)}\n`,
    { headers },
  );
}

/** Milliseconds between signs of life, so that nobody between closes a quiet stream. */
const beatMs = 15_000;

/** Changes as server-sent events; a browser that was away says the last one it saw. */
function events(request: Request): Response {
  const encoder = new TextEncoder();
  const since = request.headers.get("last-event-id") ?? new URL(request.url).searchParams.get("since");
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const send = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          end();
        }
      };
      send("retry: 2000\n\n");
      const beat = setInterval(() => send(": here\n\n"), beatMs);
      const unwatch = await watchChanges(since, ({ id, topics }) =>
        send(`id: ${id}\ndata: ${JSON.stringify(topics)}\n\n`),
      );
      end = () => {
        clearInterval(beat);
        unwatch();
      };
      if (request.signal.aborted) end();
      request.signal.addEventListener("abort", () => {
        end();
        try {
          controller.close();
        } catch {
          // Closed by the other side already.
        }
      });
    },
    cancel: () => end(),
  });
  return new Response(stream, { headers: { "content-type": "text/event-stream", ...unkept } });
}

/**
 * Room for what is being sent, a process: bodies wait outside rather than fill its memory. One a browser sends
 * is small beside it.
 */
const kept = globalThis as { lampRoom?: Room };
const room = (kept.lampRoom ??= new Room(96 * 1024 * 1024));

/** Bytes of a body after which whoever waits is answered first. */
const breathBytes = 512 * 1024;

/**
 * A request's body. @param see is shown every piece as it comes: a large one isn't gone over again in one go
 * @throws Problem 413 for one larger than `limit` bytes
 */
async function bodyOf(
  request: Request,
  limit: number,
  length: number,
  see: (part: Uint8Array) => void,
): Promise<Uint8Array<ArrayBuffer>> {
  const tooMuch = new Problem(
    413,
    `The request is larger than ${Math.round(limit / 1024 / 1024)} MB.`,
    "Send less at once.",
  );
  if (length > limit) throw tooMuch;
  if (!request.body) return new Uint8Array();
  // As long as it says it is; else it grows by pieces.
  const parts: Uint8Array[] = [];
  const whole = length > 0 ? new Uint8Array(length) : null;
  let at = 0;
  let refusal: unknown = null;
  let seen = 0;
  for await (const part of request.body as unknown as AsyncIterable<Uint8Array>) {
    if (at + part.length > (whole?.length ?? limit)) throw tooMuch;
    at += part.length;
    // Who still sends hears no answer: what is refused already is heard to its end, and not held.
    if (refusal !== null) continue;
    // Pieces that are here already come without a pause: others are let in between.
    if ((seen += part.length) > breathBytes) {
      seen = 0;
      await new Promise(setImmediate);
    }
    try {
      see(part);
    } catch (error) {
      refusal = error;
      continue;
    }
    if (whole) whole.set(part, at - part.length);
    else parts.push(part);
  }
  if (refusal !== null) throw refusal;
  return whole ? whole.subarray(0, at) : new Uint8Array(Buffer.concat(parts));
}

/** What a page shows from a use-case; a refusal becomes a panel that says what to do. */
export async function shown<View>(
  load: () => Promise<View>,
  show: (view: View) => ReactNode,
): Promise<ReactNode> {
  let view: View;
  try {
    view = await load();
  } catch (error) {
    const { title, fix, status } = asProblem(error);
    return createElement(ProblemPanel, { title, fix, retry: status === 503 });
  }
  return show(view);
}
