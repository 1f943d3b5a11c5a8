import { said, type LinesSaid } from "./codes";
import type { Said } from "@/core/said";
import { outOfBounds } from "./bounds";
import { assemble } from "./assemble";
import { clockIn, numberIn } from "./cells";
import { Collector, RowFaults } from "./collect";
import { problem } from "./problem";
import { pairedCells, isComment, layoutOf, type Layout } from "./layout";
import { LineCutter, mostLineLength } from "./lines";
import { rowsOf, splitRow } from "./rows";
import type { Column, LogProblem, LogResult, ReadOptions, Role } from "./types";

/** Lines, or characters if they come first, looked at before the layout is judged. */
const headLines = 300,
  headLength = 1 << 20;
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
  private readonly cutter = new LineCutter();
  /** Lines that came before the layout was judged, or whose quote a later line may close. */
  private waiting: string[] = [];
  private waitingLength = 0;
  private line = 0;
  private layout: Layout | null = null;
  private columns: Column[] = [];
  private collector: Collector | null = null;
  private headProblem: LogProblem | null = null;
  /** Lines that hold anything. */
  private textLines = 0;
  /** Lines with a quote that isn't closed on them. */
  private readonly openQuotes = new RowFaults();
  private readonly joined = new RowFaults();
  private readonly tooLong = new RowFaults();
  private readonly withZeros = new RowFaults();
  private sawZeros = false;

  constructor(private readonly options: ReadOptions = {}) {}

  push(text: string): void {
    if (this.headProblem) return;
    this.sawZeros ||= text.includes("\0");
    const lines = this.cutter.push(text);
    if (!this.layout) {
      this.waiting = this.waiting.concat(lines);
      this.waitingLength += text.length;
      if (this.waiting.length < headLines && this.waitingLength < headLength) return;
      this.begin();
    } else if (lines.length > 0)
      this.takeLines(this.waiting.length > 0 ? this.waiting.concat(lines) : lines, true);
  }

  finish(): LogResult {
    const last = this.cutter.rest();
    if (!this.layout) this.begin();
    const { delimiter, header, width, commaPairs } = this.begun().layout;
    const isCut =
      this.waiting.length === 0 &&
      last !== "" &&
      header.length > 1 &&
      !this.isOdd(last) &&
      !isComment(last) &&
      splitRow(last, delimiter).length < (commaPairs ? width : header.length);
    if (this.waiting.length > 0 || (last !== "" && !isCut))
      this.takeLines(last === "" ? this.waiting : [...this.waiting, last], false);
    if (!isCut) return this.result([]);
    this.begun().collector.skip(this.line + 1, last);
    return this.result([said("log.cutShort", { line: this.line + 1 })]);
  }

  /** Judges the layout from the lines that wait, and the one that has begun, and takes those that are whole. */
  private begin(): void {
    const { waiting } = this;
    const lines = [...waiting, this.cutter.rest()].slice(0, headLines);
    lines[0] = lines[0].replace(/^\uFEFF/, "").replace(/^sep=(.)$/i, "#sep=$1");
    if (waiting.length > 0) waiting[0] = lines[0];
    const head = lines.map((line) => (this.isOdd(line) ? "" : line));
    this.layout = layoutOf(head);
    const { refusal, columns } = this.layout;
    if (refusal) this.headProblem = problem(refusal.code, refusal.reason, refusal.remedy, columns);
    this.columns = this.withMap(clockText(judgeByValues(this.layout, head), this.layout, head));
    this.collector = new Collector(this.layout, this.columns, this.options);
    this.takeLines(waiting, true);
  }

  /** The user's corrections over the guess; a role given to one column is taken from any other. */
  private withMap(columns: Column[]): Column[] {
    const map = this.options.map ?? {};
    const unknown = Object.keys(map).find((name) => !columns.some((column) => column.name === name));
    if (unknown !== undefined) {
      this.headProblem ??= problem(
        "badMap",
        said("refused.noColumn", { column: unknown }),
        said("remedy.itsColumns", { columns: columns.slice(0, 30).map(({ name }) => name) }),
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

  /** A line that is no row, whatever stands in it. */
  private isOdd = (line: string) => line.length > mostLineLength || (this.sawZeros && line.includes("\0"));

  /** @param goesOn more lines follow these; those whose quote one of them may close wait for it */
  private takeLines(lines: string[], goesOn: boolean): void {
    let from = 0;
    lines.forEach((line, at) => {
      if (!this.isOdd(line)) return;
      this.takeRows(lines.slice(from, at), false);
      from = at + 1;
      this.line++;
      this.textLines++;
      (line.length > mostLineLength ? this.tooLong : this.withZeros).add(this.line);
      this.begun().collector.skip(this.line, line.slice(0, 200).replaceAll("\0", "␀"));
    });
    this.waiting = this.takeRows(from === 0 ? lines : lines.slice(from), goesOn);
  }

  /** @returns the lines that wait for another */
  private takeRows(lines: string[], goesOn: boolean): string[] {
    const { layout, collector } = this.begun();
    const { delimiter, width, headerLine } = layout;
    const { rows, joined, openQuotes, heldBack } = rowsOf(lines, delimiter, { width, goesOn });
    for (const at of openQuotes) this.openQuotes.add(this.line + 1 + at);
    rows.forEach((cells, index) => {
      const line = this.line + 1;
      const over = joined.size > 0 ? (joined.get(index) ?? 1) : 1;
      this.line += over;
      if (cells.length === 1 && cells[0].trim() === "") return;
      this.textLines += over;
      if (over > 1) this.joined.add(line);
      if (headerLine !== null && line <= headerLine) return;
      if (isComment(cells[0])) return;
      const own = pairedCells(cells, layout);
      if (own) collector.take(own, line);
      else collector.skip(line, cells.join(","));
    });
    return heldBack > 0 ? lines.slice(-heldBack) : [];
  }

  private result(lastNotes: Said[]): LogResult {
    const { layout, collector, columns } = this;
    if (!layout || !collector) throw new Error("a log is judged before its result is asked for");
    const refuse = (made: LogProblem): LogResult => ({
      ok: false,
      problem: { ...made, sample: collector.sample },
    });
    if (this.headProblem) return refuse(this.headProblem);
    if (this.textLines === 0)
      return refuse(problem("empty", said("refused.empty"), said("remedy.chooseLog"), []));
    const hasRole = (...any: string[]) => columns.some(({ role }) => any.includes(role));
    const numericRows = collector.rows + collector.badTimes.count + collector.backwards.count;
    if (!hasRole("frameTime", "presentTime", "rate") && collector.skippedCount + numericRows > 0) {
      return refuse(problem("noTiming", said("refused.noTiming"), said("remedy.sayColumn"), columns));
    }
    if (numericRows === 0)
      return refuse(
        problem(
          "headerOnly",
          collector.skippedCount > 0
            ? said("refused.noNumbers", { rows: collector.skippedCount })
            : this.textLines > 1
              ? said("refused.noFigures", { lines: this.textLines })
              : said("refused.headerOnly"),
          said("remedy.checkCapture"),
          columns,
        ),
      );
    const leaveOut = this.options.leaveOutBad === true;
    const { badTimes, backwards, restarts } = collector;
    if (badTimes.count > 0 && !leaveOut) {
      return refuse(
        problem(
          "badTimes",
          said("refused.badTimes", linesOf(badTimes)),
          said("remedy.leaveOut"),
          columns,
          badTimes,
        ),
      );
    }
    if (backwards.count > 0 && !leaveOut) {
      return refuse(
        problem(
          "backwards",
          said("refused.backwards", linesOf(backwards)),
          said("remedy.leaveOutOrColumn"),
          columns,
          backwards,
        ),
      );
    }
    if (restarts.length > 0 && this.options.part === undefined) {
      return refuse(
        problem(
          "glued",
          said("refused.glued", { line: restarts[0].line, logs: restarts.length + 1 }),
          said("remedy.choosePart", { logs: restarts.length + 1 }),
          columns,
          { lines: restarts.map(({ line }) => line).slice(0, 20), count: restarts.length },
        ),
      );
    }
    const made = assemble(collector, columns, this.options);
    if (!made) return refuse(problem("headerOnly", said("refused.noFrame"), said("remedy.twoRows"), columns));
    const outside = outOfBounds(made.trace);
    if (outside) return refuse(problem("badTimes", outside, said("remedy.checkUnit"), made.columns));
    const notes = [...made.notes, ...lastNotes];
    if (collector.firstZeroLeftOut) notes.push(said("log.firstZero"));
    if (collector.leftOut > 0) {
      const lines = [...badTimes.lines, ...backwards.lines].sort((a, b) => a - b);
      notes.push(said("log.badLeftOut", linesOf({ lines, count: collector.leftOut })));
    }
    const { openQuotes, joined, tooLong, withZeros } = this;
    if (openQuotes.count > 0) notes.push(said("log.openQuotes", linesOf(openQuotes)));
    if (joined.count > 0) notes.push(said("log.joined", linesOf(joined)));
    if (tooLong.count > 0) notes.push(said("log.tooLong", { ...linesOf(tooLong), most: mostLineLength }));
    if (withZeros.count > 0) notes.push(said("log.zeros", linesOf(withZeros)));
    notes.push(...layout.guesses);
    if (layout.headerLine === null) notes.push(said("log.noHeader"));
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
        needsConfirming: made.needsConfirming || layout.headerLine === null || layout.guesses.length > 0,
      },
    };
  }
}

