import { randomUUID } from "node:crypto";
import type { IncomingMessage, RequestListener, ServerResponse } from "node:http";
import { changeMark } from "@/data";
import { backTo, isKeptPage, readTarget } from "@/contract";
import { callerHeader, type Caller } from "@/server/actor";
import { codingHeader, uploadsWaiting } from "@/server/request/intake";
import { journal } from "@/server/system/journal";
import { whoCalls } from "@/server/people/people";
import { isOwnHost } from "./addresses";
import { builtFileServer, compressed } from "./compress";
import { noteConnection } from "./connections";
import { builtFiles, dropForeignHeaders, passage, type Passage } from "./gate";
import { guards, inertGuards } from "./guards";
import { keepPace } from "./pace";
import { Pages, madeFor, nonceIn, type MadePage, type PageOutcome, type PageSource } from "./pages";
import { noOthers } from "./share";

function plain(response: ServerResponse, status: number, text: string): void {
  response.writeHead(status, {
    ...inertGuards,
    "content-type": "text/plain; charset=utf-8",
    connection: "close",
  });
  response.end(text);
}

/** Refuses as the endpoints do: problem details (RFC 9457). What is still being sent is not waited for. */
function refuse(
  response: ServerResponse,
  { status, title, fix, allow }: Extract<Passage, { kind: "refuse" }>,
): void {
  response.writeHead(status, {
    ...inertGuards,
    "x-request-id": randomUUID(),
    "content-type": "application/problem+json",
    connection: "close",
    ...(allow !== undefined && { allow }),
  });
  response.end(JSON.stringify({ type: "about:blank", status, title, detail: fix, fields: {} }));
}

/**
 * Under which a page is kept: the address, and what of the request it is drawn by. Null for what isn't kept.
 */
export function pageKey(
  request: Pick<IncomingMessage, "method" | "url" | "headers">,
  who: string,
): string | null {
  const { method, url = "/", headers } = request;
  if (method !== "GET" || headers.rsc !== undefined || headers["next-action"] !== undefined) return null;
  const target = readTarget(url);
  if (!target || !isKeptPage(target.segments)) return null;
  const theme = /(?:^|;\s*)theme=(\w+)/.exec(headers.cookie ?? "")?.[1] === "daylight" ? "daylight" : "evening";
  return `${who} ${theme} ${headers.host ?? ""} ${url}`;
}

/** Collects what the framework answers, and sends it on as it comes; says in any case what came of it. */
function collect(response: ServerResponse, done: (outcome: PageOutcome) => void): void {
  const at = Date.now();
  const parts: Buffer[] = [];
  const { write, end } = response;
  const take = (part: unknown, encoding: unknown) => {
    if (typeof part === "string") parts.push(Buffer.from(part, encoding as BufferEncoding));
    else if (part instanceof Uint8Array) parts.push(Buffer.from(part));
  };
  response.write = ((part: unknown, encoding: unknown, ...rest: unknown[]) => {
    take(part, typeof encoding === "string" ? encoding : "utf8");
    return (write as (...all: unknown[]) => boolean).call(response, part, encoding, ...rest);
  }) as typeof write;
  let told = false;
  const tell = (outcome: PageOutcome) => {
    if (told) return;
    told = true;
    done(outcome);
  };
  response.end = ((part: unknown, encoding: unknown, ...rest: unknown[]) => {
    if (typeof part !== "function") take(part, typeof encoding === "string" ? encoding : "utf8");
    const given = (end as (...all: unknown[]) => ServerResponse).call(response, part, encoding, ...rest);
    const headers = response.getHeaders() as MadePage["headers"];
    const whole =
      response.statusCode === 200 &&
      String(headers["content-type"]).startsWith("text/html") &&
      headers["set-cookie"] === undefined;
    tell(
      whole
        ? {
            headers,
            text: Buffer.concat(parts),
            nonce: nonceIn(headers["content-security-policy"]),
            at,
          }
        : "unshared",
    );
    return given;
  }) as typeof end;
  response.once("close", () => tell("left"));
}

/** Headers of one answer's way, that another makes its own. */
const ofTheWay = new Set([
  ...["connection", "keep-alive", "transfer-encoding", "content-length", "content-encoding", "date"],
]);

