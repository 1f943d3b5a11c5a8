import { channelRoles, durationOf, endsOf, type Channel, type ChannelRole, type Trace } from "@/core/trace";

/** How far a log had grown when it was looked at: line ends so far, by a clock that only goes on, ms. */
export interface Growth {
  atMs: number;
  lines: number;
}

/** Channels that were read at a moment of the same clock, ms. */
export interface Sampled {
  atMs: number;
  channels: Partial<Record<ChannelRole, number>>;
}

/**
 * When a log's trace began, on the clock that its growth was seen by, ms. A row can only be seen once it was written,
 * so each look says "no later than"; the earliest of them is the one that waited least (the filter of the least delay,
 * as clocks are set by in RFC 5905 section 10).
 * @param seen looks at which the log had grown
 * @returns null where no row of the trace was seen to come
 */
export function beginOf(trace: Trace, seen: readonly Growth[]): number | null {
  const ends = endsOf(trace);
  const all = seen.at(-1)?.lines ?? 0;
  // What stands before the figures, a header and the like, is what has no row in the trace.
  const before = Math.max(0, all - ends.length);
  let begin: number | null = null;
  for (const { atMs, lines } of seen) {
    const end = ends[Math.min(lines, all) - before - 1];
    if (end !== undefined && (begin === null || atMs - end < begin)) begin = atMs - end;
  }
  return begin;
}

/**
 * A trace with what was read of the device meanwhile, on the trace's own time. What the log says itself stays; what was
 * read before it or after it is left out.
 * @param beginMs when the trace began, on the samples' clock
 */
export function joined<Form extends Trace>(trace: Form, samples: readonly Sampled[], beginMs: number): Form {
  const duration = durationOf(trace);
  const own = new Set(trace.channels.map(({ role }) => role));
  const added = channelRoles.flatMap((role): Channel[] => {
    if (own.has(role)) return [];
    const read = samples.flatMap(({ atMs, channels }) => {
      const value = channels[role];
      const time = atMs - beginMs;
      return value === undefined || time < 0 || time > duration ? [] : [[time, value] as const];
    });
    if (read.length === 0) return [];
    return [
      {
        role,
        times: Float64Array.from(read, ([time]) => time),
        values: Float64Array.from(read, ([, value]) => value),
      },
    ];
  });
  return { ...trace, channels: [...trace.channels, ...added] };
}
