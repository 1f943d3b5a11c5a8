import { said } from "./codes";
import { problem } from "./problem";
import { LogReader } from "./reader";
import type { LogProblem, LogResult, ReadOptions } from "./types";

/** Logs larger than this are refused before a byte is read. */
export const mostLogBytes = 512 * 1024 * 1024;

export function tooLarge(bytes: number): LogProblem | null {
  if (bytes <= mostLogBytes) return null;
  const reason = said("refused.tooLarge", { bytes, most: mostLogBytes });
  return problem("tooLarge", reason, said("remedy.cutIt"));
}

type Encoding = "utf-8" | "utf-16le" | "utf-16be" | "windows-1252";

/** Judges how the first bytes of a file are written; null for bytes that are no text. */
export function encodingOf(sample: Uint8Array): Encoding | null {
  // A device that lost power while it wrote leaves zeros at the end.
  const filled = sample.findLastIndex((byte) => byte !== 0) + 1;
  const isCutOff = filled > 1 && sample.length - filled > 1;
  const head = isCutOff ? sample.subarray(0, filled) : sample;
  if (head[0] === 0xff && head[1] === 0xfe) return "utf-16le";
  if (head[0] === 0xfe && head[1] === 0xff) return "utf-16be";
  let zerosEven = 0,
    zerosOdd = 0,
    controls = 0;
  head.forEach((byte, index) => {
    if (byte === 0) {
      if (index % 2 === 0) zerosEven++;
      else zerosOdd++;
    } else if (byte < 9 || (byte > 13 && byte < 32)) controls++;
  });
  const half = head.length / 2;
  if (zerosOdd > half * 0.7 && zerosEven < half * 0.05) return "utf-16le";
  if (zerosEven > half * 0.7 && zerosOdd < half * 0.05) return "utf-16be";
  if (zerosEven + zerosOdd > 0 || controls > head.length * 0.02) return null;
  try {
    // `stream` lets a character be cut at the end of the sample.
    new TextDecoder("utf-8", { fatal: true }).decode(head, { stream: true });
    return "utf-8";
  } catch {
    return "windows-1252";
  }
}

/** A `LogReader` fed with bytes: settles the encoding, refuses what isn't text. */
export class ByteLogReader {
  private decoder: TextDecoder | null = null;
  private refused = false;
  private encoding: Encoding = "utf-8";
  /** A character of several bytes was read: it is UTF-8 for sure. */
  private isSure = false;
  private hasLost = false;
  private readonly reader: LogReader;

  constructor(options?: ReadOptions) {
    this.reader = new LogReader(options);
  }

  /** @returns false when the bytes are no text and no more need be pushed */
  push(bytes: Uint8Array): boolean {
    if (this.refused || bytes.length === 0) return !this.refused;
    if (!this.decoder) {
      const found = encodingOf(bytes.subarray(0, 65536));
      if (!found) {
        this.refused = true;
        return false;
      }
      this.decoder = this.decoderOf(found);
    }
    this.reader.push(this.decode(bytes, this.decoder));
    return true;
  }

  private decoderOf(encoding: Encoding): TextDecoder {
    this.encoding = encoding;
    return new TextDecoder(encoding);
  }

  private decode(bytes: Uint8Array, decoder: TextDecoder): string {
    const text = decoder.decode(bytes, { stream: true });
    if (this.encoding !== "utf-8") return text;
    if (!text.includes("\uFFFD")) {
      this.isSure ||= text.length !== bytes.length;
      return text;
    }
    if (this.isSure) {
      this.hasLost = true;
      return text;
    }
    // All was plain up to here, so that it may be what it looks like now.
    this.decoder = this.decoderOf("windows-1252");
    return this.decoder.decode(bytes, { stream: true });
  }

  finish(): LogResult {
    if (this.refused)
      return { ok: false, problem: problem("binary", said("refused.notText"), said("remedy.chooseText")) };
    if (this.decoder) this.reader.push(this.decoder.decode());
    const result = this.reader.finish();
    if (result.ok && this.encoding !== "utf-8")
      result.reading.notes.push(said("log.encoding", { encoding: this.encoding }));
    if (result.ok && this.hasLost) result.reading.notes.push(said("log.lostCharacters"));
    return result;
  }
}

/** Reads a whole log from bytes; see `ByteLogReader`. */
export function readLogBytes(bytes: Uint8Array, options?: ReadOptions): LogResult {
  const large = tooLarge(bytes.length);
  if (large) return { ok: false, problem: large };
  const reader = new ByteLogReader(options);
  // Rows of so short a piece are gone before the collector moves them.
  const step = 1 << 17;
  for (let at = 0; at < bytes.length; at += step) if (!reader.push(bytes.subarray(at, at + step))) break;
  return reader.finish();
}
