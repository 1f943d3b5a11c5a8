import { outOfBounds } from "./pack";
import { assemble } from "./assemble";
import { clockIn, numberIn } from "./cells";
import { Collector } from "./collect";
import { isComment, layoutOf, rowsOf, splitRow, type Layout } from "./layout";
import type { Column, LogProblem, LogResult, ReadOptions } from "./types";

/** Lines looked at before the layout is judged. */
const headLines = 300;
const delimiterNames: Record<Layout["delimiter"], string> = {
  ",": "comma",
  ";": "semicolon",
  "\t": "tab",
  "|": "bar",
  whitespace: "blank",
};

/**
 * Reads a log piece by piece: any delimiter, decimal comma, units from headers or by plausibility.
 *
 * Push text as it comes (pieces may end anywhere), then ask `finish` for the trace.
 * Nothing is dropped in silence: rows that aren't numeric are counted and shown, times that
 * can't be are refused with their lines.
 *
 * @example
 * const reader = new LogReader();
 * reader.push("frame time (ms)\n16.7\n16.6\n");
 * reader.finish(); // → { ok: true, reading: { trace: { form: "frames", … }, … } }
 */
export class LogReader {
  private pending = "";
  private line = 0;
  private layout: Layout | null = null;
  private columns: Column[] = [];
  private collector: Collector | null = null;
  private mapProblem: LogProblem | null = null;
  /** Lines that hold anything. */
  private textLines = 0;
  /** Lines with a quote that isn't closed on them. */
  private readonly openQuotes: number[] = [];

  constructor(private readonly options: ReadOptions = {}) {}

  push(text: string): void {
    this.pending += text.includes("\r") ? text.replace(/\r\n?/g, "\n") : text;
    if (!this.layout) {
      if (count(this.pending, headLines) < headLines && this.pending.length < 1 << 20) return;
      this.begin();
    }
    this.takeWholeLines();
  }

  finish(): LogResult {
    if (!this.layout) {
      this.begin();
      this.takeWholeLines();
    }
    const { delimiter, header } = this.begun().layout;
    const cut = this.pending !== "" && splitRow(this.pending, delimiter).length < header.length;
    const notes: string[] = [];
    if (cut && !isComment(this.pending) && this.collector && header.length > 1) {
      this.collector.skip(this.line + 1, this.pending);
      notes.push(`The last line (${this.line + 1}) is cut short and was left out.`);
    } else if (this.pending !== "") {
      this.takeBlock(this.pending);
    }
    return this.result(notes);
  }

  private takeWholeLines(): void {
    const end = this.pending.lastIndexOf("\n");
    if (end < 0) return;
    this.takeBlock(this.pending.slice(0, end));
    this.pending = this.pending.slice(end + 1);
  }

  private begin(): void {
    this.pending = this.pending.replace(/^\uFEFF/, "").replace(/^sep=(.)\n/i, "#sep=$1\n");
    const head = this.pending.split("\n", headLines);
    this.layout = layoutOf(head);
    this.columns = this.withMap(clockText(judgeByValues(this.layout, head), this.layout, head));
    this.collector = new Collector(this.layout, this.columns, this.options);
  }

  /** The user's corrections over the guess; a role given to one column is taken from any other. */
  private withMap(columns: Column[]): Column[] {
    const map = this.options.map ?? {};
    const unknown = Object.keys(map).find((name) => !columns.some((column) => column.name === name));
    if (unknown !== undefined) {
      this.mapProblem = problem(
        "badMap",
        `There is no column “${unknown}” in this log.`,
        `Its columns are: ${columns
          .slice(0, 30)
          .map(({ name }) => name)
          .join(", ")}.`,
        columns,
      );
      return columns;
    }
    const claimed = new Set(Object.values(map).map(({ role }) => role));
    return columns.map((column) => {
      const chosen = map[column.name];
      if (chosen)
        return {
          ...column,
          role: chosen.role,
          unit: chosen.unit ?? (chosen.role === column.role ? column.unit : null),
          unitFrom: chosen.unit ? "user" : column.unitFrom,
        };
      return claimed.has(column.role) && column.role !== "ignore"
        ? { ...column, role: "ignore", unit: null, unitFrom: "none" }
        : column;
    });
  }

  /** Layout and collector, which `begin` has made. */
  private begun(): { layout: Layout; collector: Collector } {
    const { layout, collector } = this;
    if (!layout || !collector) throw new Error("A log is taken in before it is begun.");
    return { layout, collector };
  }

