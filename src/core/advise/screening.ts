import { assumedNoise, reckonedSpread, type NoiseFloor } from "@/core/compare";
import { tQuantile } from "@/core/stats";

/** First rows of the cyclic designs of Plackett & Burman (1946), + as 1. The last row of every design is all −. */
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
 * The smallest Plackett–Burman design for so many factors: rows by cyclic shift, the last row all −, columns orthogonal.
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

/** What a factor does: its + over its −, as a log ratio with a 95 % interval. */
export interface MainEffect {
  factor: number;
  logGain: number;
  low: number;
  high: number;
  matters: boolean;
}

/**
 * Main effects of a screening: mean of the runs at + less mean at −, on log rates; the interval from the rig's noise floor,
 * pooled with what the columns without a factor show.
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
  const run = design
    .map((row, i) => ({ row, rate: logRates[i] }))
    .filter((each): each is { row: (1 | -1)[]; rate: number } => each.rate !== null);
  if (run.length < design.length / 2) throw new RangeError("fewer than half of the runs are in");
  const whole = run.length === design.length;
  const contrast = (signs: number[]) => {
    const up = run.filter((_, i) => signs[i] > 0),
      down = run.filter((_, i) => signs[i] < 0);
    if (up.length === 0 || down.length === 0) return null;
    const meanOf = (list: typeof run) => list.reduce((sum, { rate }) => sum + rate, 0) / list.length;
    return { effect: meanOf(up) - meanOf(down), unit: 1 / up.length + 1 / down.length };
  };
  const factors = design[0].length;
  // Columns of the full design that hold no factor show nothing but spread.
  let squares = 0,
    freedom = 0;
  if (whole) {
    const full = screeningDesign(design.length - 1);
    for (let column = factors; column < design.length - 1; column++) {
      const empty = contrast(full.map((row) => row[column]));
      if (!empty) continue;
      squares += empty.effect ** 2 / empty.unit;
      freedom++;
    }
  }
  const spread = reckonedSpread(squares, freedom, noise);
  const t = tQuantile(0.975, spread.freedom);
  return Array.from({ length: factors }, (_, factor): MainEffect => {
    const found = contrast(run.map(({ row }) => row[factor]));
    if (!found) return { factor, logGain: 0, low: -Infinity, high: Infinity, matters: false };
    const half = t * Math.sqrt(spread.variance * found.unit);
    return {
      factor,
      logGain: found.effect,
      low: found.effect - half,
      high: found.effect + half,
      matters: found.effect - half > 0 || found.effect + half < 0,
    };
  });
}
