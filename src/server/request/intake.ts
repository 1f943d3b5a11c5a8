import { randomUUID } from "node:crypto";
import { mkdirSync, readdirSync, rmSync } from "node:fs";
import { open, unlink, type FileHandle } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Room } from "@/data";
import { hungUp, Problem } from "@/server/problem";

/** How a body is packed, as it was sent: the framework is told of no `Content-Encoding`. */
export const codingHeader = "x-lamp-coding";

const megabyte = 1024 * 1024;
/** A body no larger than this is held in memory as it comes, and waits for nobody, bytes. */
const lightBytes = 64 * 1024;
/** A body no larger than this doesn't wait for larger ones once it is whole, bytes. */
const smallBytes = 4 * megabyte;
/** Each upload counts at least this much on disk, so that their number is bounded as well, bytes. */
const leastSpooled = 16 * megabyte;
/** Bytes of a body after which whoever waits is answered first. */
const breathBytes = 512 * 1024;

/** Where bodies lie while they come: on the store's disk where the start command says so. */
const spoolFolder = () => process.env.LAMP_UPLOADS ?? join(tmpdir(), `velvet-lamp-uploads-${process.pid}`);

interface Rooms {
  /** On disk, while they come. */
  spool: Room;
  /** In memory, once they are whole. */
  small: Room;
  large: Room;
}

/** One of them a process: the framework may load this file more than once. */
const kept = globalThis as { lampIntake?: Rooms };
const rooms = (): Rooms =>
  (kept.lampIntake ??= {
    spool: new Room(1024 * megabyte, 768 * megabyte),
    small: new Room(24 * megabyte, 16 * megabyte),
    large: new Room(96 * megabyte, 64 * megabyte),
  });

/** How many uploads wait until others have come in; senders have to be the faster the more there are. */
export const uploadsWaiting = (): number => kept.lampIntake?.spool.waiting ?? 0;

/**
 * Removes what a killed process left, and makes the folder. Called once before the first body comes.
 * @throws as the disk refuses it
 */
export function cleanSpool(folder = spoolFolder()): void {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  for (const name of readdirSync(folder)) rmSync(join(folder, name), { force: true });
}

/** A file that has no name any more: it is gone with its handle, whatever ends this process. */
async function namelessFile(): Promise<FileHandle> {
  const folder = spoolFolder();
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const path = join(folder, randomUUID());
  const handle = await open(path, "wx+", 0o600);
  await unlink(path);
  return handle;
}

/** What a request brings, and who sends it. */
export interface Incoming {
  /** Null for a request without a body. */
  body: ReadableStream<Uint8Array> | null;
  /** Bytes that it says it has; 0 where it doesn't say. Of what comes packed nobody says. */
  length: number;
  /** Whether the body comes packed by gzip (RFC 1952): what is counted and seen is what it unpacks to. */
  packed?: boolean;
  /** Bytes at most. */
  limit: number;
  caller: string;
  /** Aborted when the connection ends. */
  signal: AbortSignal;
  /** Is shown every piece as it comes; what it throws refuses the body once it is whole. */
  see: (part: Uint8Array) => void;
}

/** Unpacks gzip a piece at a time, so that a small body that unpacks to a large one is refused at its limit. */
const unpacking = () =>
  new DecompressionStream("gzip") as unknown as ReadableWritablePair<Uint8Array, Uint8Array>;

/** Pieces of a body as they come; ends with the connection, whatever the stream does. */
async function* piecesOf({ body, signal, packed }: Incoming): AsyncGenerator<Uint8Array> {
  if (!body) return;
  const reader = (packed ? body.pipeThrough(unpacking()) : body).getReader();
  const ended = new Promise<never>((_resolve, reject) => {
    if (signal.aborted) reject(hungUp());
    signal.addEventListener("abort", () => reject(hungUp()), { once: true });
  });
  ended.catch(() => undefined);
  try {
    for (;;) {
      const reading = reader.read();
      reading.catch(() => undefined);
      const { done, value } = await Promise.race([reading, ended]);
      if (done) return;
      yield value;
    }
  } finally {
    // A stream whose connection is over ends by itself; the framework fails on one that was cancelled before.
    if (signal.aborted) reader.releaseLock();
    else void reader.cancel().catch(() => undefined);
  }
}

