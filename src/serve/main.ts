// The application's own server: takes the address, starts its processes, and stands before the framework.
import cluster from "node:cluster";
import { readFileSync } from "node:fs";
import { createServer as createPlain } from "node:http";
import { createServer as createSecure } from "node:https";
import type { Duplex } from "node:stream";
import next from "next";
import { cleanSpool } from "@/server/request/intake";
import { isLoopback, listened } from "./addresses";
import { front } from "./front";
import { builtFiles } from "./gate";
import { inertGuards } from "./guards";
import { PageExchange, noOthers, otherPages } from "./share";
import { startThreads } from "./threads";
import { drawFirstPages } from "./warm";

// Whoever read what is written here may be gone, killed; that is no reason to end, or to say so for ever.
for (const stream of [process.stdout, process.stderr]) stream.on("error", () => undefined);

const dev = process.env.NODE_ENV === "development";
const port = Number(process.env.LAMP_PORT ?? 3210);
const processes = dev ? 1 : Math.max(1, Math.min(16, Number(process.env.LAMP_PROCESSES ?? 1) || 1));

/** A request's head is here within this, ms; a whole request within the next. */
const headMs = 10_000,
  requestMs = 30 * 60_000,
  quietMs = 55_000,
  handshakeMs = 10_000;
/** Bytes of a request's head, at most. */
const mostHead = 16 * 1024;

async function serve(): Promise<void> {
  const listen = listened();
  const app = next({ dev, dir: process.cwd(), hostname: isLoopback(listen) ? listen : "0.0.0.0", port });
  startThreads(processes);
  await app.prepare();
  const framework = app.getRequestHandler();
  if (!dev) await drawFirstPages(framework, `127.0.0.1:${port}`);
  const answer = front(framework, cluster.isWorker ? others() : noOthers, dev ? null : builtFiles());
  const { LAMP_CERTIFICATE: certificate, LAMP_CERTIFICATE_KEY: key } = process.env;
  const bounds = {
    headersTimeout: headMs,
    requestTimeout: requestMs,
    keepAliveTimeout: quietMs,
    connectionsCheckingInterval: 2_000,
    maxHeaderSize: mostHead,
  };
  const server =
    certificate && key
      ? createSecure(
          {
            ...bounds,
            handshakeTimeout: handshakeMs,
            minVersion: "TLSv1.2",
            cert: readFileSync(certificate),
            key: readFileSync(key),
          },
          answer,
        )
      : createPlain(bounds, answer);
  const upgrade = app.getUpgradeHandler();
  if (dev) server.on("upgrade", (request, socket, head) => void upgrade(request, socket, head));
  // What isn't HTTP, or comes too slowly to be: refused with the headers that every answer has.
  server.on("clientError", (error: NodeJS.ErrnoException, socket: Duplex) => {
    if (error.code === "ECONNRESET" || !socket.writable) return void socket.destroy();
    const status =
      {
        HPE_HEADER_OVERFLOW: "431 Request Header Fields Too Large",
        ERR_HTTP_REQUEST_TIMEOUT: "408 Request Timeout",
      }[error.code ?? ""] ?? "400 Bad Request";
    const heads = Object.entries({ ...inertGuards, connection: "close", "content-length": "0" });
    socket.end(`HTTP/1.1 ${status}\r\n${heads.map(([name, value]) => `${name}: ${value}\r\n`).join("")}\r\n`);
  });
  server.on("error", (error) => {
    console.error(`The address can't be taken: ${error.message}`);
    process.exit(1);
  });
  server.listen(port, listen);
  // What is under way is finished; streams of changes, which never are, are cut off after a moment.
  const stop = () => {
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), 1_000).unref();
  };
  for (const signal of ["SIGTERM", "SIGINT", "SIGHUP"]) process.on(signal, stop);
}

/** The pages of the processes beside this one, asked of the one that began them all. */
function others() {
  const asked = otherPages((word) => {
    // Gone with the one that began it, it ends; what it makes meanwhile is its own.
    if (process.connected) process.send?.(word);
  });
  process.on("message", asked.hears);
  return asked;
}

/** A process that ends by itself is begun again; one that can't begin ends them all. */
function supervise(): void {
  const soonMs = 10_000;
  let stopping = false;
  let soon = 0;
  const exchange = new PageExchange();
  // Pages are bytes.
  cluster.setupPrimary({ serialization: "advanced" });
  const begin = () => {
    const at = Date.now();
    const worker = cluster.fork();
    const member = exchange.joined((word) => {
      if (worker.isConnected()) worker.send(word);
    });
    worker.on("message", member.hears);
    worker.on("exit", (code, signal) => {
      member.gone();
      if (stopping) return;
      soon = Date.now() - at < soonMs ? soon + 1 : 0;
      console.error(`A process of the application ended (${signal ?? code}).`);
      if (soon > 5) process.exit(1);
      begin();
    });
  };
  for (let k = 0; k < processes; k++) begin();
  const stop = () => {
    stopping = true;
    for (const worker of Object.values(cluster.workers ?? {})) worker?.process.kill("SIGTERM");
    setTimeout(() => process.exit(0), 3_000).unref();
  };
  for (const signal of ["SIGTERM", "SIGINT", "SIGHUP"]) process.on(signal, stop);
}

if (cluster.isPrimary) cleanSpool();
if (processes > 1 && cluster.isPrimary) supervise();
else await serve();
