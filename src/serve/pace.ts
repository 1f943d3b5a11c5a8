import type { IncomingMessage } from "node:http";

/** A sender is looked at this often, ms. */
const lookMs = 5_000;
/** Bytes that a body brings between two looks, at least: two kilobytes a second. */
const leastBytes = 10_000;

/**
 * Ends a body that trickles in: whoever sends less than two kilobytes a second over five seconds is cut off.
 * A body that is wholly here, and one that the application is slow to read, are left alone.
 */
export function keepPace(request: IncomingMessage, tooSlow: () => void): void {
  const { method, socket } = request;
  if (method === "GET" || method === "HEAD") return;
  let before = socket.bytesRead;
  const timer = setInterval(() => {
    if (request.complete || request.destroyed) return clearInterval(timer);
    const brought = socket.bytesRead - before;
    before = socket.bytesRead;
    // What lies here unread is our slowness, not the sender's.
    if (brought < leastBytes && request.readableLength === 0 && !socket.isPaused()) {
      clearInterval(timer);
      tooSlow();
    }
  }, lookMs);
  timer.unref();
  request.once("close", () => clearInterval(timer));
}
