import { readdirSync } from "node:fs";
import type { IncomingHttpHeaders } from "node:http";
import { join } from "node:path";
import { endpointAt, apiSegments, endpointsAt, pageAt, readTarget } from "@/contract";
import { mayPass, type Asker } from "@/server/actor";
import { strayBytes } from "./guards";

/** What becomes of a request before the framework sees it. */
export type Passage =
  | { kind: "pass" }
  | { kind: "sign in" }
  | { kind: "refuse"; status: 400 | 401 | 403 | 404 | 405; title: string; fix: string; allow?: string };

/**
 * Request headers that are let through. Any other is dropped: frameworks and proxies take the address, the route
 * or the caller from headers of their own, and none of them is set by somebody outside.
 */
const letThrough = new Set([
  ...["accept", "accept-encoding", "accept-language", "authorization", "cache-control", "connection"],
  ...["content-length", "content-type", "cookie", "dnt", "expect", "host", "idempotency-key", "if-match"],
  ...["if-modified-since", "if-none-match", "if-range", "keep-alive", "last-event-id", "origin", "pragma"],
  ...["purpose", "range", "referer", "te", "transfer-encoding", "upgrade-insecure-requests", "user-agent"],
  // How the framework's own pages ask for a part of a page; an address names a digest of them, and without
  // one of them the framework sends the page round for ever.
  ...["next-router-prefetch", "next-router-segment-prefetch", "next-router-state-tree", "next-url", "rsc"],
]);

/** Drops request headers that aren't known, in place. */
export function dropForeignHeaders(headers: IncomingHttpHeaders): void {
  for (const name of Object.keys(headers))
    if (!letThrough.has(name) && !name.startsWith("sec-")) delete headers[name];
}

/** Addresses of the files that pages are drawn with, as they were built; decoded. */
export function builtFiles(folder = join(process.cwd(), ".next", "static")): ReadonlySet<string> {
  try {
    return new Set(
      readdirSync(folder, { recursive: true, withFileTypes: true })
        .filter((entry) => entry.isFile() && !/\.(br|gz)$/.test(entry.name))
        .map((entry) => `/_next/static${join(entry.parentPath, entry.name).slice(folder.length)}`),
    );
  } catch {
    return new Set();
  }
}

const badAddress: Passage = {
  kind: "refuse",
  status: 400,
  title: "This address isn't well formed.",
  fix: "Ask for it as a browser writes it: one slash between parts, no dots that lead elsewhere.",
};
const wrongMethod = (allow: string): Passage => ({
  kind: "refuse",
  status: 405,
  title: "This address doesn't take that method.",
  fix: `It takes ${allow}.`,
  allow,
});
const strayBody: Passage = {
  kind: "refuse",
  status: 400,
  title: "This address takes no body.",
  fix: "Send the request without one.",
};
const notSignedIn: Passage = {
  kind: "refuse",
  status: 401,
  title: "Nobody is let in here without signing in.",
  fix: "Sign in, or send a token.",
};

const readMethods = "GET, HEAD";
const isRead = (method: string) => method === "GET" || method === "HEAD";

export interface AskedTarget {
  method?: string | undefined;
  url?: string | undefined;
  headers: IncomingHttpHeaders;
}

/** Files that hold nothing of anybody: icons, what a device needs to install the application, and the agent. */
const openFiles: ReadonlySet<string> = new Set([
  "/icon.svg",
  "/icon1.png",
  "/icon2.png",
  "/apple-icon.png",
  "/manifest.webmanifest",
  "/worker.js",
  "/agent.mjs",
  "/agent.mjs.sha256",
]);

/** A link that was given away: what it opens is looked up by its secret. */
const isShared = ([first, secret, ...rest]: string[]) =>
  first === "shared" && rest.length === 0 && /^[\w-]{1,100}$/.test(secret ?? "");

/**
 * Decides by address, method and caller. What isn't named here as open to anybody is closed to whoever hasn't
 * signed in; pages and endpoints look at the caller again where they read.
 * @param files     addresses of built files; null while pages are built as they are asked for (development)
 */
export function passage(
  { method = "GET", url = "/", headers }: AskedTarget,
  asker: Asker | null,
  files: ReadonlySet<string> | null,
): Passage {
  const target = readTarget(url);
  if (!target) return badAddress;
  const { segments } = target;
  const length = Number(headers["content-length"] ?? 0);
  const isChunked = headers["transfer-encoding"] !== undefined;
  if (isRead(method) && (length > 0 || isChunked)) return strayBody;
  const inApi = apiSegments(segments);
  if (inApi) {
    const found = endpointAt(method, inApi);
    if (!found) {
      if (!mayPass(asker, "metrics")) return notSignedIn;
      const methods = endpointsAt(inApi).flatMap((endpoint) =>
        endpoint.method === "GET" ? ["GET", "HEAD"] : [endpoint.method],
      );
      if (methods.length > 0) return wrongMethod(methods.join(", "));
      return {
        kind: "refuse",
        status: 404,
        title: "There is no such endpoint.",
        fix: "The endpoints are listed at /api.",
      };
    }
    const { who, body } = found.endpoint;
    if (who !== "anybody" && asker === null) return notSignedIn;
    return body === null && (isChunked || length > strayBytes) ? strayBody : { kind: "pass" };
  }
  const file = `/${segments.join("/")}`;
  const isFile = files === null ? segments[0] === "_next" : files.has(file);
  const isOpen = pageAt(segments) === "anybody" || isShared(segments) || isFile || openFiles.has(file);
  if (!isOpen && !mayPass(asker, "reads")) return isRead(method) ? { kind: "sign in" } : notSignedIn;
  if (!isRead(method)) return wrongMethod(readMethods);
  if (segments[0] === "_next" && !isFile)
    return { kind: "refuse", status: 404, title: "There is no such file.", fix: "Load the page anew." };
  return { kind: "pass" };
}
