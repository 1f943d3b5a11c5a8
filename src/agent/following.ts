import { closeSync, fstatSync, openSync, readSync, readdirSync, statSync } from "node:fs";
import { join } from "node:path";
import { mostLogBytes } from "@/core/trace";

/** What takes in a log while it is written. */
export interface Taking {
  /** Gets what came since the last look, and when it was looked, by a clock that only goes on, ms. */
  push: (bytes: Uint8Array, atMs: number) => void;
  /** Nothing more comes of this log. */
  end: () => void;
}

interface Followed {
  path: string;
  /** Which file it is: another one of the same name is another log. */
  file: number;
  bytes: number;
  taking: Taking;
}

const pieceBytes = 1 << 20;

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
 * @param take begins to take in a log that is found
 */
export class Following {
  private now: Followed | null = null;
  private readonly piece = Buffer.alloc(pieceBytes);

  constructor(
    private readonly path: string,
    private readonly take: (path: string) => Taking,
    /** What was last written before this moment isn't followed, ms since 1970; everything is unless said. */
    private readonly since = -Infinity,
  ) {}

  /** Reads what came since the last look. @param atMs a clock that only goes on, ms */
  look(atMs: number): void {
    const path = newest(this.path);
    if (path === null) return;
    let file: number | null = null;
    try {
      file = openSync(path, "r");
      const { ino, size, mtimeMs } = fstatSync(file);
      if (!this.now && mtimeMs < this.since) return;
      if (this.now && (this.now.path !== path || this.now.file !== ino || size < this.now.bytes)) this.end();
      this.now ??= { path, file: ino, bytes: 0, taking: this.take(path) };
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
    while (log.bytes < mostLogBytes) {
      const count = readSync(file, this.piece, 0, pieceBytes, log.bytes);
      if (count === 0) break;
      log.bytes += count;
      log.taking.push(this.piece.subarray(0, count), atMs);
    }
  }

  /** Nothing more comes of the log in hand. */
  end(): void {
    this.now?.taking.end();
    this.now = null;
  }
}
