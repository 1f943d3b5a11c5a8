import type { HeatFit, LimitOutlook } from "./shape";
import { heatAt, type Curve } from "./warming";
import {
  effectiveNumber,
  lag1,
  leastSquares,
  mean,
  tQuantile,
  thinned,
  unbiasedLag1,
  weightedLine,
} from "@/core/stats";
import type { Channel } from "@/core/trace";
import { broughtBy, fitTwoParts, loadOf } from "./heatParts";

/** Readings the fit uses; closer ones follow one another. */
const heatPoints = 56;
const tauSteps = 28;
/** What a thermometer of a device can't tell, °C: its tenths are drawn, not known (common practice). */
const leastSd = 0.1;
const profileSteps = 8;

interface AtTau {
  settled: number;
  start: number;
  squares: number;
  /** Standard error of T∞ at this τ, for unit residual SD. */
  spread: number;
  /** What it leaves over, °C; as long as the readings. */
  left: Float64Array;
}

/** T∞ and T0 for one τ: linear least squares on e^(−t/τ). */
function fitAt(tau: number, seconds: Float64Array, celsius: Float64Array): AtTau {
  const missing = seconds.map((at) => Math.exp(-at / tau));
  const line = weightedLine(missing, celsius);
  const centre = mean(missing);
  const left = celsius.map((value, i) => value - line.intercept - line.slope * missing[i]);
  let squares = 0,
    around = 0;
  for (let i = 0; i < left.length; i++) {
    squares += left[i] ** 2;
    around += (missing[i] - centre) ** 2;
  }
  return {
    settled: line.intercept,
    start: line.intercept + line.slope,
    squares,
    spread: Math.sqrt(1 / left.length + centre ** 2 / Math.max(around, 1e-12)),
    left,
  };
}

/**
 * The same under a load that varies: T∞ is that of the run's mean load; what the device held when it began
 * leaves with τ.
 */
function fitUnderLoad(tau: number, seconds: Float64Array, celsius: Float64Array, load: Float64Array): AtTau {
  const brought = broughtBy(tau, seconds, load);
  const rows = Array.from(seconds, (at, i) => [1, brought[i], 1 - Math.exp(-at / tau)]);
  const made = leastSquares(rows, celsius, 0);
  if (!made) return fitAt(tau, seconds, celsius);
  const { coefficients, covariance, squares } = made;
  const [start = 0, rise = 0, held = 0] = coefficients;
  return {
    settled: start + rise + held,
    start,
    squares,
    spread: Math.sqrt(Math.max(0, covariance.sum())),
    left: celsius.map((value, i) => value - start - rise * brought[i] - held * (rows[i]?.[2] ?? 0)),
  };
}

/**
 * Fits first-order warming by least squares, linear in T∞ and T0 for each τ, τ by a search over a fine ladder
 * and its neighbourhood.
 *
 * The interval of T∞ is a profile: every τ whose squares stay within what chance explains (F, with the
 * residuals' effective number), with as much of T∞ as the squares still leave at that τ (profile likelihood;
 * Bates & Watts 1988, 6.1).
 *
 * @param times   ms, ascending; length M ≥ 8
 * @param celsius length M
 * @param watts what was drawn meanwhile; a load that varies is then told from a curve that bends
 * @returns null for fewer than 8 readings or no time span
 */
