import { IncomingMessage, ServerResponse, type IncomingHttpHeaders } from "node:http";
import { Socket } from "node:net";
import { Writable } from "node:stream";
import { setTimeout as rest } from "node:timers/promises";
import { callerHeader, theApplication, type Caller } from "@/server/actor";
import type { Framework } from "./front";

/** What is drawn before anybody asks: pages and an endpoint that between them load what most others are made of. */
const paths = ["/", "/jobs", "/jobs/00000000-0000-4000-8000-000000000000", "/api/v1/health"];
/** Nobody waits longer for it, ms: without the store a page takes its time to say so. */
const patienceMs = 5_000;

/** Asked by the application of itself: nothing goes over any network, and the answer goes nowhere. */
async function askedOfItself(framework: Framework, url: string, headers: IncomingHttpHeaders): Promise<void> {
  const request = Object.assign(new IncomingMessage(new Socket()), { method: "GET", url, headers });
  request.push(null);
  const response = new ServerResponse(request);
  const nowhere = new Writable({ write: (_part, _encoding, done) => done() });
  nowhere.on("drain", () => response.emit("drain"));
  response.assignSocket(nowhere as unknown as Socket);
  await framework(request, response);
}

/**
 * Draws some pages once, so that whoever comes first doesn't wait for them to be compiled, and holds nobody up
 * meanwhile. What can't be drawn is drawn by whoever asks.
 */
export async function drawFirstPages(framework: Framework, host: string, patience = patienceMs): Promise<void> {
  const caller: Caller = { asker: { ...theApplication, may: "reads", id: "" }, address: "", secure: false };
  const headers = { host, [callerHeader]: encodeURIComponent(JSON.stringify(caller)) };
  const drawing = (async () => {
    for (const path of paths) await askedOfItself(framework, path, headers);
  })();
  await Promise.race([drawing.catch(() => undefined), rest(patience, undefined, { ref: false })]);
}
