import {
  durationOf,
  readLog,
  type ChannelRole,
  type LogReading,
  type Mark,
  type ReadOptions,
  type Trace,
} from "@/core/trace";

/** What came of a log since it was looked at last; times in ms since the log's trace began. */
export interface Grown {
  form: Trace["form"];
  /** Frame times in ms; of readings pairs of duration and rate. */
  values: number[];
  /** Pairs of time and value by role. */
  channels: Partial<Record<ChannelRole, number[]>>;
  marks: Mark[];
}

/** Rows that a log's columns are settled by. */
const settlingRows = 20;
/** A log that makes no sense up to here isn't one, characters. */
const mostUnsettled = 1 << 20;
/** Lines before the first row, at most. */
const mostHead = 60;

/** Times are the same that differ by less, ms: sums of the same frames differ in their last digits. */
const shortMs = 1e-3;

const valuesOf = (trace: Trace): number[] =>
  trace.form === "frames"
    ? [...trace.frameTimes]
    : [...trace.durations].flatMap((duration, at) => [duration, trace.rates[at] ?? 0]);

const textOf = (lines: readonly string[]) => `${lines.join("\n")}\n`;

/**
 * A log that is read while it is written, by the reader of whole logs: its columns and units are settled by its first
 * rows and stay, and each further piece is read behind those rows, whose own figures are then left out.
 */
export class GrowingLog {
  private readonly decoder = new TextDecoder();
  /** What has no line end yet; before the columns are settled, all there is. */
  private rest = "";
  /** The head and the first rows, which every piece is read behind. */
  private before: string[] = [];
  private last: string | null = null;
  private options: ReadOptions | null = null;
  private form: Trace["form"] = "frames";
  /** ms that its trace has come to. */
  duration = 0;
  /** Why it can't be read; null as long as it may yet be. */
  refusal: string | null = null;

  /** Reads on. @returns what came of it; null where no whole row did */
  push(bytes: Uint8Array): Grown | null {
    if (this.refusal !== null) return null;
    this.rest += this.decoder.decode(bytes, { stream: true });
    return this.options ? this.further(false) : this.settled(settlingRows);
  }

  /** What is left of it when nothing more comes. */
  end(): Grown | null {
    if (this.refusal !== null) return null;
    return this.options ? this.further(true) : this.settled(1);
  }

  /** Settles the columns once there are so many rows. */
  private settled(rows: number): Grown | null {
    const whole = this.rest.slice(0, this.rest.lastIndexOf("\n") + 1);
    const result = whole === "" ? null : readLog(whole);
    if (!result?.ok || result.reading.rows < rows) {
      if (this.rest.length > mostUnsettled || rows === 1)
        this.refusal = result && !result.ok ? result.problem.code : "nothing came";
      return null;
    }
    const { reading } = result;
    const lines = whole.split(/\r?\n/).slice(0, -1);
    const head = headOf(lines);
    this.form = reading.trace.form;
    this.options = { map: mapOf(reading), leaveOutBad: true };
    this.before = lines.slice(0, head + settlingRows);
    this.last = lines.at(-1) ?? null;
    this.rest = this.rest.slice(whole.length);
    this.duration = durationOf(reading.trace);
    return this.grown(reading.trace, null, 0);
  }

  private further(isEnd: boolean): Grown | null {
    const cut = isEnd ? this.rest.length : this.rest.lastIndexOf("\n") + 1;
    const lines = this.rest
      .slice(0, cut)
      .split(/\r?\n/)
      .filter((line) => line.trim() !== "");
    this.rest = this.rest.slice(cut);
    if (lines.length === 0 || this.options === null) return null;
    const prefix = this.last === null ? this.before : [...this.before, this.last];
    const earlier = readLog(textOf(prefix), this.options);
    const all = readLog(textOf([...prefix, ...lines]), this.options);
    if (!earlier.ok || !all.ok || all.reading.trace.form !== this.form) return null;
    const begun = this.duration;
    const grown = this.grown(all.reading.trace, earlier.reading.trace, begun);
    this.last = lines.at(-1) ?? this.last;
    this.duration += durationOf(all.reading.trace) - durationOf(earlier.reading.trace);
    return grown;
  }

  /** What a trace holds beyond an earlier one of the same beginning, moved to where the log stands. */
  private grown(trace: Trace, earlier: Trace | null, begun: number): Grown {
    const moved = begun - (earlier ? durationOf(earlier) : 0);
    const channels: Grown["channels"] = {};
    const known = earlier ? durationOf(earlier) : 0;
    for (const { role, times, values } of trace.channels) {
      const fresh = [...times].flatMap((time, at) =>
        earlier && time < known + shortMs ? [] : [time + moved, values[at] ?? 0],
      );
      if (fresh.length > 0) channels[role] = fresh;
    }
    return {
      form: trace.form,
      values: valuesOf(trace).slice(earlier ? valuesOf(earlier).length : 0),
      channels,
      marks: trace.marks
        .map((mark) => ({ ...mark, startMs: mark.startMs + moved, endMs: mark.endMs + moved }))
        .filter(({ endMs }) => endMs > begun)
        .map((mark) => ({ ...mark, startMs: Math.max(begun, mark.startMs) })),
    };
  }
}

/** Lines that stand before the first row. */
function headOf(lines: readonly string[]): number {
  for (let end = 1; end <= Math.min(lines.length, mostHead); end++) {
    const result = readLog(textOf(lines.slice(0, end)));
    if (result.ok) return Math.max(0, end - result.reading.rows);
  }
  return 0;
}

const mapOf = ({ columns }: LogReading): NonNullable<ReadOptions["map"]> =>
  Object.fromEntries(columns.map(({ name, role, unit }) => [name, { role, unit }]));

/** Marks put together: those of one name that follow one another are one. */
export function joinedMarks(marks: readonly Mark[]): Mark[] {
  const made: Mark[] = [];
  for (const mark of marks) {
    const last = made.at(-1);
    if (last && last.label === mark.label && mark.startMs - last.endMs < shortMs) last.endMs = mark.endMs;
    else made.push({ ...mark });
  }
  return made;
}
