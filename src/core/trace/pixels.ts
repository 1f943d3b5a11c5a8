import { durationOf, endsOf, firstEndAfter } from "./slice";
import type { Channel, ChannelRole, Mark, Trace } from "./types";

/**
 * What one column of pixels shows: least, greatest and time-weighted mean; NaN where nothing falls in it. All
 * length = columns.
 */
export interface PixelColumns {
  low: Float32Array;
  high: Float32Array;
  mean: Float32Array;
}

function emptyColumns(columns: number): PixelColumns {
  const blank = () => new Float32Array(columns).fill(NaN);
  return { low: blank(), high: blank(), mean: blank() };
}

/**
 * Frame time (ms) per column of pixels, so that a million frames draw as fast as a thousand
 * and no spike between two pixels is lost. For a trace of readings, 1000/rate.
 *
 * @param ends    from `endsOf(trace)`; kept by the caller so that zooming doesn't sum again
 * @param columns number of pixel columns over `fromMs`…`toMs`
 */
export function frameColumns(
  trace: Trace,
  ends: Float64Array,
  fromMs: number,
  toMs: number,
  columns: number,
): PixelColumns {
  const made = emptyColumns(columns);
  const perMs = columns / (toMs - fromMs);
  const steps = trace.form === "frames" ? trace.frameTimes : trace.durations;
  const last = firstEndAfter(ends, toMs);
  const weighted = new Float64Array(columns);
  const weights = new Float64Array(columns);
  for (let i = firstEndAfter(ends, fromMs); i < ends.length && i <= last; i++) {
    const ms =
      trace.form === "frames"
        ? trace.frameTimes[i]
        : trace.rates[i] > 0
          ? 1000 / trace.rates[i]
          : trace.durations[i];
    const from = Math.max(0, Math.floor((ends[i] - steps[i] - fromMs) * perMs));
    const to = Math.min(columns - 1, Math.floor((ends[i] - fromMs) * perMs));
    for (let column = from; column <= to; column++) {
      if (!(made.low[column] <= ms)) made.low[column] = ms;
      if (!(made.high[column] >= ms)) made.high[column] = ms;
      const share =
        Math.min(ends[i], fromMs + (column + 1) / perMs) -
        Math.max(ends[i] - steps[i], fromMs + column / perMs);
      weighted[column] += ms * Math.max(share, 1e-9);
      weights[column] += Math.max(share, 1e-9);
    }
  }
  for (let column = 0; column < columns; column++)
    if (weights[column] > 0) made.mean[column] = weighted[column] / weights[column];
  return made;
}

/** A channel per column of pixels; a reading holds until the next one. */
export function channelColumns(channel: Channel, fromMs: number, toMs: number, columns: number): PixelColumns {
  const made = emptyColumns(columns);
  const { times, values } = channel;
  const width = (toMs - fromMs) / columns;
  let at = Math.max(0, firstEndAfter(times, fromMs) - 1);
  for (let column = 0; column < columns; column++) {
    const end = fromMs + (column + 1) * width;
    if (times[0] > end) continue;
    let low = values[at],
      high = values[at],
      sum = values[at],
      count = 1;
    while (at + 1 < times.length && times[at + 1] <= end) {
      at++;
      low = Math.min(low, values[at]);
      high = Math.max(high, values[at]);
      sum += values[at];
      count++;
    }
    made.low[column] = low;
    made.high[column] = high;
    made.mean[column] = sum / count;
    if (at === times.length - 1 && times[at] < end - width && end > times[at] + 5000)
      made.low[column] = made.high[column] = made.mean[column] = NaN;
  }
  return made;
}

/** A band of columns as JSON carries it: two decimals, null where nothing falls in a column. */
export interface PlainColumns {
  low: (number | null)[];
  high: (number | null)[];
  mean: (number | null)[];
}

/** A whole trace in few columns, for a page to draw before it has fetched the trace itself. */
export interface CoarseTrace {
  durationMs: number;
  marks: Mark[];
  /** Greatest reading of every channel. */
  most: Partial<Record<ChannelRole, number>>;
  frames: PlainColumns;
  channels: { role: ChannelRole; columns: PlainColumns }[];
}

const plain = ({ low, high, mean }: PixelColumns): PlainColumns => {
  const rounded = (values: Float32Array) =>
    Array.from(values, (value) => (Number.isFinite(value) ? Math.round(value * 100) / 100 : null));
  return { low: rounded(low), high: rounded(high), mean: rounded(mean) };
};

/** Columns as they are drawn. */
export const drawnColumns = ({ low, high, mean }: PlainColumns): PixelColumns => {
  const drawn = (values: (number | null)[]) => Float32Array.from(values, (value) => value ?? NaN);
  return { low: drawn(low), high: drawn(high), mean: drawn(mean) };
};

/** Greatest reading of every channel, 0 where none is greater. */
export const mostOfChannels = ({ channels }: Pick<Trace, "channels">): CoarseTrace["most"] =>
  Object.fromEntries(
    channels.map(({ role, values }) => [role, values.reduce((most, value) => Math.max(most, value), 0)]),
  );

/**
 * A whole trace in so many columns, of frame times and of every channel. Costs one pass over it.
 * @param columns of frame times; channels get half as many
 */
export function coarseTrace(trace: Trace, columns: number): CoarseTrace {
  const durationMs = durationOf(trace);
  return {
    durationMs,
    marks: trace.marks,
    most: mostOfChannels(trace),
    frames: plain(frameColumns(trace, endsOf(trace), 0, durationMs, columns)),
    channels: trace.channels.map((channel) => ({
      role: channel.role,
      columns: plain(channelColumns(channel, 0, durationMs, columns / 2)),
    })),
  };
}