/** A body that has come whole: in memory where it is light, else in a file. */
interface Whole {
  size: number;
  light: Uint8Array<ArrayBuffer> | null;
  file: FileHandle | null;
}

async function received(incoming: Incoming): Promise<Whole> {
  const { limit, see } = incoming;
  const tooMuch = new Problem(
    413,
    limit < megabyte
      ? "The request is too large."
      : `The request is larger than ${Math.round(limit / megabyte)} MB.`,
    "Send less at once.",
  );
  if (incoming.length > limit) throw tooMuch;
  const most = incoming.length || limit;
  let parts: Uint8Array[] = [];
  let file: FileHandle | null = null;
  let size = 0,
    seen = 0;
  let refusal: unknown = null;
  try {
    for await (const part of piecesOf(incoming)) {
      if (size + part.length > most) throw tooMuch;
      size += part.length;
      // A sender hears no answer before it has sent all: a refused body is read to its end, and not held.
      if (refusal !== null) continue;
      if ((seen += part.length) > breathBytes) {
        seen = 0;
        await new Promise(setImmediate);
      }
      try {
        see(part);
      } catch (error) {
        refusal = error;
        continue;
      }
      parts.push(part);
      if (size <= lightBytes) continue;
      file ??= await namelessFile();
      for (const each of parts) await file.write(each);
      parts = [];
    }
    if (refusal !== null) throw refusal;
    return { size, file, light: file ? null : new Uint8Array(Buffer.concat(parts)) };
  } catch (error) {
    await file?.close();
    const { code } = error as NodeJS.ErrnoException;
    if (code === "ENOSPC" || code === "EDQUOT")
      throw new Problem(
        507,
        "There is no room on the disk for this upload.",
        "Make room on it, then send it again.",
      );
    if (incoming.packed && !(error instanceof Problem) && !incoming.signal.aborted)
      throw new Problem(422, "The request's body isn't packed by gzip.", "Pack it again, or send it as it is.");
    throw error;
  }
}

async function readWhole(file: FileHandle, size: number): Promise<Uint8Array<ArrayBuffer>> {
  const bytes = new Uint8Array(size);
  for (let at = 0; at < size;) {
    const { bytesRead } = await file.read(bytes, at, size - at, at);
    if (bytesRead === 0) throw new Error("An upload's file is shorter than what was written to it.");
    at += bytesRead;
  }
  return bytes;
}

/**
 * Takes a request's body in and works on it. A body comes to a file, however slowly, and takes room in memory only
 * once it is whole; what it takes is given back when the connection ends.
 * @returns what `work` returns
 * @throws Problem 408 where the connection ends first, 413 for a body over its limit, 507 where a disk is full
 */
export async function takeIn<T>(
  incoming: Incoming,
  work: (bytes: Uint8Array<ArrayBuffer>) => Promise<T>,
): Promise<T> {
  const { length, limit, caller, signal } = incoming;
  const { spool, small, large } = rooms();
  const expected = length || limit;
  const isLight = expected <= lightBytes || !incoming.body;
  const waiting = async (room: Room, amount: number) =>
    room.enter(amount, caller, signal).catch(() => {
      throw hungUp();
    });
  const leaveSpool =
    isLight || expected > limit ? () => {} : await waiting(spool, Math.max(expected, leastSpooled));
  let whole: Whole | null = null;
  let leave = () => {};
  try {
    whole = await received(incoming);
    const { size, light, file } = whole;
    if (light) return await work(light);
    leave = await waiting(size <= smallBytes ? small : large, size);
    const bytes = await readWhole(file as FileHandle, size);
    await file?.close();
    whole = null;
    leaveSpool();
    return await work(bytes);
  } finally {
    await whole?.file?.close();
    leaveSpool();
    leave();
  }
}
