/** An effect of B over A with its 95 % interval. */
export interface Effect {
  estimate: number;
  low: number;
  high: number;
}

export const decisions = ["better", "worse", "no difference", "undecided"] as const;
export type Decision = (typeof decisions)[number];

/**
 * The decision with a practical margin.
 *
 * Better: the interval lies above 0 and the estimate reaches the margin; worse: the mirror; no difference: the
 * interval lies inside ± the margin; else undecided.
 *
 * @param effect log ratio of average fps
 * @param margin smallest difference worth having, as a log ratio > 0
 */
export function decide({ estimate, low, high }: Effect, margin: number): Decision {
  if (low > 0 && estimate >= margin) return "better";
  if (high < 0 && estimate <= -margin) return "worse";
  if (low > -margin && high < margin) return "no difference";
  return "undecided";
}

/**
 * Holm's (1979) step-down correction for many looks.
 * @param p values, any order
 * @returns adjusted values in the same order, each 0…1
 */
export function holm(p: number[]): number[] {
  const order = p.map((_, index) => index).sort((a, b) => p[a] - p[b]);
  const adjusted = new Array<number>(p.length);
  let running = 0;
  order.forEach((index, rank) => {
    running = Math.max(running, Math.min(1, (p.length - rank) * p[index]));
    adjusted[index] = running;
  });
  return adjusted;
}
