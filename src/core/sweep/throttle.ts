import type { Throttle } from "./shape";
import type { Channel, ChannelRole, Trace } from "@/core/trace";

const halves: { half: Throttle["half"]; clock: ChannelRole; loads: ChannelRole[]; heat: ChannelRole[] }[] = [
  { half: "processor", clock: "cpuClock", loads: ["cpuBusiest", "cpu"], heat: ["temperature"] },
  { half: "graphics", clock: "gpuClock", loads: ["gpu"], heat: ["gpuTemperature", "temperature"] },
];

/** The reading that holds at an instant. */
export function held({ times, values }: Pick<Channel, "times" | "values">, ms: number): number {
  let low = 0,
    high = times.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (times[middle] <= ms) low = middle;
    else high = middle - 1;
  }
  return values[low];
}

/**
 * Where heat throttled: a clock under 95 % of its early median while its load is at least 90 % and the
 * temperature within 3 °C of the limit. The early median is that of the first minute (or fifth) of the run.
 */
export function throttling(channels: Channel[], limitC: number | null): Throttle[] {
  if (limitC === null) return [];
  const of = (roles: ChannelRole[]) =>
    roles
      .map((role) => channels.find((channel) => channel.role === role))
      .find((channel) => channel !== undefined && channel.values.length > 0);
  const found: Throttle[] = [];
  for (const { half, clock, loads, heat } of halves) {
    const [clocks, load, warmth] = [of([clock]), of(loads), of(heat)];
    if (!clocks || !load || !warmth || clocks.values.length < 4) continue;
    const until = Math.min(60_000, clocks.times[clocks.times.length - 1] / 5);
    const early = clocks.values.filter((_, i) => clocks.times[i] <= until).sort();
    const usual = early.length > 0 ? early[early.length >> 1] : clocks.values[0];
    let open: Throttle | null = null;
    for (let i = 0; i < clocks.times.length; i++) {
      const ms = clocks.times[i],
        share = clocks.values[i] / usual;
      if (share < 0.95 && held(load, ms) >= 90 && held(warmth, ms) >= limitC - 3) {
        open ??= { half, startMs: i > 0 ? clocks.times[i - 1] : 0, endMs: ms, deepest: share };
        open.endMs = ms;
        open.deepest = Math.min(open.deepest, share);
      } else if (open) {
        found.push(open);
        open = null;
      }
    }
    if (open) found.push(open);
  }
  return joined(found);
}

/** Stretches of one half less than five seconds apart are one. */
function joined(stretches: Throttle[]): Throttle[] {
  const made: Throttle[] = [];
  for (const stretch of stretches) {
    const before = made.at(-1);
    if (before && before.half === stretch.half && stretch.startMs - before.endMs < 5000) {
      before.endMs = stretch.endMs;
      before.deepest = Math.min(before.deepest, stretch.deepest);
    } else made.push({ ...stretch });
  }
  return made;
}

/**
 * Burst is the first minute's average, sustained the last third's; fps.
 * @returns null for a trace shorter than 90 s, which shows no difference
 */
export function burstAndSustained(trace: Trace): { burst: number; sustained: number } | null {
  const steps = trace.form === "frames" ? trace.frameTimes : trace.durations;
  let whole = 0;
  for (let i = 0; i < steps.length; i++) whole += steps[i];
  if (whole < 90_000) return null;
  /** Average over the steps from one end until so much time is covered. */
  const rateFrom = (first: number, by: 1 | -1, coverMs: number) => {
    let frames = 0,
      ms = 0;
    for (let i = first; ms < coverMs - 1e-6 && i >= 0 && i < steps.length; i += by) {
      frames += trace.form === "frames" ? 1 : (trace.rates[i] * steps[i]) / 1000;
      ms += steps[i];
    }
    return (1000 * frames) / ms;
  };
  return { burst: rateFrom(0, 1, 60_000), sustained: rateFrom(steps.length - 1, -1, whole / 3) };
}
