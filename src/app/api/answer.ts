import { createHash } from "node:crypto";
import { z } from "@/core/schema";
import { packedMeta } from "@/core/trace";
import {
  checkAnswer,
  endpointAt,
  isId,
  takesBytes,
  withWords,
  type Endpoint,
  type EndpointName,
  type HandedOut,
  type HandledName,
} from "@/contract";
import {
  answeredOnce,
  asProblem,
  badTextIn,
  BodyGauge,
  callerOf,
  countRequest,
  handlers,
  heavy,
  issueOf,
  journal,
  nobody,
  notFound,
  oneByOne,
  Problem,
  codingHeader,
  takeIn,
  tasks,
  type Caller,
} from "@/server";
import { connectionOf } from "@/serve/connections";
import { inertGuards, strayBytes } from "@/serve/guards";
import { checkHost, checkOrigin, checkRights } from "./checks";
import { streamChanges } from "./streamChanges";

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
function sawIn(request: Request, { edits }: Endpoint): number | null {
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

/** The body as the endpoint's schema reads it. @throws ZodError for what it doesn't take, Problem 400 for no JSON */
async function bodyOf(
  bytes: Uint8Array<ArrayBuffer>,
  endpoint: Endpoint,
  gauge: BodyGauge | null,
): Promise<unknown> {
  if (takesBytes(endpoint)) return bytes;
  const isMuch =
    gauge !== null &&
    (bytes.length > easy.bytes ||
      gauge.keys > easy.keys ||
      gauge.texts > easy.texts ||
      gauge.values > easy.values);
  if (bytes.length === 0) return endpoint.body?.parse(undefined);
  const name = endpoint.id as EndpointName;
  // Much is read away from the thread that answers others.
  const read = isMuch ? await heavy("readBody", [bytes, name]) : tasks.readBody(bytes, name);
  if (read === null) throw noJson();
  if (!read.ok) throw new z.ZodError(read.issues);
  return read.body;
}

/** What is asked in the address, by the endpoint's schema. @throws ZodError for what it doesn't take */
function queryOf(request: Request, { query }: Endpoint): unknown {
  const asked = Object.fromEntries(new URL(request.url).searchParams);
  const text = badTextIn(asked);
  if (text) throw new z.ZodError([issueOf(text)]);
  return query?.parse(asked);
}

const { "cache-control": _unkept, ...endpointGuards } = inertGuards;

/** From here on an answer is called slow, ms. */
const slowMs = 1000;

/**
 * Answers any request under /api/v1 by the contract; refusals and slow answers leave a line with their kind,
 * not their content.
 */
export async function answerApi(request: Request, segments: string[]): Promise<Response> {
  const began = performance.now();
  const requestId = crypto.randomUUID();
  const endpoint = endpointAt(request.method, segments)?.endpoint.id ?? "none";
  const response = await answered(request, segments);
  const ms = performance.now() - began;
  for (const [name, value] of Object.entries({ ...endpointGuards, "x-request-id": requestId }))
    response.headers.set(name, value);
  countRequest(endpoint, response.status, ms / 1000);
  const told = { requestId, endpoint, method: request.method, status: response.status, ms: Math.round(ms) };
  if (response.status >= 500) journal().error(told, "failed");
  else if (response.status >= 400 && response.status !== 404) journal().warn(told, "refused");
  else if (ms > slowMs) journal().warn(told, "slow");
  return response;
}

async function answered(request: Request, segments: string[]): Promise<Response> {
  try {
    checkHost(request);
    const caller = callerOf(request.headers);
    if (!isRead(request)) checkOrigin(request, caller.secure);
    const found = endpointAt(request.method, segments);
    if (!found)
      throw new Problem(404, "There is no such endpoint.", "They are listed at /api/v1/openapi.json.");
    const { endpoint } = found;
    checkRights(caller, endpoint);
    if (endpoint.streams) return streamChanges(request, caller);
    if (found.id !== "" && !isId(found.id)) throw notFound("thing");
    return await handled(request, found, caller, sawIn(request, endpoint));
  } catch (error) {
    return refused(error);
  }
}

/** Whether a body comes packed. @throws Problem 415 for any way of packing but gzip (RFC 9110, section 8.4) */
function isPacked(request: Request): boolean {
  const coding = (request.headers.get(codingHeader) ?? "identity").trim().toLowerCase();
  if (coding !== "gzip" && coding !== "identity" && coding !== "")
    throw new Problem(415, "The request's body is packed in a way that isn't read here.", "Pack it by gzip.");
  return coding === "gzip";
}

/** Any handler, called with what its own endpoint's schemas made of the request. */
type AnyHandler = (request: unknown) => Promise<unknown>;

async function handled(
  request: Request,
  { endpoint, id }: { endpoint: Endpoint; id: string },
  caller: Caller,
  saw: number | null,
): Promise<Response> {
  const key = endpoint.creates ? request.headers.get("idempotency-key") : null;
  const digest = key === null ? null : createHash("sha256");
  const gauge = endpoint.bounds && new BodyGauge(endpoint.bounds);
  const query = queryOf(request, endpoint);
  const signal = connectionOf(request.headers);
  const packed = isPacked(request);
  const incoming = {
    body: isRead(request) ? null : request.body,
    length: packed ? 0 : Number(request.headers.get("content-length") ?? 0) || 0,
    packed,
    limit: endpoint.body ? endpoint.mostBytes : strayBytes,
    caller: `${caller.asker?.kind} ${caller.asker?.name} ${caller.address}`,
    signal,
    see: (part: Uint8Array) => {
      gauge?.see(part);
      digest?.update(part);
    },
  };
  return takeIn(incoming, async (bytes) => {
    if (!takesBytes(endpoint) && bytes.length > 0) checkType(request);
    const body = await bodyOf(bytes, endpoint, gauge);
    const agent = request.headers.get("user-agent") ?? "";
    const cookies: string[] = [];
    const setCookie = (cookie: string) => void cookies.push(cookie);
    const asked = { actor: caller.asker ?? nobody, caller, agent, id, query, body, saw, setCookie };
    const handle = handlers[endpoint.id as HandledName] as AnyHandler;
    const once = key !== null && digest ? { key, digest: digest.digest("hex") } : null;
    const answer = async () => answeredOnce(once, endpoint.id, endpoint.status, () => handle(asked));
    // What only reads, however it is asked, waits for nobody's turn.
    const turn = isRead(request) || endpoint.who === "reads" ? null : workedOn(endpoint, id, body);
    const response = given(endpoint, await oneByOne(turn, signal, answer));
    for (const cookie of cookies) response.headers.append("set-cookie", cookie);
    return response;
  });
}

/** The job, or whatever else, that a request works on: requests on one take turns. */
function workedOn(endpoint: Endpoint, id: string, body: unknown): string | null {
  if (id !== "") return id;
  const { run, jobId } = ((takesBytes(endpoint) ? packedMeta(body as Uint8Array) : body) ?? {}) as {
    run?: { jobId?: unknown } | null;
    jobId?: unknown;
  };
  const job = run?.jobId ?? jobId;
  return typeof job === "string" ? job : null;
}

/** Answers are checked against what is promised of them, except where speed counts. */
const isChecked = process.env.NODE_ENV !== "production" || process.env.LAMP_CHECK_ANSWERS === "1";

function given(endpoint: Endpoint, answer: unknown): Response {
  if (endpoint.file) return handedOut(endpoint.file, answer as HandedOut);
  const said = withWords(answer ?? {});
  const text = JSON.stringify(said);
  if (isChecked) checkAnswer(endpoint, text);
  const version = (answer as { version?: unknown } | undefined)?.version;
  const tag: HeadersInit = typeof version === "number" ? { etag: `"${version}"` } : {};
  return new Response(text, {
    status: endpoint.status,
    headers: { "content-type": "application/json", ...unkept, ...tag },
  });
}

function handedOut(
  { type, keptSeconds }: NonNullable<Endpoint["file"]>,
  { name, content, length }: HandedOut,
): Response {
  return new Response(content, {
    headers: {
      "content-type": type,
      ...(keptSeconds ? { "cache-control": `private, max-age=${keptSeconds}` } : unkept),
      ...(length === undefined ? {} : { "content-length": String(length) }),
      ...(name === undefined ? {} : { "content-disposition": `attachment; filename="${name}"` }),
    },
  });
}