/**
 * Where no header names a time, the values are asked: a column that only grows is a clock, its steps are frame
 * times.
 */
function judgeByValues(layout: Layout, head: string[]): Column[] {
  if (layout.columns.some(({ role }) => role === "frameTime" || role === "presentTime" || role === "rate"))
    return layout.columns;
  // A header of which anything is known is trusted: guessing among named columns would be inventing. One in another
  // language is no header, as far as it goes.
  const isForeign = layout.columns.every(({ role }) => role === "ignore");
  if (layout.headerLine !== null && layout.header.length > 1 && !isForeign) return layout.columns;
  const rows = head
    .filter((line, index) => line.trim() !== "" && !isComment(line) && index + 1 > (layout.headerLine ?? 0))
    .slice(0, 200)
    .map((line) => splitRow(line, layout.delimiter));
  if (layout.headerLine !== null && layout.header.length > 1 && rows.length < leastToJudge)
    return layout.columns;
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
  // Whole numbers beside something that grows by the second are a counter's readings, not times of frames.
  const seconds = grows.findIndex((yes, index) => yes && !clocks[index] && isBySeconds(values[index]));
  const readings =
    seconds < 0 ? -1 : filled.findIndex((yes, index) => yes && !grows[index] && areReadings(values[index]));
  const byValues = (column: Column, role: Role): Column => ({ ...column, role, unitFrom: "values" });
  const beside =
    clock < 0
      ? -1
      : filled.findIndex((yes, index) => yes && !grows[index] && stepsMatch(values[clock], values[index]));
  if (readings >= 0 && beside < 0)
    return layout.columns.map((column, index) =>
      index === readings
        ? byValues(column, "rate")
        : index === seconds
          ? { ...byValues(column, "presentTime"), unit: "s" }
          : column,
    );
  const frames = clock < 0 ? filled.findIndex((yes, index) => yes && !grows[index]) : beside;
  return layout.columns.map((column, index) => {
    if (index === frames) return { ...column, role: "frameTime" };
    return index === clock && frames < 0 ? { ...column, role: "presentTime" } : column;
  });
}

