import { mean, weightedLine } from "@/core/stats";
import type { RunsFit } from "./fitRuns";

/**
 * Two arms by rounds of which only the number is known, not who went first: the log ratio inside every round,
 * fitted by a level and by turns.
 *
 * A rig that slows down makes whoever goes second look worse. Where sides took turns (A B, B A, …) the term by
 * turns holds that; where they didn't, it can't be seen, and the difference is known no better than the rig's
 * drift from one run to the next.
 *
 * @param values of both arms, round by round
 */
export function fitRounds([a = [], b = []]: number[][]): RunsFit {
  const pairs = a.map((value, round) => (b[round] ?? NaN) - value);
  const n = pairs.length;
  const level = mean(pairs);
  const turns = pairs.map((_, round) => (round % 2 === 0 ? 1 : -1));
  const line = n < 3 ? { intercept: level, slope: 0 } : weightedLine(turns, pairs);
  const centre = mean(turns);
  const around = turns.reduce((sum, turn) => sum + (turn - centre) ** 2, 0);
  const middles = a.map((value, round) => (value + (b[round] ?? NaN)) / 2);
  // A round is two runs long.
  const perRun =
    n < 3
      ? 0
      : weightedLine(
          middles.map((_, round) => 2 * round),
          middles,
        ).slope;
  const share = n < 3 ? 1 / n : 1 / n + centre ** 2 / around;
  return {
    levels: [0, line.intercept],
    // Two runs make one log ratio.
    unit: () => 2 * share,
    squares:
      n < 3
        ? pairs.reduce((sum, pair) => sum + (pair - level) ** 2, 0) / 2
        : pairs.reduce(
            (sum, pair, round) => sum + (pair - line.intercept - line.slope * (turns[round] ?? 0)) ** 2,
            0,
          ) / 2,
    freedom: n < 3 ? n - 1 : n - 2,
    terms: 0,
    drift: 0,
    unknown: Math.abs(perRun),
  };
}
