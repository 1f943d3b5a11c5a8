import { GrowingFigures, type FiguresSoFar, type MeasuringRules } from "@/core/metrics";
import {
  channelColumns,
  endsOf,
  frameColumns,
  GrowingColumns,
  type Channel,
  type ChannelRole,
  type PixelColumns,
  type Trace,
  traceRole,
} from "@/core/trace";
import type { Output } from "@/contract";

type Piece = Output<"readPieces">["pieces"][number];

/** What is called the last stretch of a run, ms. */
export const lastMs = 30_000;
/** Columns that the last stretch is drawn in. */
const lastColumns = 300;

/** Something drawn along time: its columns of pixels, and what the whole width stands for. */
export interface Drawn {
  range: [fromMs: number, toMs: number];
  frames: PixelColumns;
  channels: Partial<Record<ChannelRole, PixelColumns>>;
}

/** A run as a page shows it while it grows. */
export interface Watched {
  whole: FiguresSoFar;
  last: FiguresSoFar;
  drawnWhole: Drawn;
  drawnLast: Drawn;
  /** The newest reading of every channel, and the greatest. */
  newest: Partial<Record<ChannelRole, number>>;
  most: Partial<Record<ChannelRole, number>>;
}

/** A channel while it grows: the readings of the last stretch, and the whole in columns. */
interface GrowingChannel {
  times: number[];
  values: number[];
  columns: GrowingColumns;
  most: number;
}

/** Takes the pieces of a run as they come, each once and in their order, and says what they come to. */
export class WatchedRun {
  private readonly figures: GrowingFigures;
  private readonly columns = new GrowingColumns();
  private readonly channels = new Map<ChannelRole, GrowingChannel>();
  private readonly next = new Map<Piece["role"], number>();
  private readonly early = new Map<string, Piece>();
  private endMs = 0;
  /** The trace of the last stretch, values as a piece brings them, and when it begins. */
  private tail: number[] = [];
  private tailMs = 0;

  constructor(
    private readonly form: Trace["form"],
    private readonly targetFps: number,
    private readonly rules: MeasuringRules,
  ) {
    this.figures = new GrowingFigures(form, targetFps, rules);
  }

  /** Takes a piece; one seen before is left out, one that came early waits for those before it. */
  take(piece: Piece): void {
    const due = this.next.get(piece.role) ?? 0;
    if (piece.sequence > due) this.early.set(`${piece.role} ${piece.sequence}`, piece);
    if (piece.sequence !== due) return;
    this.next.set(piece.role, due + 1);
    if (piece.role === traceRole) this.grow(piece.values);
    else this.growChannel(piece.role, piece.values);
    const key = `${piece.role} ${due + 1}`;
    const waits = this.early.get(key);
    if (!waits) return;
    this.early.delete(key);
    this.take(waits);
  }

  private grow(values: number[]): void {
    this.figures.add(values);
    const step = this.form === "frames" ? 1 : 2;
    for (let at = 0; at + step <= values.length; at += step) {
      const ms = values[at] ?? 0;
      const rate = values[at + 1] ?? 0;
      const shown = this.form === "frames" ? ms : rate > 0 ? 1000 / rate : ms;
      this.columns.add(this.endMs, (this.endMs += ms), shown);
      for (let k = 0; k < step; k++) this.tail.push(values[at + k] ?? 0);
    }
    let gone = 0;
    while (gone + step < this.tail.length && this.tailMs + (this.tail[gone] ?? 0) <= this.endMs - lastMs) {
      this.tailMs += this.tail[gone] ?? 0;
      gone += step;
    }
    this.tail.splice(0, gone);
  }

  private growChannel(role: ChannelRole, pairs: number[]): void {
    const channel = this.channels.get(role) ?? {
      times: [],
      values: [],
      columns: new GrowingColumns(),
      most: 0,
    };
    this.channels.set(role, channel);
    for (let at = 0; at + 1 < pairs.length; at += 2) {
      const [time, value] = [pairs[at] ?? 0, pairs[at + 1] ?? 0];
      const before = channel.times.at(-1);
      if (before !== undefined && time > before)
        channel.columns.add(before, time, channel.values.at(-1) ?? value);
      channel.times.push(time);
      channel.values.push(value);
      channel.most = Math.max(channel.most, value);
    }
    // One reading before the last stretch is kept: it holds until the next.
    const from = (channel.times.at(-1) ?? 0) - lastMs;
    const gone = Math.max(0, channel.times.findIndex((time) => time > from) - 1);
    channel.times.splice(0, gone);
    channel.values.splice(0, gone);
  }

  now(): Watched {
    const last = new GrowingFigures(this.form, this.targetFps, this.rules);
    last.add(this.tail);
    const of = (each: number) => this.tail.filter((_, at) => at % 2 === each);
    const trace: Trace =
      this.form === "frames"
        ? { form: "frames", frameTimes: Float64Array.from(this.tail), channels: [], marks: [] }
        : {
            form: "interval",
            durations: Float64Array.from(of(0)),
            rates: Float64Array.from(of(1)),
            channels: [],
            marks: [],
          };
    const range: [number, number] = [Math.max(0, this.endMs - lastMs), Math.max(this.endMs, lastMs)];
    const whole = this.columns.until(this.endMs);
    const drawnLast: Drawn = {
      range,
      frames: frameColumns(trace, endsOf(trace), range[0] - this.tailMs, range[1] - this.tailMs, lastColumns),
      channels: {},
    };
    const drawnWhole: Drawn = { range: [0, whole.endMs], frames: whole.columns, channels: {} };
    const [newest, most]: [Watched["newest"], Watched["most"]] = [{}, {}];
    for (const [role, { times, values, columns, most: greatest }] of this.channels) {
      const channel: Channel = { role, times: Float64Array.from(times), values: Float64Array.from(values) };
      drawnLast.channels[role] = channelColumns(channel, ...range, lastColumns);
      drawnWhole.channels[role] = columns.until(whole.endMs).columns;
      newest[role] = values.at(-1);
      most[role] = greatest;
    }
    return { whole: this.figures.soFar(), last: last.soFar(), drawnWhole, drawnLast, newest, most };
  }
}
