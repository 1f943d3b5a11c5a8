import { normalMixture } from "@/core/stats";
import { driftsOver, type Drift } from "./drifts";
import type { Spread } from "./spreads";

/** A level for every arm, under one way that the rig may have drifted and one spread of each arm. */
export interface Explanation {
  weight: number;
  drift: Drift;
  /** Places of the runs under it, by arm; null where the order isn't known. */
  places: number[][] | null;
  /** Spread of each arm, as a factor of one run's. */
  factors: number[];
  /** Levels of the arms; and variance of the difference of two, as a share of one run's. */
  levels: number[];
  unit: (a: number, b: number) => number;
  /** Spreads of one run, weights summing to 1. */
  spreads: Spread[];
  /** What the drift comes to from the first run to the last. */
  drifted: number;
}

/** Runs of all arms, explained: what is likely, with its weight. */
export interface RunsFit {
  /** Weights sum to 1. */
  explanations: Explanation[];
  freedom: number;
}

/** An effect of one arm over another, with its 95 % interval. */
export interface Contrast {
  estimate: number;
  low: number;
  high: number;
  /** How often an effect at least so far from 0 is on the other side of it, two-sided. */
  p: number;
}

/** Factors between the spreads of two arms that are reckoned with. */
const factorsTried = [1 / 8, 1 / 5, 1 / 3, 1 / 2, 1 / 1.4, 1, 1.4, 2, 3, 5, 8];
/** SD of the log of that factor, where one arm has three times as many runs as the other. */
const unlikeLogSd = 3;
/** Weight under which an explanation is left out. */
const negligible = 2e-5;

/**
 * Spreads of the arms against each other, and how likely each is.
 *
 * Where arms have as many runs, spreads of their own hardly move an interval (common practice: Student's test is
 * robust then); where they haven't, pooling would lend the many runs' spread to the few.
 */
function factorsOf(counts: number[]): { weight: number; factors: number[] }[] {
  const alike = counts.map(() => 1);
  const low = Math.min(...counts),
    high = Math.max(...counts);
  if (low < 2 || low === high) return [{ weight: 1, factors: alike }];
  const logSd = 0.3 + (unlikeLogSd - 0.3) * Math.min(1, Math.log(high / low) / Math.log(3));
  const weights = factorsTried.map((factor) => Math.exp(-0.5 * (Math.log(factor) / logSd) ** 2));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const arms = counts.length === 2 ? [1] : counts.map((_, arm) => arm);
  return arms.flatMap((arm) =>
    factorsTried.map((factor, index) => ({
      weight: (weights[index] ?? 0) / total / arms.length,
      factors:
        counts.length === 2
          ? [1 / Math.sqrt(factor), Math.sqrt(factor)]
          : alike.map((one, each) => (each === arm ? factor : one)),
    })),
  );
}

/** Lower triangle of a covariance (Cholesky), with its log determinant. */
function factorised(size: number, covariance: (i: number, j: number) => number) {
  const rows: Float64Array[] = [];
  let logDeterminant = 0;
  for (let i = 0; i < size; i++) {
    const row = new Float64Array(size);
    for (let j = 0; j <= i; j++) {
      const other = j === i ? row : (rows[j] ?? row);
      let sum = covariance(i, j);
      for (let k = 0; k < j; k++) sum -= row[k] * other[k];
      row[j] = j === i ? Math.sqrt(sum) : sum / other[j];
    }
    logDeterminant += 2 * Math.log(row[i]);
    rows.push(row);
  }
  const solve = (values: ArrayLike<number>) => {
    const solved = new Float64Array(size);
    rows.forEach((row, i) => {
      let sum = values[i];
      for (let k = 0; k < i; k++) sum -= row[k] * solved[k];
      solved[i] = sum / row[i];
    });
    return solved;
  };
  return { logDeterminant, solve };
}

const product = (a: Float64Array, b: Float64Array) => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
};

/** A design of runs, fitted under one drift and one set of spreads by generalised least squares. */
function fitted(arms: number[], at: number[], count: number, drift: Drift, factors: number[]) {
  const { logDeterminant, solve } = factorised(
    arms.length,
    (i, j) => drift.between(at[i], at[j]) + (i === j ? factors[arms[i]] ** 2 : 0),
  );
  const columns = Array.from({ length: count }, (_, arm) => solve(arms.map((own) => (own === arm ? 1 : 0))));
  const information = factorised(count, (a, b) => product(columns[a], columns[b]));
  /** Solves the normal equations by their own triangle, forwards and back. */
  const inverted = Array.from({ length: count }, (_, arm) =>
    information.solve(Array.from({ length: count }, (_none, each) => (each === arm ? 1 : 0))),
  );
  const covariance = (a: number, b: number) => product(inverted[a], inverted[b]);
  return { logDeterminant, logInformation: information.logDeterminant, solve, columns, covariance };
}

/** Variance of the difference of two arms' levels for runs still to be made, as a share of one run's. */
export function unitOfDesign(
  places: number[][],
  drift: Drift,
  factors: number[],
  a: number,
  b: number,
): number {
  const arms = places.flatMap((own, arm) => own.map(() => arm));
  const { covariance } = fitted(arms, places.flat(), places.length, drift, factors);
  return covariance(a, a) + covariance(b, b) - 2 * covariance(a, b);
}

