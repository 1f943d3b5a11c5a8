import { chiSquared, seeded, tQuantile, type Random } from "@/core/stats";
import { decide } from "./decide";
import { unitOfDesign, type Explanation, type RunsFit } from "./fitRuns";
import type { Step } from "./shape";

/** What further runs are reckoned from: an undecided difference. */
export interface Undecided {
  fit: RunsFit;
  /** Runs of both arms so far. */
  counts: [a: number, b: number];
  a: number;
  b: number;
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
/** Explanations that further runs are reckoned under; the others weigh little. */
const mostExplanations = 10;

const drawn = <T extends { weight: number }>(list: T[], random: Random): T => {
  let left = random.uniform() * list.reduce((sum, { weight }) => sum + weight, 0);
  for (const each of list) if ((left -= each.weight) <= 0) return each;
  return list[list.length - 1];
};

/** Variance of a difference once both arms took so many further turns, as a share of one run's. */
function unitAfter(
  { places, drift, factors, unit }: Explanation,
  a: number,
  b: number,
  counts: number[],
  more: number,
) {
  if (places === null || drift.name === "none") {
    const [before, after] = [0, more].map(
      (extra) => factors[a] ** 2 / (counts[0] + extra) + factors[b] ** 2 / (counts[1] + extra),
    );
    return (unit(a, b) * after) / before;
  }
  const last = Math.max(...places.flat());
  const later = places.map((own, arm) =>
    arm === a || arm === b
      ? [
          ...own,
          // A B, B A, A B …
          ...Array.from(
            { length: more },
            (_, turn) => last + 1 + 2 * turn + ((arm === a) === (turn % 2 === 0) ? 0 : 1),
          ),
        ]
      : own,
  );
  return unitOfDesign(later, drift, factors, a, b);
}

/** How sure the spread of one run is, as degrees of freedom: the log of an SD varies by about 1/2ν. */
function freedomOf(spreads: Explanation["spreads"]) {
  const logs = spreads.map(({ sd, weight }) => ({ at: Math.log(sd), weight }));
  const centre = logs.reduce((sum, { at, weight }) => sum + weight * at, 0);
  const variance = logs.reduce((sum, { at, weight }) => sum + weight * (at - centre) ** 2, 0);
  return Math.min(200, 1 / (2 * Math.max(1e-9, variance)));
}

/**
 * How many further runs a side should settle an undecided comparison, and with what chance.
 *
 * Explanation, spread and true difference are drawn from what is believed of them, further runs from those, and
 * the decision is made on all (posterior predictive): the estimate's own error is averaged over, not taken for
 * the truth.
 *
 * @returns the fewest that settle it in 90 % of the imagined afternoons, eight with their chance where none
 *   does; and every step up to there
 */
export function furtherRuns({
  fit,
  counts,
  a,
  b,
  unknown = 0,
  margin,
  least = 1,
  seed = 1,
}: Undecided): Step & { steps: Step[] } {
  const likely = fit.explanations.slice(0, mostExplanations).map((each) => {
    const freedom = freedomOf(each.spreads);
    const variance = Math.exp(each.spreads.reduce((sum, { sd, weight }) => sum + 2 * weight * Math.log(sd), 0));
    return { ...each, freedom, variance, effect: each.levels[b] - each.levels[a], now: each.unit(a, b) };
  });
  const chanceOf = (more: number) => {
    const random = seeded(seed + more);
    const later = new Map(likely.map((each) => [each, unitAfter(each, a, b, counts, more)]));
    const quantiles = new Map(likely.map((each) => [each, tQuantile(0.975, each.freedom + 2 * more - 1)]));
    let settled = 0;
    for (let k = 0; k < imagined; k++) {
      const each = drawn(likely, random);
      const { freedom, variance, effect, now } = each;
      const then = Math.min(later.get(each) ?? now, 0.999 * now);
      const spread = drawn(each.spreads, random).sd ** 2;
      const sure = usualEffect ** 2 / (usualEffect ** 2 + spread * now);
      const truth = sure * effect + Math.sqrt(sure * spread * now) * random.normal();
      // What the further runs tell by themselves.
      const fresh = 1 / (1 / then - 1 / now);
      const seen = truth + Math.sqrt(spread * fresh) * random.normal();
      const together = then * (effect / now + seen / fresh);
      const own = more > 1 ? spread * chiSquared(random, 2 * more - 2) : 0;
      const apart = (seen - effect) ** 2 / (now + fresh);
      const pooled = (variance * freedom + own + apart) / (freedom + 2 * more - 1);
      const half = (quantiles.get(each) ?? 2) * Math.sqrt(pooled * then) + unknown;
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
