import { chiSquared, seeded, tQuantile } from "@/core/stats";
import type { Step } from "./shape";

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

/** What further runs are reckoned from: an undecided difference. */
export interface Undecided {
  /** Log ratio so far. */
  estimate: number;
  /** Variance of one run, the share of it that the estimate's own is, and its degrees of freedom. */
  variance: number;
  unit: number;
  freedom: number;
  /** What no repeat takes away of the interval's half width. */
  unknown?: number;
  /** Smallest difference worth having, as a log ratio. */
  margin: number;
  /** Fewest runs a side to ask for. */
  least?: number;
  seed?: number;
}

/** Further runs a side that are told of, with what each would do; nobody makes more than the last. */
const steps = [1, 2, 4, 8];
/** Afternoons imagined. */
const imagined = 500;
/** A number is named when it settles the question so often. */
const wantedChance = 0.9;
/** What single changes do, before a run tells: a log ratio of SD 4 %; ours. */
const usualEffect = 0.04;

/**
 * How many further runs a side should settle an undecided comparison, and with what chance.
 *
 * Spread and true difference are drawn from what is believed of them, further runs from those, and the decision
 * is made on all (posterior predictive): the estimate's own error is averaged over, not taken for the truth.
 *
 * @returns the fewest that settle it in 90 % of the imagined afternoons, eight with their chance where none
 *   does; and every step up to there
 */
export function furtherRuns({
  estimate,
  variance,
  unit,
  freedom,
  unknown = 0,
  margin,
  least = 1,
  seed = 1,
}: Undecided): Step & { steps: Step[] } {
  const known = 1 / unit;
  const chanceOf = (more: number) => {
    const random = seeded(seed + more);
    const later = freedom + Math.max(1, 2 * more - 1);
    const t = tQuantile(0.975, later);
    let settled = 0;
    for (let k = 0; k < imagined; k++) {
      const spread = (variance * freedom) / chiSquared(random, freedom);
      const sure = usualEffect ** 2 / (usualEffect ** 2 + spread * unit);
      const truth = sure * estimate + Math.sqrt(sure * spread * unit) * random.normal();
      const weight = more / 2;
      const fresh = truth + Math.sqrt(spread / weight) * random.normal();
      const own = more > 1 ? spread * chiSquared(random, 2 * more - 2) : 0;
      const together = (known * estimate + weight * fresh) / (known + weight);
      const apart = ((known * weight) / (known + weight)) * (fresh - estimate) ** 2;
      const pooled = (variance * freedom + own + apart) / later;
      const half = t * Math.sqrt(pooled / (known + weight)) + unknown;
      if (decide({ estimate: together, low: together - half, high: together + half }, margin) !== "undecided")
        settled++;
    }
    return settled / imagined;
  };
  const tried: Step[] = [];
  for (const more of steps.filter((each) => each >= least)) {
    // More runs settle no less; what says otherwise is the draw.
    const chance = Math.max(chanceOf(more), tried.at(-1)?.chance ?? 0);
    tried.push({ more, chance });
    if (chance >= wantedChance) break;
  }
  const last = tried.at(-1) ?? { more: least, chance: chanceOf(least) };
  return { ...last, steps: tried };
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
