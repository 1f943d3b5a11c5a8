import { gzipSync } from "node:zlib";
import type { Pairing } from "./home";

/** What a server said; no status where none was reached. */
export interface Said {
  status: number | null;
  answer: Record<string, unknown>;
}

/** An answer is waited for so long, ms. */
const patienceMs = 30_000;

/** What is longer is packed, characters. */
const packedFrom = 1000;

/** Asks the server. Never throws: a server that isn't there is an answer too. */
export async function asked(
  { address, token }: Pick<Pairing, "address"> & { token?: string },
  method: "GET" | "POST",
  path: string,
  body?: unknown,
  key?: string,
): Promise<Said> {
  const text = body === undefined ? undefined : JSON.stringify(body);
  const packed = text !== undefined && text.length >= packedFrom;
  try {
    const response = await fetch(`${address}/api/v1${path}`, {
      method,
      redirect: "error",
      signal: AbortSignal.timeout(patienceMs),
      headers: {
        ...(token !== undefined && { authorization: `Bearer ${token}` }),
        ...(text !== undefined && { "content-type": "application/json" }),
        ...(packed && { "content-encoding": "gzip" }),
        ...(key !== undefined && { "idempotency-key": key }),
      },
      ...(text !== undefined && { body: packed ? gzipSync(text) : text }),
    });
    const answer = (await response.json().catch(() => ({}))) as Record<string, unknown>;
    return { status: response.status, answer };
  } catch (error) {
    const { message, cause } = error as Error & { cause?: Error };
    return { status: null, answer: { title: cause?.message ?? message } };
  }
}

export const wordsOf = ({ status, answer }: Said): string =>
  [answer.title, answer.fix].filter((each) => typeof each === "string").join(" ") ||
  `status ${status ?? "none"}`;

/**
 * How far the server's clock is ahead of this one, ms, by the four moments of one exchange (RFC 5905, section 8):
 * the question sent and read there, the answer sent there and read here.
 */
export const clockOffset = (sent: number, received: number, answered: number, got: number): number =>
  (received - sent + (answered - got)) / 2;

/** Exchanges with the server; the one that took least tells the offset best. */
const exchanges = 3;

/** Who this device is to the server, and how far the clocks are apart; null where the server isn't reached. */
export async function greeting(
  pairing: Pairing,
): Promise<{ offsetMs: number; rig: string; job: string | null } | { refused: Said } | null> {
  let best: { took: number; offsetMs: number; rig: string; job: string | null } | null = null;
  for (let k = 0; k < exchanges; k++) {
    const sent = Date.now();
    const said = await asked(pairing, "GET", "/device");
    const got = Date.now();
    if (said.status === null || said.status >= 500) continue;
    if (said.status !== 200) return { refused: said };
    const { receivedMs, answeredMs, rig, job } = said.answer as {
      receivedMs: number;
      answeredMs: number;
      rig: string;
      job: { title: string; engine: string } | null;
    };
    const took = got - sent - (answeredMs - receivedMs);
    if (best === null || took < best.took)
      best = {
        took,
        offsetMs: clockOffset(sent, receivedMs, answeredMs, got),
        rig,
        job: job && `${job.title}, ${job.engine}`,
      };
  }
  return best;
}
