import type { IncomingMessage } from "node:http";

/** A sender is looked at this often, ms. */
const lookMs = 5_000;
/** Bytes a second that a body brings, at least, while nobody waits. */
const leastPace = 2_000;

/**
 * Ends a body that trickles in: whoever sends less than two kilobytes a second over five seconds is cut off, and
 * more is asked for with every upload that waits for its place. A body that is wholly here, and one that the
 * application is slow to read, are left alone.
 * @param waiting how many uploads wait
 */
export function keepPace(request: IncomingMessage, tooSlow: () => void, waiting: () => number = () => 0): void {
  const { method, socket } = request;
  if (method === "GET" || method === "HEAD") return;
  let before = socket.bytesRead;
  const timer = setInterval(() => {
    if (request.complete || request.destroyed) return clearInterval(timer);
    const brought = socket.bytesRead - before;
    before = socket.bytesRead;
    const least = (leastPace * (1 + waiting()) * lookMs) / 1000;
    // What lies here unread is our slowness, not the sender's.
    if (brought < least && request.readableLength === 0 && !socket.isPaused()) {
      clearInterval(timer);
      tooSlow();
    }
  }, lookMs);
  timer.unref();
  request.once("close", () => clearInterval(timer));
}
