import type { StandingPair } from "./shape";
import type { CampaignFacts, TitleFacts } from "./shape";
import { roundsDone } from "./slots";

/** Share of titles called different that may be so by chance. */
const level = 0.05;

/**
 * How the level is spent over looks: a title that is looked at after every round would else be called different
 * by chance more often. Look k of K gets k² of it, so that little is spent early (Lan & DeMets 1983, with a
 * spending of Bonferroni's kind).
 * @returns the share of the level that this look has, 0…1
 */
export function lookShare(look: number, looks: number): number {
  const all = (looks * (looks + 1) * (2 * looks + 1)) / 6;
  return look ** 2 / all;
}

/**
 * Step-up bound of Benjamini & Hochberg (1995).
 * @param p one of every family; null for those without one yet, which count as families all the same
 * @returns how many are selected, and the p up to which
 */
export function benjaminiHochberg(p: (number | null)[], q = level): { selected: number; bound: number } {
  const sorted = p.filter((each) => each !== null).sort((a, b) => a - b);
  for (let k = sorted.length; k > 0; k--) {
    const bound = (k * q) / p.length;
    if ((sorted[k - 1] ?? 1) <= bound) return { selected: k, bound };
  }
  return { selected: 0, bound: 0 };
}

/**
 * Corrects all pairs over titles: a title's smallest p enters the step-up of Benjamini & Hochberg, and inside
 * the titles it selects a pair stands up to the bound that selected it (Benjamini & Bogomolov 2014).
 * @returns pairs of every title, in their order; empty where there are none yet
 */
export function standingPairs(facts: CampaignFacts): StandingPair[][] {
  const looks = facts.rounds + facts.extraRounds;
  const compared = facts.titles.map((title) => spent(title, looks));
  const families = facts.titles.map((title, at) => {
    const own = compared[at] ?? [];
    return own.length > 0
      ? Math.min(...own.map(({ corrected }) => corrected))
      : hasPairs(title, facts)
        ? null
        : undefined;
  });
  const { bound } = benjaminiHochberg(families.filter((p) => p !== undefined));
  return compared.map((pairs) =>
    pairs.map((pair) => {
      const differs = pair.decision === "better" || pair.decision === "worse";
      return differs && pair.corrected > bound ? { ...pair, decision: "undecided" } : pair;
    }),
  );
}

function spent({ pairs, cells }: TitleFacts, looks: number): StandingPair[] {
  if (!pairs) return [];
  return pairs.map((pair) => {
    const look = Math.min(looks, Math.max(1, roundsDone(cells, [pair.a, pair.b])));
    return { ...pair, corrected: Math.min(1, pair.p / lookShare(look, looks)) };
  });
}

/** Whether a title has, or may yet have, two arms to compare: on one rig, and neither known not to run. */
function hasPairs({ cells }: TitleFacts, { arms }: CampaignFacts): boolean {
  const able = arms.filter((_, arm) => (cells[arm]?.lacks.length ?? 0) === 0);
  return able.some(({ rigId }, at) => able.slice(at + 1).some((other) => other.rigId === rigId));
}
