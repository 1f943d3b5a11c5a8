import { lag1, mean, tQuantile, thinned, weightedLine, type Interval } from "@/core/stats";
import type { Channel, ChannelRole, Trace } from "@/core/trace";

/** A first-order warming: T(t) = T∞ − (T∞ − T0)·e^(−t/τ). */
export interface HeatFit {
  startC: number;
  /** T∞ with its 95 % interval. */
  settledC: number;
  settledInterval: Interval;
  /** τ, s. */
  settleSeconds: number;
  /** RMS of what the curve leaves over, °C. */
  residualC: number;
  /** Share of the way to T∞ that the run went; under about two thirds the asymptote is a guess. */
  reached: number;
}

/** Readings the fit uses; closer ones follow one another. */
const heatPoints = 56;
const tauSteps = 28;
const profileSteps = 8;

interface AtTau {
  settled: number;
  start: number;
  squares: number;
  /** Standard error of T∞ at this τ, for unit residual SD. */
  spread: number;
}

/** T∞ and T0 for one τ: linear least squares on e^(−t/τ). */
function fitAt(tau: number, seconds: Float64Array, celsius: Float64Array): AtTau {
  const left = new Float64Array(seconds.length);
  for (let i = 0; i < left.length; i++) left[i] = Math.exp(-seconds[i] / tau);
  const line = weightedLine(left, celsius);
  let squares = 0,
    around = 0;
  const centre = mean(left);
  for (let i = 0; i < left.length; i++) {
    squares += (celsius[i] - line.intercept - line.slope * left[i]) ** 2;
    around += (left[i] - centre) ** 2;
  }
  return {
    settled: line.intercept,
    start: line.intercept + line.slope,
    squares,
    spread: Math.sqrt(1 / left.length + centre ** 2 / Math.max(around, 1e-12)),
  };
}

/**
 * Fits first-order warming by least squares, linear in T∞ and T0 for each τ, τ by a search over a fine ladder and its neighbourhood.
 *
 * The interval of T∞ is a profile: every τ whose squares stay within what chance explains (F, with the residuals'
 * effective number), each with its own standard error.
 *
 * @param times   ms, ascending; length M ≥ 8
 * @param celsius length M
 * @returns null for fewer than 8 readings or no time span
 */
export function fitHeat(times: ArrayLike<number>, celsius: ArrayLike<number>): HeatFit | null {
  if (times.length < 8 || !(times[times.length - 1] > times[0])) return null;
  const points = thinned(times, celsius, heatPoints);
  const seconds = points.times.map((ms) => ms / 1000);
  const span = seconds[seconds.length - 1];
  const taus = Array.from({ length: tauSteps }, (_, k) => (span / 40) * (40 * 8) ** (k / (tauSteps - 1)));
  const fits = taus.map((tau) => ({ tau, ...fitAt(tau, seconds, points.values) }));
  let best = fits.reduce((least, fit) => (fit.squares < least.squares ? fit : least));
  // Golden section between the neighbours of the best rung.
  const at = taus.indexOf(best.tau);
  let low = taus[Math.max(0, at - 1)],
    high = taus[Math.min(taus.length - 1, at + 1)];
  const golden = (Math.sqrt(5) - 1) / 2;
  for (let k = 0; k < 12; k++) {
    const a = high - golden * (high - low),
      b = low + golden * (high - low);
    if (fitAt(a, seconds, points.values).squares < fitAt(b, seconds, points.values).squares) high = b;
    else low = a;
  }
  const middle = (low + high) / 2,
    refined = { tau: middle, ...fitAt(middle, seconds, points.values) };
  if (refined.squares < best.squares) best = refined;

  const left = points.values.map(
    (value, i) =>
      value - heatAt({ startC: best.start, settledC: best.settled, settleSeconds: best.tau }, seconds[i]),
  );
  const follow = Math.max(0, Math.min(0.95, lag1(left) ?? 0));
  const effective = Math.max(5, (left.length * (1 - follow)) / (1 + follow));
  const freedom = Math.max(2, effective - 3);
  const variance = Math.max(best.squares / left.length, 1e-6);
  const t = tQuantile(0.975, freedom);
  const allowed = variance * left.length * (1 + (t * t) / freedom);
  const inflation = Math.sqrt(left.length / effective);
  // The ends of the profile lie between a τ that chance explains and the first that it doesn't.
  const edge = (towards: number) => {
    let inside = best.tau,
      outside = towards;
    if (fitAt(outside, seconds, points.values).squares <= allowed) return outside;
    for (let k = 0; k < 8; k++) {
      const between = Math.sqrt(inside * outside);
      if (fitAt(between, seconds, points.values).squares <= allowed) inside = between;
      else outside = between;
    }
    return inside;
  };
  const [shortest, longest] = [edge(taus[0]), edge(taus[taus.length - 1] * 4)];
  const settledInterval = { low: Infinity, high: -Infinity };
  for (let k = 0; k <= profileSteps; k++) {
    const fit = fitAt(shortest * (longest / shortest) ** (k / profileSteps), seconds, points.values);
    const half = t * Math.sqrt(variance) * fit.spread * inflation;
    settledInterval.low = Math.min(settledInterval.low, fit.settled - half);
    settledInterval.high = Math.max(settledInterval.high, fit.settled + half);
  }
  return {
    startC: best.start,
    settledC: best.settled,
    settledInterval,
    settleSeconds: best.tau,
    residualC: Math.sqrt(variance),
    reached: 1 - Math.exp(-span / best.tau),
  };
}

/** Temperature on a warming curve: T∞ − (T∞ − T0)·e^(−t/τ), °C. */
export const heatAt = (
  { startC, settledC, settleSeconds }: Pick<HeatFit, "startC" | "settledC" | "settleSeconds">,
  seconds: number,
) => settledC - (settledC - startC) * Math.exp(-seconds / settleSeconds);

/**
 * Seconds from the start until a limit is reached: −τ·ln((T∞ − L)/(T∞ − T0)).
 * @returns null when it never is at this load
 */
export function secondsToLimit(
  { startC, settledC, settleSeconds }: Pick<HeatFit, "startC" | "settledC" | "settleSeconds">,
  limitC: number,
): number | null {
  if (startC >= limitC) return 0;
  if (settledC <= limitC) return null;
  return -settleSeconds * Math.log((settledC - limitC) / (settledC - startC));
}

/**
 * Minutes until the device is back within 2 °C of where it started, cooling as it warmed.
 * @example coolDownMinutes(40, 80, 100) // → 4.99
 */
export function coolDownMinutes(startC: number, endC: number, settleSeconds: number): number {
  return endC - startC <= 2 ? 0 : (settleSeconds * Math.log((endC - startC) / 2)) / 60;
}

/** A stretch in which heat took clocks back. */
export interface Throttle {
  half: "processor" | "graphics";
  startMs: number;
  endMs: number;
  /** Least clock in it, as a share of the early one. */
  deepest: number;
}

const halves: { half: Throttle["half"]; clock: ChannelRole; loads: ChannelRole[]; heat: ChannelRole[] }[] = [
  { half: "processor", clock: "cpuClock", loads: ["cpuBusiest", "cpu"], heat: ["temperature"] },
  { half: "graphics", clock: "gpuClock", loads: ["gpu"], heat: ["gpuTemperature", "temperature"] },
];

/** The reading that holds at an instant. */
function held({ times, values }: Channel, ms: number): number {
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
 * Where heat throttled: a clock under 95 % of its early median while its load is at least 90 % and the temperature within
 * 3 °C of the limit. The early median is that of the first minute (or fifth) of the run.
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
