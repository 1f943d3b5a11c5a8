import { cellText } from "@/core/document";
import { clockIn, isNonFiniteWord, numberIn } from "./cells";
import { Growable } from "./growable";
import type { Layout } from "./layout";
import {
  channelUnits,
  type ChannelRole,
  type Column,
  type ReadOptions,
  type Role,
  type SkippedRow,
} from "./types";

const shownLines = 20;
const sampleRows = 6;

/** Rows that can't be: how many of a kind, and the first lines. */
export class RowFaults {
  count = 0;
  readonly lines: number[] = [];

  add(line: number): void {
    this.count++;
    if (this.lines.length < shownLines) this.lines.push(line);
  }
}

/**
 * Takes a log's rows one by one and keeps the columns that have a role, as raw numbers.
 * Judges every row: kept, skipped (not numeric) or at fault (a time that can't be).
 */
export class Collector {
  readonly numbers = new Map<Role, Growable>();
  readonly sceneCodes = new Growable();
  readonly sceneLabels: string[] = [];
  readonly badTimes = new RowFaults();
  readonly backwards = new RowFaults();
  /** Row index and line at which the clock starts again: a second log in the same file. */
  readonly restarts: { row: number; line: number }[] = [];
  readonly skipped: SkippedRow[] = [];
  readonly sample: string[][] = [];
  skippedCount = 0;
  leftOut = 0;
  firstZeroLeftOut = false;
  rows = 0;

  private readonly at = new Map<Role, number>();
  /** Column and store of the times, −1 and null where there is none; looked up once, not a million times. */
  private readonly primaryAt: number;
  private readonly primaryInto: Growable | null;
  private readonly clockAt: number;
  private readonly clockInto: Growable | null;
  private readonly rateAt: number;
  private readonly sceneAt: number;
  private readonly channels: { index: number; into: Growable }[] = [];
  private readonly primary: Role;
  private readonly codes = new Map<string, number>();
  private lastTime = NaN;
  /** The clock of the row in hand. */
  private time = NaN;
  private partStart = NaN;
  private partRows = 0;
  private headerJustRepeated = false;
  private readonly header: string;

  constructor(
    private readonly layout: Layout,
    private readonly columns: Column[],
    private readonly options: ReadOptions,
  ) {
    columns.forEach((column, index) => column.role !== "ignore" && this.at.set(column.role, index));
    this.primary = this.at.has("frameTime") ? "frameTime" : this.at.has("presentTime") ? "presentTime" : "rate";
    for (const role of ["frameTime", "presentTime"] as const)
      if (this.at.has(role)) this.numbers.set(role, new Growable());
    for (const role of Object.keys(channelUnits) as ChannelRole[]) {
      const index = this.at.get(role);
      if (index === undefined) continue;
      const into = new Growable();
      this.numbers.set(role, into);
      this.channels.push({ index, into });
    }
    this.header = layout.header.join("\u0000");
    const place = (role: Role) => this.at.get(role) ?? -1;
    this.primaryAt = Math.max(0, place(this.primary));
    // eslint-disable-next-line @typescript-eslint/no-non-null-assertion -- the primary column is among those that are collected
    this.primaryInto = this.primary === "rate" ? null : this.numbers.get(this.primary)!;
    this.clockAt = place("presentTime");
    this.clockInto = this.primary === "frameTime" ? (this.numbers.get("presentTime") ?? null) : null;
    this.rateAt = place("rate");
    this.sceneAt = place("scene");
  }

  skip(line: number, text: string): void {
    this.skippedCount++;
    if (this.skipped.length < shownLines) this.skipped.push({ line, text: text.slice(0, 200) });
  }

  private timeIn(cell: string | undefined): number {
    const value = numberIn(cell, this.layout.decimalComma);
    return Number.isNaN(value) ? clockIn(cell) : value;
  }

  take(cells: string[], line: number): void {
    if (this.sample.length < sampleRows)
      this.sample.push(cells.slice(0, 200).map((cell) => cell.trim().slice(0, 40)));
    const primaryCell = cells[this.primaryAt];
    const value =
      this.primary === "presentTime"
        ? this.timeIn(primaryCell)
        : numberIn(primaryCell, this.layout.decimalComma);
    const nonFinite = Number.isNaN(value) ? isNonFiniteWord(primaryCell ?? "") : !Number.isFinite(value);
    if (Number.isNaN(value) && !nonFinite) {
      this.headerJustRepeated = cells.map((cell) => cell.trim()).join("\u0000") === this.header;
      this.skip(line, cells.join(this.layout.delimiter === "whitespace" ? " " : this.layout.delimiter));
      return;
    }
    const startsPart = this.watchClock(cells, line);
    if (startsPart === "backwards") return;
    if (this.primary === "frameTime" && (nonFinite || value <= 0)) {
      if (value === 0 && this.partRows === 0) {
        this.firstZeroLeftOut = true;
        this.partRows++;
        return;
      }
      this.fault(this.badTimes, line);
      return;
    }
    if (nonFinite || (this.primary === "rate" && value < 0)) {
      this.fault(this.badTimes, line);
      return;
    }
    if (this.primary === "presentTime") {
      if (this.rateAt >= 0) {
        const rate = numberIn(cells[this.rateAt], this.layout.decimalComma);
        if (!Number.isFinite(rate) || rate < 0) {
          if (Number.isNaN(rate) && !isNonFiniteWord(cells[this.rateAt] ?? ""))
            this.skip(line, cells.join(" "));
          else this.fault(this.badTimes, line);
          return;
        }
      }
    }
    this.keep(cells, value);
  }

  private fault(kind: RowFaults, line: number): void {
    kind.add(line);
    if (this.options.leaveOutBad) this.leftOut++;
  }

  /** Follows the clock column, where there is one: a step back is a fault, a fresh start is another log. */
  private watchClock(cells: string[], line: number): "forward" | "restart" | "backwards" {
    if (this.clockAt < 0) return "forward";
    const time = (this.time = this.timeIn(cells[this.clockAt]));
    if (Number.isNaN(time)) return "forward";
    const repeated = this.headerJustRepeated;
    this.headerJustRepeated = false;
    if (time < this.lastTime) {
      const nearStart = time <= this.partStart + 0.1 * (this.lastTime - this.partStart);
      if (repeated || (nearStart && this.partRows >= 5)) {
        this.restarts.push({ row: this.rows, line });
        this.partRows = 0;
        this.partStart = time;
        this.lastTime = time;
        return "restart";
      }
      this.fault(this.backwards, line);
      return "backwards";
    }
    if (Number.isNaN(this.partStart)) this.partStart = time;
    this.lastTime = time;
    return "forward";
  }

  private keep(cells: string[], primaryValue: number): void {
    this.primaryInto?.push(primaryValue);
    this.clockInto?.push(this.time);
    for (const { index, into } of this.channels) into.push(numberIn(cells[index], this.layout.decimalComma));
    if (this.sceneAt >= 0) {
      const label = cellText((cells[this.sceneAt] ?? "").trim()).slice(0, 80);
      let code = this.codes.get(label);
      if (code === undefined) {
        code = this.sceneLabels.push(label) - 1;
        this.codes.set(label, code);
      }
      this.sceneCodes.push(code);
    }
    this.rows++;
    this.partRows++;
  }
}