  private takeBlock(text: string): void {
    const { layout, collector } = this.begun();
    const { rows, openQuotes } = rowsOf(text.split("\n"), layout.delimiter);
    for (const at of openQuotes) this.openQuotes.push(this.line + 1 + at);
    for (const cells of rows) {
      this.line++;
      if (cells.length === 1 && cells[0].trim() === "") continue;
      this.textLines++;
      if (layout.headerLine !== null && this.line <= layout.headerLine) continue;
      if (isComment(cells[0])) continue;
      collector.take(cells, this.line);
    }
  }

  private result(lastNotes: string[]): LogResult {
    const { layout, collector, columns } = this;
    if (!layout || !collector) throw new Error("a log is judged before its result is asked for");
    const refuse = (made: LogProblem): LogResult => ({
      ok: false,
      problem: { ...made, sample: collector.sample },
    });
    if (this.mapProblem) return refuse(this.mapProblem);
    if (this.textLines === 0)
      return refuse(
        problem("empty", "The file is empty.", "Choose a log with at least a second of frames.", []),
      );
    const hasRole = (...any: string[]) => columns.some(({ role }) => any.includes(role));
    const numericRows = collector.rows + collector.badTimes.count + collector.backwards.count;
    if (!hasRole("frameTime", "presentTime", "rate") && collector.skippedCount + numericRows > 0) {
      return refuse(
        problem(
          "noTiming",
          "No column looks like frame times, a clock or a rate.",
          "Say which column holds them in the column list (or with --map).",
          columns,
        ),
      );
    }
    if (numericRows === 0)
      return refuse(
        problem(
          "headerOnly",
          collector.skippedCount > 0
            ? `None of the ${collector.skippedCount} rows holds a number where the time should be.`
            : this.textLines > 1
              ? `None of its ${this.textLines} lines is a row of figures.`
              : "The log has a header and no rows.",
          "Check that the capture ran, or that the right column is chosen.",
          columns,
        ),
      );
    const leaveOut = this.options.leaveOutBad === true;
    const { badTimes, backwards, restarts } = collector;
    if (badTimes.count > 0 && !leaveOut) {
      return refuse(
        problem(
          "badTimes",
          `${badTimes.count} ${badTimes.count === 1 ? "row has a time" : "rows have times"} that can't be (zero, negative or not a number): ${linesText(badTimes.lines, badTimes.count)}.`,
          "Leave those rows out, or correct the file.",
          columns,
          badTimes.lines,
          badTimes.count,
        ),
      );
    }
    if (backwards.count > 0 && !leaveOut) {
      return refuse(
        problem(
          "backwards",
          `The clock goes backwards: ${linesText(backwards.lines, backwards.count)}.`,
          "Leave those rows out, or choose another column for the time.",
          columns,
          backwards.lines,
          backwards.count,
        ),
      );
    }
    if (restarts.length > 0 && this.options.part === undefined) {
      return refuse(
        problem(
          "glued",
          `The clock starts again at line ${restarts[0].line}: ${restarts.length + 1} logs are in this file.`,
          `Choose which to read, 1 to ${restarts.length + 1}, or read all as one.`,
          columns,
          restarts.map(({ line }) => line).slice(0, 20),
          restarts.length,
        ),
      );
    }
    const made = assemble(collector, columns, this.options);
    if (!made)
      return refuse(
        problem("headerOnly", "No frame is left to read.", "A clock alone needs at least two rows.", columns),
      );
    const outside = outOfBounds(made.trace);
    if (outside)
      return refuse(
        problem("badTimes", outside, "Check the unit of the time column, or correct the file.", made.columns),
      );
    const notes = [...made.notes, ...lastNotes];
    if (collector.firstZeroLeftOut)
      notes.push("The first row's frame time is zero (no frame before it) and was left out.");
    if (collector.leftOut > 0)
      notes.push(
        `${collector.leftOut} ${collector.leftOut === 1 ? "row" : "rows"} with times that can't be ${collector.leftOut === 1 ? "was" : "were"} left out, as asked: ${linesText([...badTimes.lines, ...backwards.lines].sort((a, b) => a - b).slice(0, 20), collector.leftOut)}.`,
      );
    if (this.openQuotes.length > 0)
      notes.push(
        `A quote isn't closed on its own line: ${linesText(this.openQuotes, this.openQuotes.length)}. It was read as a character; every line stayed a row.`,
      );
    if (layout.headerLine === null)
      notes.push("The log has no header; its columns were judged from their values. Please confirm them.");
    return {
      ok: true,
      reading: {
        trace: made.trace,
        columns: made.columns,
        delimiter: delimiterNames[layout.delimiter],
        decimalComma: layout.decimalComma,
        rows: collector.rows,
        skippedRows: collector.skippedCount + collector.leftOut,
        skipped: collector.skipped,
        sample: collector.sample,
        notes,
        needsConfirming: made.needsConfirming || layout.headerLine === null,
      },
    };
  }
}

