import { Readable } from "node:stream";
import type { HandedOut } from "@/contract";
import { packHead } from "@/core/trace";
import { keptAsBytes } from "@/data";
import { notFound } from "@/server/problem";

/** A run's trace as it is kept, packed for the reader's own worker to draw; sent as it is read from the store. */
export async function readTrace(runId: string): Promise<HandedOut> {
  const kept = await keptAsBytes(runId);
  if (!kept) throw notFound("run");
  const { outline, bytes } = kept;
  const head = packHead(outline, { runId });
  const values = outline.parts.reduce((sum, { length }) => sum + length, 0);
  const pieces = async function* (): AsyncGenerator<Uint8Array> {
    yield head;
    yield* bytes;
  };
  return {
    content: Readable.toWeb(Readable.from(pieces(), { objectMode: false })) as ReadableStream<Uint8Array>,
    length: head.length + values * Float32Array.BYTES_PER_ELEMENT,
  };
}
