import type { MainEffect } from "./shape";
import { assumedNoise, pooledSpread, type NoiseFloor } from "@/core/compare";
import { leastSquares, mean, medianOf, tQuantile } from "@/core/stats";

/**
 * First rows of the cyclic designs of Plackett & Burman (1946), + as 1. The last row of every design is all −.
 */
const generators: Record<number, string> = {
  8: "+++-+--",
  12: "++-+++---+-",
  16: "++++-+-++--+---",
  20: "++--++++-+-+----++-",
  24: "+++++-+-++--++--+-+----",
};
export const designSizes = [8, 12, 16, 20, 24] as const;

/** A two-level design: a row a run, a column a factor, +1 or −1. */
export type Design = (1 | -1)[][];

/**
 * The smallest Plackett–Burman design for so many factors: rows by cyclic shift, the last row all −, columns
 * orthogonal.
 * @param factors 2 … 23
 * @returns rows (8, 12, 16, 20 or 24) of `factors` signs
 * @throws RangeError outside that
 */
export function screeningDesign(factors: number): Design {
  const size = designSizes.find((runs) => runs > factors);
  if (factors < 2 || size === undefined) throw new RangeError("a screening takes 2 to 23 factors");
  const first = [...generators[size]].map((sign): 1 | -1 => (sign === "+" ? 1 : -1));
  const rows = Array.from({ length: size - 1 }, (_, shift) =>
    first.map((_, column) => first[(column - shift + first.length) % first.length]),
  );
  return [...rows, first.map((): 1 | -1 => -1)].map((row) => row.slice(0, factors));
}

/**
 * A design folded over: all rows, then all again in the same order with every sign changed (Box & Hunter 1961,
 * from memory). Main effects are then free of what pairs of switches do together, and of a steady drift.
 */
export const foldedOver = (design: Design): Design => [
  ...design,
  ...design.map((row) => row.map((sign): 1 | -1 => (sign > 0 ? -1 : 1))),
];

/** Chance that any switch is named which does nothing. */
const familyLevel = 0.08;
/** Degrees of freedom under which the effects themselves are asked for their spread. */
const enoughFreedom = 6;

/**
 * Spread of effects when most of them are nothing (Lenth, Technometrics 31, 1989): 1.5 times the median of
 * those that aren't far out; a third as many degrees of freedom as effects.
 */
function sparseSpread(effects: number[]): { error: number; freedom: number } {
  const sizes = Float64Array.from(effects, Math.abs);
  const first = 1.5 * medianOf(sizes);
  const near = sizes.filter((size) => size < 2.5 * first);
  return { error: near.length > 0 ? 1.5 * medianOf(near) : 0, freedom: effects.length / 3 };
}

/** Least squares of values on an intercept and signs. @returns null where they can't be told apart */
function fitSigns(signs: number[][], values: number[]) {
  if (signs.length <= (signs[0]?.length ?? 0)) return null;
  const made = leastSquares(
    signs.map((row) => [1, ...row]),
    values,
  );
  if (!made) return null;
  const { coefficients, covariance, squares, freedom } = made;
  const effects = coefficients.slice(1);
  return {
    coefficients: effects,
    units: effects.map((_, factor) => covariance.get(factor + 1, factor + 1)),
    squares,
    freedom,
  };
}

interface RowRun {
  row: (1 | -1)[];
  rate: number;
}

const rowsRun = (design: Design, logRates: (number | null)[]): RowRun[] =>
  design.flatMap((row, i) => {
    const rate = logRates[i];
    return rate === null || rate === undefined ? [] : [{ row, rate }];
  });

/** Whether every row was run with all signs changed too. */
function areFolded(rows: RowRun[]): boolean {
  const there = new Set(rows.map(({ row }) => row.join()));
  return rows.every(({ row }) => there.has(row.map((sign) => -sign).join()));
}

/**
 * Whether main effects are mixed with what pairs of switches do together: the design isn't folded over, or too
 * little of it is run.
 */
export const isMixed = (design: Design, logRates: (number | null)[]): boolean =>
  !areFolded(rowsRun(design, logRates));

/**
 * Main effects of a screening, on log rates: what a factor's + does over its −.
 *
 * Least squares; where every row was run with all signs changed too, with a steady drift, and free of what
 * pairs of switches do together: that is left over, and counts as spread. The spread is pooled with the rig's;
 * where little is left over, with the effects' own (most do nothing). Intervals hold for all factors at once
 * (Bonferroni).
 *
 * @param design as run; a row may stand for several runs
 * @param logRates log rate of every row, null where it was not run
 * @throws RangeError when fewer than half the rows were run
 */
export function screeningEffects(
  design: Design,
  logRates: (number | null)[],
  noise: NoiseFloor = assumedNoise,
): MainEffect[] {
  const rows = rowsRun(design, logRates);
  if (rows.length < design.length / 2) throw new RangeError("fewer than half of the runs are in");
  const factors = design[0]?.length ?? 0;
  const folded = areFolded(rows);
  // Folded over, a steady drift is told from the effects; in half a design there is no room for it.
  const fit = fitSigns(
    rows.map(({ row }, place) => (folded ? [...row, (2 * place) / (rows.length - 1) - 1] : row)),
    rows.map(({ rate }) => rate),
  );
  const unknown = (factor: number): MainEffect => ({
    factor,
    logGain: 0,
    low: -Infinity,
    high: Infinity,
    matters: false,
  });
  if (!fit) return Array.from({ length: factors }, (_, factor) => unknown(factor));
  const coefficients = fit.coefficients.slice(0, factors);
  let { squares, freedom } = fit;
  if (freedom < enoughFreedom) {
    const sparse = sparseSpread(coefficients);
    squares += (sparse.freedom * sparse.error ** 2) / mean(fit.units.slice(0, factors));
    freedom += sparse.freedom;
  }
  const spread = pooledSpread(squares, freedom, noise);
  const t = tQuantile(1 - familyLevel / 2 / factors, spread.freedom);
  // What a pair of switches does together is rarely more than half of what the stronger does alone (effect
  // hierarchy, common practice).
  const least = folded ? 0 : Math.max(...coefficients.map(Math.abs));
  return coefficients.map((coefficient, factor): MainEffect => {
    const half = 2 * t * Math.sqrt(spread.variance * (fit.units[factor] ?? 0));
    const logGain = 2 * coefficient;
    return {
      factor,
      logGain,
      low: logGain - half,
      high: logGain + half,
      matters: Math.abs(logGain) > Math.max(half, least),
    };
  });
}