/**
 * What explains runs' values: a level for every arm, what the rig did meanwhile by itself, and the spread of one
 * run.
 *
 * The rig may not have drifted, drifted steadily, wandered from run to run, warmed up and levelled off, or
 * changed in one step; each is fitted by generalised least squares and weighed by how well it explains the runs
 * (restricted likelihood, Patterson & Thompson 1971), with its chance beforehand. Runs taken in turn are so
 * compared with their neighbours where the level wanders, and all with all where it doesn't.
 *
 * @param values of every run, an arm each; every arm at least one
 * @param orders where every run may have stood, each in the same shape and as likely; none where that isn't known
 * @param spreads of one run, before the runs speak
 */
export function fitRuns(values: number[][], orders: number[][][], spreads: Spread[]): RunsFit {
  const y = values.flat();
  const counts = values.map((own) => own.length);
  if (counts.includes(0)) throw new RangeError("every arm needs a run");
  const arms = values.flatMap((own, arm) => own.map(() => arm));
  const freedom = y.length - values.length;
  const found: (Explanation & { log: number })[] = [];
  for (const places of orders.length > 0 ? orders : [null]) {
    const at = places?.flat() ?? y.map(() => 0);
    const [first, last] = [at.indexOf(Math.min(...at)), at.indexOf(Math.max(...at))];
    // One run of each arm shows nothing of the rig's drift.
    const drifts = driftsOver(places === null || freedom === 0 ? [] : at);
    for (const drift of drifts)
      for (const { weight, factors } of factorsOf(counts)) {
        const { logDeterminant, logInformation, solve, columns, covariance } = fitted(
          arms,
          at,
          values.length,
          drift,
          factors,
        );
        const white = solve(y);
        const moments = columns.map((column) => product(column, white));
        const levels = moments.map((_, arm) =>
          moments.reduce((sum, moment, other) => sum + covariance(arm, other) * moment, 0),
        );
        const explained = levels.reduce((sum, level, arm) => sum + level * moments[arm], 0);
        const squares = Math.max(0, product(white, white) - explained);
        const logs = spreads.map(
          ({ sd, weight: own }) => Math.log(own) - freedom * Math.log(sd) - squares / (2 * sd ** 2),
        );
        const top = Math.max(...logs);
        const shares = logs.map((log) => Math.exp(log - top));
        const total = shares.reduce((sum, share) => sum + share, 0);
        const rest = solve(y.map((value, i) => value - levels[arms[i]]));
        const shift = solve(
          at.map((place) => drift.between(at[last], place) - drift.between(at[first], place)),
        );
        found.push({
          weight: 0,
          log:
            Math.log((drift.weight * weight) / Math.max(1, orders.length)) -
            0.5 * (logDeterminant + logInformation) +
            top +
            Math.log(total),
          drift,
          places,
          factors,
          levels,
          unit: (a, b) => covariance(a, a) + covariance(b, b) - 2 * covariance(a, b),
          spreads: spreads.map(({ sd }, index) => ({ sd, weight: shares[index] / total })),
          drifted: product(rest, shift),
        });
      }
  }
  const top = Math.max(...found.map(({ log }) => log));
  const total = found.reduce((sum, { log }) => sum + Math.exp(log - top), 0);
  return {
    explanations: found
      .map(({ log, ...each }) => ({ ...each, weight: Math.exp(log - top) / total }))
      .filter(({ weight }) => weight > negligible)
      .sort((a, b) => b.weight - a.weight),
    freedom,
  };
}

/**
 * The effect of arm b over arm a: median and 95 % interval over all explanations and spreads.
 * @param unknown how far off the effect may lie, whatever is repeated
 */
export function contrastOf({ explanations }: RunsFit, a: number, b: number, unknown = 0): Contrast {
  const parts = explanations.flatMap(({ weight, levels, unit, spreads }) => {
    const root = Math.sqrt(unit(a, b));
    const at = levels[b] - levels[a];
    return spreads.flatMap((spread) =>
      weight * spread.weight > negligible
        ? [{ weight: weight * spread.weight, at, sd: Math.max(spread.sd * root, 1e-12) }]
        : [],
    );
  });
  const { below, quantile } = normalMixture(parts);
  const estimate = quantile(0.5);
  const beyond = estimate > 0 ? below(Math.min(estimate, unknown)) : 1 - below(Math.max(estimate, -unknown));
  return {
    estimate,
    low: quantile(0.025) - unknown,
    high: quantile(0.975) + unknown,
    p: Math.min(1, 2 * beyond),
  };
}

/** Spread of one run, over all explanations: the root of its mean variance. */
export const spreadOf = ({ explanations }: RunsFit): number =>
  Math.sqrt(
    explanations.reduce(
      (sum, { weight, spreads }) =>
        sum + weight * spreads.reduce((own, spread) => own + spread.weight * spread.sd ** 2, 0),
      0,
    ),
  );
