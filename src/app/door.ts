import { createHash } from "node:crypto";
import type { ReactNode } from "react";
import { createElement } from "react";
import { z } from "@/core/schema";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import { packedMeta } from "@/core/trace";
import { doorAt, doors, isId, withWords, type Door, type DoorName, type Who } from "@/contract";
import {
  asRead,
  badTextIn,
  BodyGauge,
  Problem,
  answeredOnce,
  knockOf,
  mayPass,
  asProblem,
  countRequest,
  heavy,
  issueOf,
  journal,
  nobody,
  notFound,
  oneByOne,
  readJson,
  takeIn,
  useCases,
  watchChanges,
  whoKnocks,
  type Asker,
  type Knock,
  type SentAsRead,
} from "@/server";
import { isOwnHost, isOwnOrigin } from "@/serve/addresses";
import { connectionOf } from "@/serve/connections";
import { inertGuards, strayBytes } from "@/serve/guards";
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

function forbidden({ kind, may }: Asker, who: Who): string {
  if (who === "owner") return "Only an owner who signed in may do this.";
  return kind === "person" && may === "reads"
    ? "You may read here, not change."
    : "This token doesn't open this door.";
}

/** Whoever knocks has to be let do what the door does. */
function checkRights({ asker }: Knock, { who }: Door): void {
  if (mayPass(asker, who)) return;
  if (asker === null)
    throw new Problem(401, "Nobody is let in here without signing in.", "Sign in, or send a token.");
  throw new Problem(403, forbidden(asker, who), "Ask whoever keeps this machine.");
}

const isRead = ({ method }: Request) => method === "GET" || method === "HEAD";

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
  let read: ReturnType<typeof readJson>;
  try {
    read = readJson(bytes);
  } catch {
    throw noJson();
  }
  if (read.text) throw new z.ZodError([issueOf(read.text)]);
  return read.value;
}

const { "cache-control": _unkept, ...doorGuards } = inertGuards;

/** From here on an answer is called slow, ms. */
const slowMs = 1000;

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
  for (const [name, value] of Object.entries({ ...doorGuards, "x-request-id": requestId }))
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
    if (!isRead(request)) checkOrigin(request, knock.secure);
    const found = doorAt(request.method, segments);
    if (!found)
      throw new Problem(404, "There is no such door.", "The doors are listed at /api/v1/openapi.json.");
    const { door } = found;
    checkRights(knock, door);
    if (door.gives === "events") return events(request, knock);
    if (found.id !== "" && !isId(found.id)) throw notFound("thing");
    return await carriedOut(request, found, knock, sawIn(request, door));
  } catch (error) {
    return refused(error);
  }
}

async function carriedOut(
  request: Request,
  { door, id }: { door: Door; id: string },
  knock: Knock,
  saw: number | null,
): Promise<Response> {
  const key = door.creates ? request.headers.get("idempotency-key") : null;
  const digest = key === null ? null : createHash("sha256");
  const gauge = door.bounds && new BodyGauge(door.bounds);
  const query = queryOf(request, door);
  const signal = connectionOf(request.headers);
  const takesBody = door.body !== null || door.takes === "bytes";
  const incoming = {
    body: isRead(request) ? null : request.body,
    length: Number(request.headers.get("content-length") ?? 0) || 0,
    limit: takesBody ? door.mostBytes : strayBytes,
    caller: `${knock.asker?.kind} ${knock.asker?.name} ${knock.address}`,
    signal,
    see: (part: Uint8Array) => {
      gauge?.see(part);
      digest?.update(part);
    },
  };
  return takeIn(incoming, async (bytes) => {
    if (door.takes === "json" && bytes.length > 0) checkType(request);
    const isMuch =
      gauge !== null &&
      (bytes.length > easy.bytes ||
        gauge.keys > easy.keys ||
        gauge.texts > easy.texts ||
        gauge.values > easy.values);
    const body = door.takes === "bytes" ? bytes : isMuch ? await readAside(bytes, door) : jsonIn(bytes);
    const agent = request.headers.get("user-agent") ?? "";
    const asked = { actor: knock.asker ?? nobody, knock, agent, id, query, body, saw };
    const useCase = useCases[door.id as Exclude<DoorName, "events">];
    const once = key !== null && digest ? { key, digest: digest.digest("hex") } : null;
    const answer = async () => answeredOnce(once, door.id, door.status, () => useCase(asked));
    // What only reads, however it is asked, waits for nobody's turn.
    const turn = isRead(request) || door.who === "reads" ? null : workedOn(door, id, body);
    return given(door, await oneByOne(turn, signal, answer));
  });
}

