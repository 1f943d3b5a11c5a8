import type { IncomingMessage, ServerResponse } from "node:http";
import { join } from "node:path";
import compression from "compression";
import expressStaticGzip from "express-static-gzip";

type Answering = (
  request: IncomingMessage,
  response: ServerResponse,
  next: (error?: { status?: number; headers?: Record<string, string> }) => void,
) => void;

/** Text smaller than this is sent as it is, bytes. */
const leastBytes = 1024;

/**
 * Compresses text on its way out: brotli or gzip, as the caller takes it. No page holds a secret beside what a
 * caller wrote (BREACH): what signs somebody in is a cookie and never in a body, a page's nonce is new in every
 * answer, and a token is shown once in an answer of its own. Streams of changes go out as they are.
 */
const compressing = compression({
  threshold: leastBytes,
  filter: (request, response) =>
    !/event-stream/.test(String(response.getHeader("content-type"))) && compression.filter(request, response),
}) as unknown as Answering;

/** From here on what is written to the answer is compressed, where that is worth it and asked for. */
export const compressed = async (request: IncomingMessage, response: ServerResponse): Promise<void> =>
  new Promise((resolve) => compressing(request, response, () => resolve()));

/** Where the built files are served. */
const mount = "/_next/static";
/** Their names change with their content, s. */
const aYear = 365 * 24 * 3600;

/**
 * Serves the built files, compressed ahead where the caller takes it, with ranges and entity tags.
 * @returns whether there is such a file
 */
export function builtFileServer(folder = join(process.cwd(), ".next", "static")) {
  const serve = expressStaticGzip(folder, {
    index: false,
    enableBrotli: true,
    orderPreference: ["br", "gz"],
    serveStatic: { maxAge: aYear * 1000, immutable: true, index: false, redirect: false, fallthrough: false },
  }) as unknown as Answering;
  return async (request: IncomingMessage, response: ServerResponse): Promise<boolean> =>
    new Promise((resolve) => {
      const { url = "" } = request;
      const rest = url.slice(mount.length);
      response.once("close", () => resolve(true));
      serve(Object.assign(request, { url: rest, path: rest.split("?")[0] }), response, (error) => {
        request.url = url;
        // A range beyond the file (RFC 9110, 15.5.17).
        if (error?.status !== 416) return resolve(false);
        response.removeHeader("content-encoding");
        response.writeHead(416, error.headers).end();
      });
    });
}