/** Where no header names a time, the values are asked: a column that only grows is a clock, its steps are frame times. */
function judgeByValues(layout: Layout, head: string[]): Column[] {
  if (layout.columns.some(({ role }) => role === "frameTime" || role === "presentTime" || role === "rate"))
    return layout.columns;
  // A header that names no time is trusted: guessing among named columns would be inventing.
  if (layout.headerLine !== null && layout.header.length > 1) return layout.columns;
  const rows = head
    .filter((line, index) => line.trim() !== "" && !isComment(line) && index + 1 !== layout.headerLine)
    .slice(0, 200)
    .map((line) => splitRow(line, layout.delimiter));
  const values = layout.header.map((_, index) =>
    rows.map((cells) => numberIn(cells[index], layout.decimalComma)).filter((value) => !Number.isNaN(value)),
  );
  const clocks = layout.header.map(
    (_, index) => rows.filter((cells) => !Number.isNaN(clockIn(cells[index]))).length > rows.length / 2,
  );
  const filled = values.map((column) => column.length > rows.length / 2);
  const grows = values.map(
    (column, index) =>
      clocks[index] ||
      (column.length > 2 &&
        column.every((value, i) => i === 0 || value >= column[i - 1]) &&
        column[column.length - 1] > column[0]),
  );
  const counts = values.map(
    (column) => column.length > 2 && column.every((value, i) => i === 0 || value === column[i - 1] + 1),
  );
  const clock = grows.findIndex((yes, index) => yes && !counts[index]);
  const frames = filled.findIndex(
    (yes, index) => yes && !grows[index] && (clock < 0 || stepsMatch(values[clock], values[index])),
  );
  return layout.columns.map((column, index) => {
    if (index === frames) return { ...column, role: "frameTime" };
    return index === clock && frames < 0 ? { ...column, role: "presentTime" } : column;
  });
}

/** A clock written as 10:00:01.5 names its own unit. */
function clockText(columns: Column[], layout: Layout, head: string[]): Column[] {
  const rows = head
    .filter((line, index) => line.trim() !== "" && index + 1 !== layout.headerLine)
    .slice(-50)
    .map((line) => splitRow(line, layout.delimiter));
  return columns.map((column, index) => {
    const written =
      column.role === "presentTime" &&
      rows.filter((cells) => !Number.isNaN(clockIn(cells[index]))).length * 2 > rows.length;
    return written ? { ...column, unit: "clock", unitFrom: "values" } : column;
  });
}

function stepsMatch(clock: number[], steps: number[]): boolean {
  const apart = clock.slice(1).map((value, i) => value - clock[i]);
  const ratio = (i: number) => steps[i + 1] / apart[i];
  const middle = apart.map((_, i) => ratio(i)).sort((a, b) => a - b)[apart.length >> 1];
  return apart.filter((_, i) => Math.abs(ratio(i) / middle - 1) < 0.05).length > apart.length * 0.8;
}

function problem(
  code: LogProblem["code"],
  message: string,
  fix: string,
  columns: Column[],
  lines: number[] = [],
  howMany = 0,
): LogProblem {
  return { code, message, fix, lines, count: howMany, columns, sample: [] };
}

function linesText(lines: number[], howMany: number): string {
  const shown = lines.slice(0, 8).join(", ");
  return `${howMany === 1 ? "line" : "lines"} ${shown}${howMany > 8 ? ` and ${howMany - 8} more` : ""}`;
}

function count(text: string, enough: number): number {
  let lines = 0;
  for (let at = text.indexOf("\n"); at >= 0 && lines < enough; at = text.indexOf("\n", at + 1)) lines++;
  return lines;
}

/** Reads a whole log held in memory; see `LogReader`. */
export function readLog(text: string, options?: ReadOptions): LogResult {
  const reader = new LogReader(options);
  reader.push(text);
  return reader.finish();
}
