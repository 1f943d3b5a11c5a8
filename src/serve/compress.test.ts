import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer, request as ask, type IncomingHttpHeaders, type Server } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { brotliCompressSync, brotliDecompressSync, gunzipSync, gzipSync } from "node:zlib";
import { builtFileServer, compressed } from "./compress";

const folder = mkdtempSync(join(tmpdir(), "velvet-lamp-built-"));
const script = "export const light = 'steady';\n".repeat(200);
mkdirSync(join(folder, "chunks"));
writeFileSync(join(folder, "chunks", "a b.js"), script);
writeFileSync(join(folder, "chunks", "a b.js.br"), brotliCompressSync(script));
writeFileSync(join(folder, "chunks", "a b.js.gz"), gzipSync(script));

let server: Server;
let port = 0;
const page = "<p>sixty frames a second</p>".repeat(100);
beforeAll(async () => {
  const serveBuilt = builtFileServer(folder);
  server = createServer((request, response) => {
    void (async () => {
      if (request.url?.startsWith("/_next/") && (await serveBuilt(request, response))) return;
      await compressed(request, response);
      const [type, text] = {
        "/page": ["text/html; charset=utf-8", page],
        "/small": ["text/html; charset=utf-8", "<p>short</p>"],
        "/events": ["text/event-stream", `data: ${page}\n\n`],
        "/bytes": ["application/octet-stream", page],
      }[request.url ?? ""] ?? ["text/plain", ""];
      response.setHeader("content-type", type);
      response.end(text);
    })();
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  port = (server.address() as { port: number }).port;
});
afterAll(async () => {
  await new Promise((resolve) => server.close(resolve));
  rmSync(folder, { recursive: true });
});

const get = async (path: string, headers: Record<string, string> = {}) =>
  new Promise<{ status: number; headers: IncomingHttpHeaders; body: Buffer }>((resolve, reject) => {
    ask({ port, host: "127.0.0.1", path, headers, agent: false }, (response) => {
      const parts: Buffer[] = [];
      response.on("data", (part: Buffer) => parts.push(part));
      response.on("end", () =>
        resolve({ status: response.statusCode ?? 0, headers: response.headers, body: Buffer.concat(parts) }),
      );
    })
      .on("error", reject)
      .end();
  });

describe("text on its way out", () => {
  it.each([
    ["br, gzip", "br", brotliDecompressSync],
    ["gzip", "gzip", gunzipSync],
  ])("is compressed as %s is taken, and says so", async (taken, encoding, opened) => {
    const { headers, body } = await get("/page", { "accept-encoding": taken });
    expect(headers["content-encoding"]).toBe(encoding);
    expect(headers.vary).toMatch(/accept-encoding/i);
    expect(opened(body).toString()).toBe(page);
    expect(body.length).toBeLessThan(page.length / 10);
  });
  it("goes as it is where nothing is taken, where it is short, where it is a stream of changes, and as bytes", async () => {
    for (const [path, taken] of [
      ["/page", "identity"],
      ["/small", "br"],
      ["/events", "br"],
      ["/bytes", "br"],
    ] as const)
      expect([path, (await get(path, { "accept-encoding": taken })).headers["content-encoding"]]).toEqual([
        path,
        undefined,
      ]);
  });
});

describe("a built file", () => {
  const path = "/_next/static/chunks/a%20b.js";
  it("comes compressed ahead, for a year, with an entity tag of its own for each way", async () => {
    const tags = new Set<string>();
    for (const [taken, encoding, opened] of [
      ["br", "br", brotliDecompressSync],
      ["gzip", "gzip", gunzipSync],
      ["identity", undefined, (bytes: Buffer) => bytes],
    ] as const) {
      const { status, headers, body } = await get(path, { "accept-encoding": taken });
      expect([status, headers["content-encoding"]]).toEqual([200, encoding]);
      expect(headers["content-type"]).toMatch(/^(text|application)\/javascript/);
      expect(headers["cache-control"]).toBe("public, max-age=31536000, immutable");
      expect(headers.vary).toMatch(/accept-encoding/i);
      expect(opened(body).toString()).toBe(script);
      tags.add(headers.etag ?? "");
      const again = await get(path, { "accept-encoding": taken, "if-none-match": headers.etag ?? "" });
      expect([again.status, again.body.length]).toEqual([304, 0]);
    }
    expect(tags.size).toBe(3);
  });
  // RFC 9110, section 14: a range is of the representation that is chosen; one at the end is counted from it.
  it.each([
    ["bytes=0-9", 206, script.slice(0, 10)],
    ["bytes=-5", 206, script.slice(-5)],
    [`bytes=${script.length}-`, 416, null],
  ])("gives the range %s", async (range, status, text) => {
    const answer = await get(path, { "accept-encoding": "identity", range });
    expect(answer.status).toBe(status);
    if (text !== null) expect(answer.body.toString()).toBe(text);
  });
  it("that isn't there is left to whoever comes next", async () =>
    expect((await get("/_next/static/chunks/c.js")).body.length).toBe(0));
});