/** Rows from which columns of a header that isn't known are judged by their values. */
const leastToJudge = 20;

/** Whether a column grows by about a second a row: its usual step is from a fifth of one to ten. */
function isBySeconds(values: number[]): boolean {
  const steps = values
    .slice(1)
    .map((value, i) => value - values[i])
    .sort((a, b) => a - b);
  const usual = steps[steps.length >> 1];
  return usual >= 0.2 && usual <= 10;
}

/** Whether a column holds what a counter of whole frames a second shows. */
function areReadings(values: number[]): boolean {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted[sorted.length >> 1];
  return (
    middle >= 10 &&
    middle <= 400 &&
    values.every((value) => Number.isInteger(value) && value >= 0 && value <= 1000)
  );
}

/** A clock written as 10:00:01.5 names its own unit. */
function clockText(columns: Column[], layout: Layout, head: string[]): Column[] {
  const rows = head
    .filter((line, index) => line.trim() !== "" && index + 1 > (layout.headerLine ?? 0))
    .slice(-50)
    .map((line) => pairedCells(splitRow(line, layout.delimiter), layout) ?? []);
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

/** Lines as a sentence takes them: the first twenty, and how many there are. */
const linesOf = ({ lines, count }: LinesSaid): LinesSaid => ({ lines: lines.slice(0, 20), count });

/** Reads a whole log held in memory; see `LogReader`. */
export function readLog(text: string, options?: ReadOptions): LogResult {
  const reader = new LogReader(options);
  reader.push(text);
  return reader.finish();
}