/** The job, or whatever else, that a request works on: requests on one take turns. */
function workedOn({ takes }: Door, id: string, body: unknown): string | null {
  if (id !== "") return id;
  const { run, jobId } = ((takes === "bytes" ? packedMeta(body as Uint8Array) : body) ?? {}) as {
    run?: { jobId?: unknown } | null;
    jobId?: unknown;
  };
  const job = run?.jobId ?? jobId;
  return typeof job === "string" ? job : null;
}

/** What is asked in the address, by the door's schema. @throws ZodError for what it doesn't take */
function queryOf(request: Request, { query }: Door): Record<string, string> {
  const asked = Object.fromEntries(new URL(request.url).searchParams);
  const text = badTextIn(asked);
  if (text) throw new z.ZodError([issueOf(text)]);
  query?.parse(asked);
  return asked;
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

/**
 * Changes as server-sent events; a browser that was away says the last one it saw. Whoever listens is looked at
 * again before each: the stream ends with the session or the token that let it in.
 */
function events(request: Request, { asker, secure }: Knock): Response {
  const encoder = new TextEncoder();
  const since = request.headers.get("last-event-id") ?? new URL(request.url).searchParams.get("since");
  const [authorization, cookie] = ["authorization", "cookie"].map(
    (name) => request.headers.get(name) ?? undefined,
  );
  const mayStay = async () => {
    const now = await whoKnocks({ authorization, cookie, secure }).catch(() => null);
    return now?.id === asker?.id && mayPass(now, "reads");
  };
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      let isOver = false;
      let unwatch = () => {};
      const send = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          end();
        }
      };
      // One after the other: what comes while the session is looked at waits for it.
      let told = Promise.resolve();
      const tell = (text: string) => {
        told = told.then(async () => {
          if (isOver) return;
          if (await mayStay()) send(text);
          else end();
        });
      };
      const beat = setInterval(() => tell(": here\n\n"), beatMs);
      end = () => {
        if (isOver) return;
        isOver = true;
        clearInterval(beat);
        unwatch();
        try {
          controller.close();
        } catch {
          // Closed by the other side already.
        }
      };
      send("retry: 2000\n\n");
      unwatch = await watchChanges(since, ({ id, topics }) =>
        tell(`id: ${id}\ndata: ${JSON.stringify(topics)}\n\n`),
      );
      if (isOver) unwatch();
      if (request.signal.aborted) end();
      request.signal.addEventListener("abort", () => end());
    },
    cancel: () => end(),
  });
  return new Response(stream, { headers: { "content-type": "text/event-stream", ...unkept } });
}

/** Who looks at a page. Leads whoever may not read to the way in, whatever stood before the framework. */
export async function signedIn(): Promise<Asker> {
  const { asker } = knockOf(await headers());
  if (asker === null || !mayPass(asker, "reads")) redirect("/sign-in");
  return asker;
}

/**
 * What a page shows from a use-case; a refusal becomes a panel that says what to do. Whoever asks is looked at
 * here once more, whatever stood before the framework.
 * @param who may see it
 */
export async function shown<View>(
  load: () => Promise<View>,
  show: (view: View) => ReactNode,
  who: Who = "reads",
): Promise<ReactNode> {
  if (!mayPass(await signedIn(), who))
    return createElement(ProblemPanel, {
      title: "Only an owner sees this page.",
      fix: "Ask whoever keeps this machine. A person who may read and change is an owner; a program never is.",
    });
  let view: View;
  try {
    view = await load();
  } catch (error) {
    const { title, fix, status } = asProblem(error);
    return createElement(ProblemPanel, { title, fix, retry: status === 503 });
  }
  return show(view);
}
