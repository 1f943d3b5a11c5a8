import { closeSync, fstatSync, openSync, readSync, readdirSync, statSync } from "node:fs";
import { join } from "node:path";
import { beginOf, joined, type Growth, type Sampled } from "@/core/device";
import { ByteLogReader, durationOf, mostLogBytes, type Trace } from "@/core/trace";
import { refusalWords } from "@/core/words";

/** A log that is being written, as far as it was read. */
interface Followed {
  path: string;
  /** Which file it is: another one of the same name is another log. */
  file: number;
  reader: ByteLogReader;
  bytes: number;
  lines: number;
  seen: Growth[];
}

/** A log that was followed to its end, with what the device did meanwhile. */
export interface FollowedLog {
  path: string;
  trace: Trace;
}

const pieceBytes = 1 << 20;
const lineEnd = 10;

/** The newest file of a folder, or the file that is named; null where there is none yet. */
function newest(path: string): string | null {
  try {
    if (!statSync(path).isDirectory()) return path;
    const files = readdirSync(path).flatMap((name) => {
      const each = join(path, name);
      const found = statSync(each);
      return found.isFile() ? [{ each, at: found.mtimeMs }] : [];
    });
    return files.sort((a, b) => b.at - a.at)[0]?.each ?? null;
  } catch {
    return null;
  }
}

/**
 * Follows a log that an engine or an overlay writes, or the newest one of a folder: what was cut off, put in the place
 * of another or begun beside it is a log of its own.
 * @param path a file or a folder; neither needs to be there yet
 */
export class Following {
  private now: Followed | null = null;
  private readonly ended: Followed[] = [];
  private readonly piece = Buffer.alloc(pieceBytes);

  constructor(private readonly path: string) {}

  /** Reads what came since the last look. @param atMs a clock that only goes on, ms */
  look(atMs: number): void {
    const path = newest(this.path);
    if (path === null) return;
    let file: number | null = null;
    try {
      file = openSync(path, "r");
      const { ino, size, mtimeMs } = fstatSync(file);
      const { now } = this;
      if (now && (now.path !== path || now.file !== ino || size < now.bytes)) {
        this.ended.push(now);
        this.now = null;
      }
      this.now ??= { path, file: ino, reader: new ByteLogReader(), bytes: 0, lines: 0, seen: [] };
      // What was there at the first look came before it: the last of it when the file was last written to.
      const late = this.now.bytes === 0 ? Math.max(0, Date.now() - mtimeMs) : 0;
      this.read(this.now, file, atMs - late);
    } catch {
      // It was there a moment ago, and is no longer: looked for again at the next look.
    } finally {
      if (file !== null) closeSync(file);
    }
  }

  private read(log: Followed, file: number, atMs: number): void {
    const before = log.bytes;
    while (log.bytes < mostLogBytes) {
      const count = readSync(file, this.piece, 0, pieceBytes, log.bytes);
      if (count === 0) break;
      const read = this.piece.subarray(0, count);
      log.reader.push(read);
      log.bytes += count;
      for (let at = read.indexOf(lineEnd); at >= 0; at = read.indexOf(lineEnd, at + 1)) log.lines++;
    }
    if (log.bytes > before) log.seen.push({ atMs, lines: log.lines });
  }

  /** What was followed: each log with the samples that were read meanwhile, and why a log isn't among them. */
  end(samples: readonly Sampled[]): { logs: FollowedLog[]; left: { path: string; why: string }[] } {
    const logs: FollowedLog[] = [],
      left: { path: string; why: string }[] = [];
    for (const { path, reader, seen } of [...this.ended, ...(this.now ? [this.now] : [])]) {
      const result = reader.finish();
      if (!result.ok) {
        left.push({ path, why: refusalWords(result.problem) });
        continue;
      }
      const { trace } = result.reading;
      const begin = beginOf(trace, seen);
      if (begin !== null && begin + durationOf(trace) < 0)
        left.push({ path, why: "It was written before it was followed." });
      else logs.push({ path, trace: begin === null ? trace : joined(trace, samples, begin) });
    }
    return { logs, left };
  }
}
