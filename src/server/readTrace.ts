import { Readable } from "node:stream";
import { packHead } from "@/core/trace";
import { keptAsBytes } from "@/data";
import { notFound } from "./problem";

/** Bytes that are sent as they are read from the store. */
export interface SentAsRead {
  stream: ReadableStream<Uint8Array>;
  /** Of all of them, bytes. */
  length: number;
}

/** A run's trace as it is kept, packed for the reader's own worker to draw. */
export async function readTrace(runId: string): Promise<SentAsRead> {
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
    stream: Readable.toWeb(Readable.from(pieces(), { objectMode: false })) as ReadableStream<Uint8Array>,
    length: head.length + values * Float32Array.BYTES_PER_ELEMENT,
  };
}
