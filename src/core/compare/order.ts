/** The order that lets warming up favour no arm: 0 1 2, 2 1 0, 0 1 2 … @returns length arms · rounds */
export function armOrder(arms: number, rounds: number): number[] {
  const there = Array.from({ length: arms }, (_, arm) => arm);
  return Array.from({ length: rounds }, (_, round) => (round % 2 === 0 ? there : [...there].reverse())).flat();
}

/**
 * The arms still to run, in order: the plan less what was run, whatever order that was in.
 * @param done arm of every usable run so far
 */
export function stillToRun(arms: number, rounds: number, done: number[]): number[] {
  const left = Array.from({ length: arms }, (_, arm) => done.filter((ran) => ran === arm).length);
  return armOrder(arms, rounds).filter((arm) => (left[arm] > 0 ? (left[arm]--, false) : true));
}

/**
 * Two arms by letter, the order that lets warming up favour neither side: A B, B A, A B … @returns length
 * 2·rounds
 */
export const runOrder = (rounds: number) => armOrder(2, rounds).map((arm) => (arm === 0 ? "A" : "B"));
