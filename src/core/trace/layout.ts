import Papa from "papaparse";
import { clockIn, isNonFiniteWord, numberIn } from "./cells";
import { guessColumns } from "./vocabulary";
import type { Column } from "./types";

/** How a log is written, judged from its first lines. */
export interface Layout {
  /** `whitespace` stands for any run of blanks. */
  delimiter: "," | ";" | "\t" | "|" | "whitespace";
  decimalComma: boolean;
  /** Line of the header, counted from 1; null when the log has none. */
  headerLine: number | null;
  header: string[];
  columns: Column[];
}

const comment = /^\s*(?:#|\/\/|--|%|!)/;

export function isComment(line: string): boolean {
  const first = line.charCodeAt(0);
  // Most lines begin with a digit, and are asked a million times.
  return !(first >= 48 && first <= 57) && comment.test(line);
}

/**
 * Cells of lines, a row a line: a quote that isn't closed on its own line is a character like any other, and swallows nothing.
 *
 * @param lines without line ends
 * @returns a row for every line, and which of them (from 0) hold a quote left open
 */
export function rowsOf(
  lines: string[],
  delimiter: Layout["delimiter"],
): { rows: string[][]; openQuotes: number[] } {
  if (delimiter === "whitespace")
    return { rows: lines.map((line) => line.trim().split(/\s+/)), openQuotes: [] };
  const parse = (text: string, fastMode: boolean) =>
    Papa.parse<string[]>(text, { delimiter, newline: "\n", fastMode });
  const text = lines.join("\n");
  const whole = parse(text, !text.includes('"'));
  const isWhole = ({ data, errors }: typeof whole) => errors.length === 0 && data.length === lines.length;
  if (lines.length === 0 || isWhole(whole)) return { rows: whole.data, openQuotes: [] };
  const openQuotes: number[] = [];
  const rows = lines.map((line, index) => {
    const quoted = line.includes('"') ? parse(line, false) : null;
    if (quoted && quoted.errors.length === 0 && quoted.data.length === 1) return quoted.data[0];
    if (quoted) openQuotes.push(index);
    return line.split(delimiter);
  });
  return { rows, openQuotes };
}

/** A row's cells, trimmed. */
export const splitRow = (line: string, delimiter: Layout["delimiter"]): string[] =>
  (rowsOf([line], delimiter).rows[0] ?? []).map((cell) => cell.trim());

const isValue = (cell: string, decimalComma: boolean) =>
  cell === "" ||
  isNonFiniteWord(cell) ||
  !Number.isNaN(numberIn(cell, decimalComma)) ||
  !Number.isNaN(clockIn(cell));

function looksNumeric(cells: string[]): boolean {
  const filled = cells.filter((cell) => cell !== "");
  return filled.length > 0 && filled.filter((cell) => isValue(cell, true)).length * 2 >= filled.length;
}

function delimiterOf(lines: string[]): Layout["delimiter"] {
  const sample = lines.length > 50 ? [...lines.slice(0, 10), ...lines.slice(-40)] : lines;
  const share = (mark: string) => sample.filter((line) => line.includes(mark)).length / sample.length;
  // A comma may be a decimal one; the others never are, so they are asked first.
  for (const mark of ["\t", ";", "|"] as const) if (share(mark) > 0.5) return mark;
  if (share(",") > 0.5) {
    const decimalOnly = sample.every((line) => !line.includes(",") || /^\s*\d+,\d+\s*$/.test(line));
    if (!decimalOnly) return ",";
    return "|";
  }
  return sample.filter((line) => /\S[ ]+\S/.test(line) && looksNumeric(splitRow(line, "whitespace"))).length /
    sample.length >
    0.5
    ? "whitespace"
    : ",";
}

function commonest(values: number[]): number {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].reduce((best, entry) => (entry[1] > best[1] ? entry : best), [1, 0])[0];
}

/**
 * Judges delimiter, decimal mark and header from a log's first lines.
 *
 * @param head the first lines of the log, at most a few hundred, without line ends
 */
export function layoutOf(head: string[]): Layout {
  const telling = head
    .map((text, index) => ({ text, line: index + 1 }))
    .filter(({ text }) => text.trim() !== "" && !isComment(text));
  const delimiter = delimiterOf(telling.map(({ text }) => text));
  const rows = telling.map(({ text, line }) => ({ cells: splitRow(text, delimiter), line }));
  // A preamble's lines differ in width from the table's: the width that most rows have is the table's.
  const width = commonest(rows.map(({ cells }) => cells.length));
  const isData = ({ cells }: { cells: string[] }) => cells.length === width && looksNumeric(cells);
  const firstData = rows.findIndex(isData);
  const decimalComma =
    delimiter !== "," && rows.some((row) => isData(row) && row.cells.some((cell) => /^-?\d+,\d+$/.test(cell)));

  // The header is the line of text before the first data with the most columns understood; what stands above it is preamble.
  const before = firstData < 0 ? rows : rows.slice(0, firstData);
  let header: { cells: string[]; line: number } | null = null;
  let understood = -1;
  for (const row of before) {
    if (firstData >= 0 && Math.abs(row.cells.length - width) > 1 && row.cells.length < width) continue;
    const score = guessColumns(row.cells).filter(({ role }) => role !== "ignore").length;
    if (score >= understood) [header, understood] = [row, score];
  }
  const names = header
    ? header.cells.map((cell, index) => cell || `column ${index + 1}`)
    : Array.from({ length: width }, (_, index) => `column ${index + 1}`);
  return {
    delimiter,
    decimalComma,
    headerLine: header?.line ?? null,
    header: names,
    columns: guessColumns(names),
  };
}
