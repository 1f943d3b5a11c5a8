import type { Channel, Trace } from "./types";

/** Running time of a trace in ms. */
export function durationOf(trace: Trace): number {
  const steps = trace.form === "frames" ? trace.frameTimes : trace.durations;
  let total = 0;
  for (let i = 0; i < steps.length; i++) total += steps[i];
  return total;
}

/** End of every frame or reading in ms from the start; length N. */
export function endsOf(trace: Trace): Float64Array {
  const steps = trace.form === "frames" ? trace.frameTimes : trace.durations;
  const ends = new Float64Array(steps.length);
  let total = 0;
  for (let i = 0; i < steps.length; i++) ends[i] = total += steps[i];
  return ends;
}

/** Index of the first end after `ms`; N when none is. */
export function firstEndAfter(ends: Float64Array, ms: number): number {
  let low = 0,
    high = ends.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ends[middle] > ms) high = middle;
    else low = middle + 1;
  }
  return low;
}

/**
 * The part of a trace between two instants: frames that end after `fromMs` and start before `toMs`.
 * Channels and marks are cut and set back to the part's own start.
 */
export function sliceTrace(trace: Trace, fromMs: number, toMs: number): Trace {
  const ends = endsOf(trace);
  const first = firstEndAfter(ends, fromMs);
  const last = Math.min(ends.length, firstEndAfter(ends, toMs - 1e-9) + 1);
  const start = first === 0 ? 0 : ends[first - 1];
  const stop = last === 0 ? 0 : ends[last - 1];
  const channels: Channel[] = trace.channels.map(({ role, times, values }) => {
    const from = firstEndAfter(times, start - 1e-9),
      to = firstEndAfter(times, stop);
    return { role, times: times.slice(from, to).map((t) => t - start), values: values.slice(from, to) };
  });
  const marks = trace.marks
    .filter((mark) => mark.endMs > start && mark.startMs < stop)
    .map((mark) => ({
      label: mark.label,
      startMs: Math.max(0, mark.startMs - start),
      endMs: Math.min(stop, mark.endMs) - start,
    }));
  if (trace.form === "frames")
    return { form: "frames", frameTimes: trace.frameTimes.slice(first, last), channels, marks };
  return {
    form: "interval",
    durations: trace.durations.slice(first, last),
    rates: trace.rates.slice(first, last),
    channels,
    marks,
  };
}
