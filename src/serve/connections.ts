import { randomUUID } from "node:crypto";
import type { IncomingMessage, ServerResponse } from "node:http";

/** Under which the framework's side finds the connection that a request came by; nobody outside can write it. */
export const connectionHeader = "x-lamp-connection";

/** One table a process: the framework loads this file once more. */
const kept = globalThis as { lampConnections?: Map<string, AbortSignal> };
const connections = (kept.lampConnections ??= new Map<string, AbortSignal>());

/**
 * Notes a request's connection until its answer is over. The framework's own signal isn't aborted where the
 * answer was ended here, as it is for a sender that is too slow.
 */
export function noteConnection(request: IncomingMessage, response: ServerResponse): void {
  const id = randomUUID();
  const ending = new AbortController();
  connections.set(id, ending.signal);
  request.headers[connectionHeader] = id;
  const end = () => {
    if (!connections.delete(id)) return;
    request.socket.off("close", end);
    ending.abort();
  };
  response.once("close", end);
  request.socket.once("close", end);
}

/** The signal that is aborted when a request's connection ends; one that never is, where nobody noted it. */
export const connectionOf = (headers: { get: (name: string) => string | null }): AbortSignal =>
  connections.get(headers.get(connectionHeader) ?? "") ?? new AbortController().signal;
