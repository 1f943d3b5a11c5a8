import { mean } from "@/core/stats";

/** A scale on which the first of some places is −1 and the last 1. */
export function centredOver(places: number[]): (at: number) => number {
  const low = Math.min(...places),
    high = Math.max(...places);
  return (at) => (high > low ? (2 * (at - low)) / (high - low) - 1 : 0);
}

/**
 * Where the runs of two sides may have stood, when only their rounds are known: A first or B first in every
 * round, or by turns. All are as likely.
 *
 * @param rounds of each side
 * @returns four orders, each with the places of both sides
 */
export function placesByRounds(rounds: number): number[][][] {
  const isSecond: ((round: number) => number)[] = [
    () => 0,
    () => 1,
    (round) => round % 2,
    (round) => 1 - (round % 2),
  ];
  return isSecond.map((second) =>
    [0, 1].map((side) =>
      Array.from({ length: rounds }, (_, round) => 2 * round + (side === second(round) ? 0 : 1)),
    ),
  );
}

/**
 * Share of an arm's place in the order that a straight line through the order explains: 1 for A then B, 0 for A
 * B B A.
 */
export function mixedWithOrder(placesA: number[], placesB: number[]): number {
  const places = [...placesA, ...placesB];
  const n = places.length;
  const centre = mean(places);
  const squares = places.reduce((sum, at) => sum + (at - centre) ** 2, 0);
  if (squares === 0) return 0;
  const apart = mean(placesB) - mean(placesA);
  return (apart ** 2 * ((placesA.length * placesB.length) / n)) / squares;
}
