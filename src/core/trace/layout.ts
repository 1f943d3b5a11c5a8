import { said } from "./codes";
import type { Said } from "@/core/said";
import { isValue, numberIn } from "./cells";
import { evenWidth, rowsOf, splitRow, type Delimiter } from "./rows";
import { guessColumns } from "./vocabulary";
import type { Column, LogProblem, Role } from "./types";

/** A log with more columns than this isn't read. */
export const mostColumns = 2000;

/** How a log is written, judged from its first lines. */
export interface Layout {
  delimiter: Delimiter;
  decimalComma: boolean;
  /** Every value fills two cells, because a comma parts the cells and is the decimal mark as well. */
  commaPairs: boolean;
  /** Cells of a row, before such pairs are joined. */
  width: number;
  /** Last line of the header, counted from 1; null when the log has none. */
  headerLine: number | null;
  header: string[];
  columns: Column[];
  /** What was guessed and wants confirming. */
  guesses: Said[];
  /** Why a log written like this can't be read; null for one that can. */
  refusal: Pick<LogProblem, "code" | "reason" | "remedy"> | null;
}

const comment = /^\s*(?:#|\/\/|--|%|!)/;

export function isComment(line: string): boolean {
  const first = line.charCodeAt(0);
  // Most lines begin with a digit, and are asked a million times.
  return !(first >= 48 && first <= 57) && comment.test(line);
}

function looksNumeric(cells: string[]): boolean {
  const filled = cells.filter((cell) => cell !== "");
  return filled.length > 0 && filled.filter(isValue).length * 2 >= filled.length;
}

function delimiterOf(lines: string[]): Delimiter {
  const sample = lines.length > 50 ? [...lines.slice(0, 10), ...lines.slice(-40)] : lines;
  const share = (mark: string) => sample.filter((line) => line.includes(mark)).length / sample.length;
  // A comma may be a decimal one; the others never are, so they are asked first. One that stands in a scene's
  // name isn't in every row.
  const least = share(",") > 0.8 ? 0.8 : 0.5;
  for (const mark of ["\t", ";", "|"] as const) if (share(mark) > least) return mark;
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

/** Cells of the table, of one row's cells; null for a row that has half a value too many. */
export function pairedCells(cells: string[], { commaPairs, header }: Pick<Layout, "commaPairs" | "header">) {
  if (!commaPairs) return cells;
  if (cells.length !== 2 * header.length) return null;
  return header.map((_, index) => `${cells[2 * index].trim()}.${cells[2 * index + 1].trim()}`);
}

const timing: ReadonlySet<Role> = new Set(["frameTime", "presentTime", "rate"]);

interface HeadRow {
  cells: string[];
  /** The last of its lines, from 1. */
  line: number;
}

/** The rows of a head, and the width that most of them have: a preamble's lines differ from it. */
function headRows(telling: { text: string; line: number }[], delimiter: Delimiter) {
  const texts = telling.map(({ text }) => text);
  const alone = rowsOf(texts, delimiter, { width: null });
  const isPlain = alone.openQuotes.length === 0;
  // A cell over several lines leaves parts of rows, with half of a pair of quotes each.
  const isPart = (text: string) => text.split('"').length % 2 === 0;
  const whole = isPlain ? alone.rows : alone.rows.filter((_, at) => !isPart(texts[at]));
  const width = (isPlain ? null : evenWidth(texts, delimiter)) ?? commonest(whole.map(({ length }) => length));
  const { rows, joined } = isPlain ? alone : rowsOf(texts, delimiter, { width });
  let at = 0;
  const made = rows.map((cells, index): HeadRow => {
    at += joined.get(index) ?? 1;
    return { cells: cells.map((cell) => cell.trim().replace(/\s*\n\s*/g, " ")), line: telling[at - 1].line };
  });
  return { width, rows: made };
}

/**
 * The header over unquoted decimal commas, which give themselves away: rows of more cells than it names, and no
 * number with a point.
 */
function crowdedHeader(rows: HeadRow[], firstData: number, width: number): HeadRow | null {
  const data = rows.slice(firstData).filter(({ cells }) => cells.length === width && looksNumeric(cells));
  const names = rows[firstData - 1];
  if (names.cells.length >= width || !guessColumns(names.cells).some(({ role }) => timing.has(role)))
    return null;
  const isCrowded = ({ cells }: HeadRow) =>
    cells.filter((cell) => cell !== "").length > names.cells.length &&
    cells.every((cell) => Number.isNaN(numberIn(cell, false)) || /^[-+]?\d+$/.test(cell));
  return data.length > 0 && data.every(isCrowded) ? names : null;
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
  const { width, rows } = headRows(telling, delimiter);
  const bare = { delimiter, decimalComma: false, commaPairs: false, width, headerLine: null, guesses: [] };
  const widest = rows.reduce((most, { cells }) => Math.max(most, cells.length), 0);
  if (widest > mostColumns)
    return {
      ...bare,
      header: [],
      columns: [],
      refusal: {
        code: "tooLarge",
        reason: said("refused.columns", { columns: widest, most: mostColumns }),
        remedy: said("remedy.fewerColumns"),
      },
    };

  const isData = ({ cells }: { cells: string[] }) => cells.length === width && looksNumeric(cells);
  const firstData = rows.findIndex(isData);
  const before = firstData < 0 ? rows : rows.slice(0, firstData);
  const crowded = delimiter === "," && firstData > 0 ? crowdedHeader(rows, firstData, width) : null;
  if (crowded) {
    const columns = guessColumns(crowded.cells);
    const isPaired = width === 2 * columns.length;
    return {
      ...bare,
      commaPairs: isPaired,
      headerLine: crowded.line,
      header: crowded.cells,
      columns,
      guesses: isPaired ? [said("log.commaPairs")] : [],
      refusal: isPaired
        ? null
        : {
            code: "decimalCommas",
            reason: said("refused.decimalCommas", { columns: columns.length, cells: width }),
            remedy: said("remedy.decimalCommas"),
          },
    };
  }

  // The header is the line of text before the first data with the most columns understood; what stands above it
  // is preamble.
  let header: HeadRow | null = null;
  let understood = -1;
  for (const row of before) {
    if (firstData >= 0 && Math.abs(row.cells.length - width) > 1 && row.cells.length < width) continue;
    const score = guessColumns(row.cells).filter(({ role }) => role !== "ignore").length;
    if (score >= understood) [header, understood] = [row, score];
  }
  const names = header
    ? header.cells.map((cell, index) => cell || `column ${index + 1}`)
    : Array.from({ length: width }, (_, index) => `column ${index + 1}`);
  const decimalComma = rows.some((row) => isData(row) && row.cells.some((cell) => /^-?\d+,\d+$/.test(cell)));
  return {
    ...bare,
    decimalComma,
    headerLine: header?.line ?? null,
    header: names,
    columns: guessColumns(names),
    guesses: decimalComma && delimiter === "," ? [said("log.quotedCommas")] : [],
    refusal: null,
  };
}