export function fitHeat(
  times: ArrayLike<number>,
  celsius: ArrayLike<number>,
  watts: Pick<Channel, "times" | "values"> | null = null,
): HeatFit | null {
  if (times.length < 8 || !(times[times.length - 1] > times[0])) return null;
  const points = thinned(times, celsius, heatPoints);
  const seconds = points.times.map((ms) => ms / 1000);
  const span = seconds[seconds.length - 1];
  const load = watts && loadOf(watts, points.times, times[times.length - 1]);
  const at = (tau: number) =>
    load ? fitUnderLoad(tau, seconds, points.values, load) : fitAt(tau, seconds, points.values);
  const taus = Array.from({ length: tauSteps }, (_, k) => (span / 40) * (40 * 8) ** (k / (tauSteps - 1)));
  const fits = taus.map((tau) => ({ tau, ...at(tau) }));
  let best = fits.reduce((least, fit) => (fit.squares < least.squares ? fit : least));
  // Golden section between the neighbours of the best rung.
  const rung = taus.indexOf(best.tau);
  let low = taus[Math.max(0, rung - 1)],
    high = taus[Math.min(taus.length - 1, rung + 1)];
  const golden = (Math.sqrt(5) - 1) / 2;
  for (let k = 0; k < 12; k++) {
    const a = high - golden * (high - low),
      b = low + golden * (high - low);
    if (at(a).squares < at(b).squares) high = b;
    else low = a;
  }
  const middle = (low + high) / 2,
    refined = { tau: middle, ...at(middle) };
  if (refined.squares < best.squares) best = refined;

  const { left } = best;
  const follow = Math.max(0, Math.min(0.95, unbiasedLag1(lag1(left) ?? 0, left.length)));
  const effective = Math.max(5, effectiveNumber(left.length, follow));
  const freedom = Math.max(2, effective - 3);
  const variance = Math.max(best.squares / left.length, leastSd ** 2);
  const t = tQuantile(0.975, freedom);
  const allowed = variance * left.length * (1 + (t * t) / freedom);
  // The ends of the profile lie between a τ that chance explains and the first that it doesn't.
  const edge = (towards: number) => {
    let inside = best.tau,
      outside = towards;
    if (at(outside).squares <= allowed) return outside;
    for (let k = 0; k < 8; k++) {
      const between = Math.sqrt(inside * outside);
      if (at(between).squares <= allowed) inside = between;
      else outside = between;
    }
    return inside;
  };
  const [shortest, longest] = [edge(taus[0]), edge(taus[taus.length - 1] * 4)];
  const settledInterval = { low: Infinity, high: -Infinity };
  for (let k = 0; k <= profileSteps; k++) {
    const fit = at(shortest * (longest / shortest) ** (k / profileSteps));
    const half = Math.sqrt(Math.max(0, allowed - fit.squares)) * fit.spread;
    settledInterval.low = Math.min(settledInterval.low, fit.settled - half);
    settledInterval.high = Math.max(settledInterval.high, fit.settled + half);
  }
  // A part that is much slower may hide in a run that doesn't last: every pair that fits as well widens the
  // interval.
  const two = fitTwoParts(
    seconds,
    points.values,
    load,
    (least) =>
      Math.max(Math.min(least, best.squares), leastSd ** 2 * left.length) *
      (1 + (t * t) / Math.max(2, freedom - 2)),
  );
  if (two) {
    settledInterval.low = Math.min(settledInterval.low, two.settled.low);
    settledInterval.high = Math.max(settledInterval.high, two.settled.high);
  }
  const last = points.values[points.values.length - 1];
  // Under a constant load what is still warming settles no lower than where it is.
  if (!load && best.settled > best.start)
    settledInterval.low = Math.max(settledInterval.low, Math.min(best.settled, last - 2 * Math.sqrt(variance)));
  const common = (startC: number) => ({
    settledInterval,
    surelyReached: Math.min(1, Math.max(0, (last - startC) / Math.max(1e-6, settledInterval.high - startC))),
  });
  // Two more parameters have to save what chance doesn't (F at about 1 %).
  const needsTwo =
    two &&
    best.squares / Math.max(two.squares, 1e-9) > 1 + (2 * 5) / freedom &&
    best.squares > 1e-6 * left.length;
  if (two && needsTwo) {
    const [fast, slow] = two.parts;
    const settledC = two.startC + fast.riseC + slow.riseC;
    return {
      ...common(two.startC),
      startC: two.startC,
      settledC,
      settleSeconds: slow.settleSeconds,
      parts: two.parts,
      residualC: Math.sqrt(two.squares / left.length),
      reached: Math.min(1, Math.max(0, (last - two.startC) / (settledC - two.startC || 1))),
    };
  }
  return {
    ...common(best.start),
    startC: best.start,
    settledC: best.settled,
    settleSeconds: best.tau,
    residualC: Math.sqrt(best.squares / left.length),
    reached: 1 - Math.exp(-span / best.tau),
  };
}

/**
 * Share of the way to the highest place where it may settle from which a curve has bent enough to say "never".
 */
const bent = 0.75;

/**
 * A chip settles within a minute, what it sits in takes minutes: shorter runs don't show the slow part (common
 * practice).
 */
const bodySeconds = 300;

/**
 * Whether a limit is reached. "Never" is said only once the curve has bent and even the highest place where it
 * may settle lies under the limit.
 * @param ranSeconds how long the run was
 */
export function limitOutlook(fit: HeatFit, limitC: number, ranSeconds: number): LimitOutlook {
  const seconds = secondsToLimit(fit, limitC);
  const isFar = fit.surelyReached >= bent && ranSeconds >= bodySeconds;
  if (seconds !== null && (isFar || seconds <= 1.5 * ranSeconds)) return { state: "reached", seconds };
  if (seconds === null && isFar && fit.settledInterval.high < limitC) return { state: "never" };
  // Three time constants settle 95 % of a step.
  const runMinutes = Math.ceil(Math.max(2 * ranSeconds, Math.min(3 * fit.settleSeconds, 6 * ranSeconds)) / 60);
  return { state: "open", runMinutes };
}

/**
 * Seconds from the start until a limit is reached: −τ·ln((T∞ − L)/(T∞ − T0)).
 * @returns null when it never is at this load
 */
export function secondsToLimit(curve: Curve, limitC: number): number | null {
  const { startC, settledC, settleSeconds, parts } = curve;
  if (startC >= limitC) return 0;
  if (settledC <= limitC) return null;
  if (parts) {
    // The sum of two parts has no closed form: halving finds it.
    let [before, after] = [0, 20 * settleSeconds];
    for (let k = 0; k < 50; k++) {
      const middle = (before + after) / 2;
      if (heatAt(curve, middle) < limitC) before = middle;
      else after = middle;
    }
    return after;
  }
  return -settleSeconds * Math.log((settledC - limitC) / (settledC - startC));
}

/**
 * Minutes until the device is back within 2 °C of where it started, cooling as it warmed.
 * @example coolDownMinutes(40, 80, 100) // → 4.99
 */
export function coolDownMinutes(startC: number, endC: number, settleSeconds: number): number {
  return endC - startC <= 2 ? 0 : (settleSeconds * Math.log((endC - startC) / 2)) / 60;
}