function send(response: ServerResponse, page: MadePage): void {
  const { headers, text } = madeFor(page, Buffer.from(randomUUID()).toString("base64"));
  for (const [name, value] of Object.entries(headers))
    if (!ofTheWay.has(name.toLowerCase())) response.setHeader(name, value);
  response.end(text);
}

/** What answers where nothing before it does. */
export type Framework = (request: IncomingMessage, response: ServerResponse) => Promise<unknown>;

/**
 * What stands before the framework: the application's own names, slow senders, and pages made once a change.
 * @param others who else may have made a page
 * @param files  addresses of built files, open to anybody; null in development
 */
export function front(
  framework: Framework,
  others: PageSource = noOthers,
  files: ReadonlySet<string> | null = builtFiles(),
): RequestListener {
  const pages = new Pages();
  const serveBuilt = builtFileServer();
  const isBuilt = ({ url }: IncomingMessage) =>
    files?.has(decodeURIComponent(url?.split("?")[0] ?? "")) ?? false;
  return (request, response) => {
    void answer(request, response).catch((error: unknown) => {
      journal().error({ err: error }, "front failed");
      if (response.headersSent) response.destroy();
      else plain(response, 500, "Something went wrong here. Nothing was changed.");
    });
  };

  /** Finds out who calls, and tells the framework in a header that nobody else can write. */
  async function callerOfRequest({ headers, socket }: IncomingMessage): Promise<Caller> {
    const coding = headers["content-encoding"];
    dropForeignHeaders(headers);
    if (coding !== undefined) headers[codingHeader] = coding;
    const secure = "encrypted" in socket;
    const asker = await whoCalls({
      authorization: headers.authorization,
      cookie: headers.cookie,
      secure,
    }).catch((error: unknown) => {
      // Without the store nobody can be known; what is open stays open.
      journal().error({ err: error }, "who calls can't be found out");
      return null;
    });
    const caller: Caller = { asker, address: socket.remoteAddress ?? "", secure };
    headers[callerHeader] = encodeURIComponent(JSON.stringify(caller));
    return caller;
  }

  function toSignIn({ method, url = "/" }: IncomingMessage, response: ServerResponse): void {
    journal().info({ kind: "not signed in", method }, "refused");
    const back = method === "GET" ? backTo(url.replace(/[?&]_rsc=[^&]*/, "")) : "/";
    response.writeHead(303, {
      ...inertGuards,
      location: `/sign-in?back=${encodeURIComponent(back)}`,
    });
    response.end();
  }

  async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    if (!isOwnHost(request.headers.host)) {
      journal().warn({ kind: "foreign host", method: request.method, status: 421 }, "refused");
      plain(response, 421, "This address isn't answered. Open the application at the address it printed.");
      return;
    }
    const tooSlow = () => {
      journal().warn({ kind: "slow sender", method: request.method, status: 408 }, "refused");
      if (!response.headersSent) plain(response, 408, "The request came too slowly. Nothing was changed.");
      request.socket.destroySoon();
    };
    keepPace(request, tooSlow, uploadsWaiting);
    const caller = await callerOfRequest(request);
    const passed = passage(request, caller.asker, files);
    if (passed.kind === "sign in") return toSignIn(request, response);
    if (passed.kind === "refuse") {
      journal().info({ kind: passed.title, method: request.method, status: passed.status }, "refused");
      return refuse(response, passed);
    }
    for (const [name, value] of Object.entries(guards)) response.setHeader(name, value);
    noteConnection(request, response);
    if (isBuilt(request) && (await serveBuilt(request, response))) return;
    await compressed(request, response);
    const key = pageKey(
      request,
      caller.asker ? `${caller.asker.kind} ${caller.asker.name} ${caller.asker.may}` : "nobody",
    );
    const mark = key === null ? null : await changeMark().catch(() => null);
    if (key === null || mark === null) return void (await framework(request, response));
    const here = await pages.take(key, mark);
    if (here.page) return send(response, here.page);
    const there = await others.take(key, mark);
    if (there.page) {
      here.made(there.page);
      return send(response, there.page);
    }
    const tell = (outcome: PageOutcome) => {
      here.made(outcome);
      there.made(outcome);
    };
    // Whoever asked may have gone meanwhile, and won't go again.
    if (response.destroyed) return tell("left");
    collect(response, tell);
    await framework(request, response);
  }
}
