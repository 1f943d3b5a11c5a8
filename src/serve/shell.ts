import { readFileSync, readdirSync, statSync } from "node:fs";
import { join } from "node:path";

/** Which build this is; another one's pages and files are never shown by a browser that knows of this one. */
export function buildName(folder = join(process.cwd(), ".next")): string {
  try {
    return readFileSync(join(folder, "BUILD_ID"), "utf8").trim();
  } catch {
    return "development";
  }
}

/** A larger file is kept only once it was used: what measures videos, bytes. */
const mostFileBytes = 400_000;

/** Addresses of a build's scripts, styles and fonts: what a page needs when it is used without a network. */
export function shellFiles(folder = join(process.cwd(), ".next", "static")): string[] {
  try {
    return readdirSync(folder, { recursive: true, encoding: "utf8" })
      .filter((name) => /\.(js|css|woff2)$/.test(name) && statSync(join(folder, name)).size <= mostFileBytes)
      .map((name) => `/_next/static/${encodeURI(name)}`);
  } catch {
    return [];
  }
}

/**
 * The script that a browser keeps between it and the network (a service worker, W3C Service Workers): files of a build
 * come from what was kept, pages from the network, and without a network the pages that were opened before.
 * Pages are forgotten when somebody signs out.
 */
export const shellScript = (build: string, files: string[]): string => `"use strict";
const files = ${JSON.stringify(files)};
const kept = "lamp " + ${JSON.stringify(build)};
const mostPages = 30;
const isFile = (path) => path.startsWith("/_next/static/") || path.endsWith("icon.svg") || path.endsWith(".png");
const isElsewhere = (path) => /^\\/(api|shared|ocr|_next)(\\/|$)/.test(path) || path === "/worker.js" || path.startsWith("/agent.mjs");

self.addEventListener("install", (event) => event.waitUntil(self.skipWaiting()));
self.addEventListener("activate", (event) =>
  event.waitUntil(
    (async () => {
      for (const name of await caches.keys()) if (name !== kept) await caches.delete(name);
      await self.clients.claim();
    })(),
  ),
);
self.addEventListener("message", ({ data }) => {
  if (data.keep) void keepPage(data.keep).then(keepFiles);
});

// A few at once, so that the page's own questions aren't held up, and all are there in seconds.
const atOnce = 4;
async function keepFiles() {
  if (self.navigator.connection?.saveData) return;
  const cache = await caches.open(kept);
  const left = [...files];
  const keepNext = async () => {
    for (let file = left.shift(); file; file = left.shift())
      if (!(await cache.match(file))) await cache.add(file).catch(() => undefined);
  };
  await Promise.all(Array.from({ length: atOnce }, keepNext));
}

async function keepPage(address) {
  const answer = await fetch(address, { headers: { accept: "text/html" }, redirect: "manual" }).catch(() => null);
  if (answer) await putPage(address, answer);
}

async function putPage(address, answer) {
  const isPage = (answer.headers.get("content-type") ?? "").startsWith("text/html");
  if (!answer.ok || answer.redirected || !isPage) return;
  const cache = await caches.open(kept);
  await cache.delete(address);
  await cache.put(address, answer);
  const pages = (await cache.keys()).filter(({ url }) => !isFile(new URL(url).pathname));
  for (const old of pages.slice(0, Math.max(0, pages.length - mostPages))) await cache.delete(old);
}

async function file(request, waitUntil) {
  const cache = await caches.open(kept);
  const found = await cache.match(request, { ignoreVary: true });
  if (found) return found;
  const answer = await fetch(request);
  if (answer.ok) waitUntil(cache.put(request, answer.clone()));
  return answer;
}

async function page(request, path, waitUntil) {
  try {
    const answer = await fetch(request);
    // Whoever has to sign in reads nothing that somebody else opened.
    if (path === "/sign-in") await caches.delete(kept);
    else waitUntil(putPage(request.url, answer.clone()));
    return answer;
  } catch {
    const cache = await caches.open(kept);
    return (await cache.match(request.url, { ignoreVary: true })) ?? (await withoutNetwork(cache));
  }
}

async function withoutNetwork(cache) {
  const links = [];
  for (const { url } of await cache.keys()) {
    const { pathname, search } = new URL(url);
    if (isFile(pathname)) continue;
    const text = await (await cache.match(url, { ignoreVary: true })).text();
    const heading = (/<h1[^>]*>([\\s\\S]*?)<\\/h1>/.exec(text)?.[1] ?? pathname).replace(/<[^>]*>/g, "");
    links.push('<li><a href="' + encodeURI(pathname + search) + '">' + heading + "</a></li>");
  }
  const kept = links.length ? "<p>Kept on this device:</p><ul>" + links.reverse().join("") + "</ul>" : "";
  return new Response(
    '<!doctype html><html lang="en-GB"><meta charset="utf-8"><meta name="viewport" content="width=device-width">' +
      "<title>Velvet Lamp</title><style>body{font:16px/1.5 sans-serif;margin:10vh auto;max-width:34rem;padding:0 1rem;" +
      "background:#1b1320;color:#efe6f2}a{color:#f2b64c}</style><main><h1>No connection</h1>" +
      "<p>This page wasn't kept on this device. It opens when the connection is back.</p>" + kept + "</main></html>",
    {
      status: 503,
      headers: {
        "content-type": "text/html; charset=utf-8",
        "content-security-policy": "default-src 'none'; style-src 'unsafe-inline'",
      },
    },
  );
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  // An answer is shown as it comes; it is kept beside that.
  const waitUntil = (keeping) => event.waitUntil(keeping.catch(() => undefined));
  const { origin, pathname, searchParams } = new URL(request.url);
  if (request.method !== "GET" || origin !== self.location.origin) return;
  // A worker thread is told what to load by its address's fragment, which no kept answer has.
  if (/worker/.test(request.destination)) return;
  if (isFile(pathname)) return event.respondWith(file(request, waitUntil));
  if (isElsewhere(pathname)) return;
  if (request.mode === "navigate") return event.respondWith(page(request, pathname, waitUntil));
  // A page that was opened from another is kept as well, for the day without a network.
  const isOpened = request.headers.get("rsc") === "1" && !request.headers.get("next-router-prefetch");
  if (!isOpened || self.navigator.connection?.saveData) return;
  const address = new URL(request.url);
  searchParams.delete("_rsc");
  address.search = searchParams.size > 0 ? "?" + searchParams : "";
  event.waitUntil(
    new Promise((resolve) => setTimeout(resolve, 1500)).then(() => keepPage(address.href)),
  );
});
`;
