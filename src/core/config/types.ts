export { configFormats, type ConfigFormat } from "@/core/kit";

export type ConfigValue = string | number | boolean | null;

/** A value in a file: where its key stands, and from where to where its own characters do. */
export interface Spot {
  /** Sections or parents, outermost first, then the key. */
  path: string[];
  value: ConfigValue;
  /** Offsets in the text, of what is put in another's place. */
  start: number;
  end: number;
  /** From 1. */
  line: number;
  /** Why it can't be patched in place, where it can't. */
  fixed?: string;
}

/** Text put at a place of the file. */
export interface Edit {
  start: number;
  end: number;
  text: string;
}

/** A file's values, and how its format writes another. */
export interface FileLayout {
  spots: Spot[];
  /** A value in the place of one that is there, in the style of that one. @throws ConfigProblem */
  written: (spot: Spot, value: ConfigValue) => string;
  /** A value that isn't there yet, in the section it belongs to. @throws ConfigProblem */
  added: (path: string[], value: ConfigValue) => Edit;
}

/** Why a file can't be read or patched safely, with the line where there is one. */
export class ConfigProblem extends Error {
  constructor(
    message: string,
    readonly line: number | null = null,
  ) {
    super(line === null ? message : `Line ${line}: ${message}`);
  }
}

/** Tells the line of an offset, from 1. */
export function linesOf(text: string): (offset: number) => number {
  const starts = [0];
  for (let at = text.indexOf("\n"); at >= 0; at = text.indexOf("\n", at + 1)) starts.push(at + 1);
  return (offset) => {
    let [low, high] = [0, starts.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((starts[middle] ?? 0) <= offset) low = middle;
      else high = middle - 1;
    }
    return low + 1;
  };
}

/** How a file ends its lines: as most of its lines do. */
export function lineEnd(text: string): string {
  const all = text.split("\n").length - 1,
    crlf = text.split("\r\n").length - 1;
  return crlf * 2 > all ? "\r\n" : "\n";
}

/** A text as a value: what is a number, yes or no in itself is one. */
export function literalOf(text: string): ConfigValue {
  if (text === "true") return true;
  if (text === "false") return false;
  return /^-?(0|[1-9]\d*)(\.\d+)?([eE][+-]?\d+)?$/.test(text) && Number.isFinite(Number(text))
    ? Number(text)
    : text;
}
