import Papa from "papaparse";
import { isValue } from "./cells";

/** `whitespace` stands for any run of blanks. */
export type Delimiter = "," | ";" | "\t" | "|" | "whitespace";

/** A quoted cell goes over this many lines at most. */
const mostLinesOfCell = 4;

/** What lines become. */
export interface Rows {
  rows: string[][];
  /** Rows of several lines, because a quoted cell goes over them: index of the row → its lines. */
  joined: ReadonlyMap<number, number>;
  /** Lines, from 0, with a quote that no line soon after closes. */
  openQuotes: number[];
  /** Lines at the end that were left alone, because what closes their quote may still come. */
  heldBack: number;
}

export interface RowOptions {
  /** Cells that the table's rows have; null while that isn't known: no line is joined to another then. */
  width: number | null;
  /** More lines follow these. */
  goesOn?: boolean;
}

/**
 * Cells of lines. A line is a row, unless a quoted cell is closed on a line soon after, what lies between is no
 * row of the table, and the row then has the table's width. Any other open quote is a character and swallows
 * nothing.
 *
 * @param lines without line ends
 */
export function rowsOf(lines: string[], delimiter: Delimiter, { width, goesOn = false }: RowOptions): Rows {
  const plain = { joined: new Map<number, number>(), openQuotes: [], heldBack: 0 };
  if (delimiter === "whitespace") return { rows: lines.map((line) => line.trim().split(/\s+/)), ...plain };
  const alone = (line: string) => line.split(delimiter);
  if (!lines.some((line) => line.includes('"'))) return { rows: lines.map(alone), ...plain };
  const parse = (text: string) => Papa.parse<string[]>(text, { delimiter, newline: "\n", fastMode: false });
  const isRow = ({ data, errors }: ReturnType<typeof parse>, many: number) =>
    errors.length === 0 && data.length === many;
  const whole = parse(lines.join("\n"));
  if (isRow(whole, lines.length)) return { rows: whole.data, ...plain };

  const rows: string[][] = [];
  const joined = new Map<number, number>();
  const openQuotes: number[] = [];
  const standsAlone = (line: string) => {
    const cells = alone(line);
    return cells.length === width && cells.some(isValue);
  };
  for (let at = 0; at < lines.length; at++) {
    const line = lines[at];
    const own = line.includes('"') ? parse(line) : null;
    if (!own || isRow(own, 1)) {
      rows.push(own?.data[0] ?? alone(line));
      continue;
    }
    let many = 1,
      closed: string[] | null = null;
    while (width !== null && closed === null && many < mostLinesOfCell) {
      const next = lines[at + many];
      if (next === undefined) {
        if (goesOn) return { rows, joined, openQuotes, heldBack: lines.length - at };
        break;
      }
      if (standsAlone(next)) break;
      many++;
      const over = parse(lines.slice(at, at + many).join("\n"));
      if (isRow(over, 1) && over.data[0].length === width) closed = over.data[0];
    }
    if (closed) {
      joined.set(rows.length, many);
      at += many - 1;
    } else openQuotes.push(at);
    rows.push(closed ?? alone(line));
  }
  return { rows, joined, openQuotes, heldBack: 0 };
}

/** Cells of every row, where the text is well-formed and all rows agree; else null. */
export function evenWidth(lines: string[], delimiter: Delimiter): number | null {
  const { data, errors } = Papa.parse<string[]>(lines.join("\n"), { delimiter, newline: "\n" });
  const widths = new Set(data.map(({ length }) => length));
  return errors.length === 0 && widths.size === 1 ? (data[0]?.length ?? null) : null;
}

/** A row's cells, trimmed. */
export const splitRow = (line: string, delimiter: Delimiter): string[] =>
  (rowsOf([line], delimiter, { width: null }).rows[0] ?? []).map((cell) => cell.trim());
