import type { Trace } from "@/core/trace";
import { said } from "./codes";
import type { Said } from "@/core/said";
import { comparePair, type Comparison } from "./compare";
import { fitAll, measureArms, type CompareOptions } from "./fitArms";
import { holm, type Decision } from "./decide";
import { comparable } from "./effective";

/** One pair of arms: `b` over `a`, by their places among the arms. */
export interface PairOutcome {
  a: number;
  b: number;
  comparison: Comparison;
  by: "frames" | "engine speed";
  /** p of the pair after Holm's correction for all pairs looked at. */
  p: number;
  /** The comparison's decision; a difference that doesn't outlast the correction is undecided. */
  decision: Decision;
}

export interface ArmsOutcome {
  pairs: PairOutcome[];
  /** Places of the arms that no other beats, best rate first; more than one is a tie. */
  best: number[];
  notes: Said[];
}

/** A difference stands when its corrected p is under this. */
const looksLevel = 0.05;

/**
 * Compares every pair of arms, all fitted together, with Holm's correction (1979) for looking more than once;
 * ties stay ties.
 *
 * @param arms two or more, each with a run at least
 * @param places where every run stood in the order, in the shape of `arms`; without them the order isn't
 *   known
 * @throws RangeError for fewer than two arms, or an arm without runs
 */
export function compareArms(
  arms: Trace[][],
  { nativeFps, places = null, ...options }: CompareOptions & { nativeFps: number; places?: number[][] | null },
): ArmsOutcome {
  if (arms.length < 2) throw new RangeError("a comparison needs two arms");
  if (arms.some((own) => own.length === 0)) throw new RangeError("each side needs a run");
  const sides = comparable(arms, nativeFps);
  const [firstArm] = arms;
  const rounds =
    options.rounds === true && arms.length === 2 && arms.every((own) => own.length === firstArm?.length);
  const measured = measureArms(sides.arms, places, { ...options, rounds });
  const fitted = fitAll(measured);
  const pairs: Omit<PairOutcome, "p" | "decision">[] = [];
  for (let a = 0; a < arms.length; a++)
    for (let b = a + 1; b < arms.length; b++)
      pairs.push({ a, b, by: sides.by, comparison: comparePair(measured, fitted, a, b, options) });
  const corrected = holm(pairs.map(({ comparison }) => comparison.p));
  const outcomes = pairs.map((pair, index): PairOutcome => {
    const { decision } = pair.comparison;
    const p = corrected[index] ?? 1;
    const stands = p < looksLevel || (decision !== "better" && decision !== "worse");
    return { ...pair, p, decision: stands || pairs.length === 1 ? decision : "undecided" };
  });
  const rate = (arm: number) => {
    const pair = outcomes.find(({ a, b }) => a === arm || b === arm);
    return pair ? (pair.a === arm ? pair.comparison.arms.a : pair.comparison.arms.b).averageFps : NaN;
  };
  const beaten = (arm: number) =>
    outcomes.some(
      ({ a, b, decision }) => (b === arm && decision === "worse") || (a === arm && decision === "better"),
    );
  const best = arms
    .map((_, arm) => arm)
    .filter((arm) => !beaten(arm))
    .sort((x, y) => rate(y) - rate(x));
  const notes = pairs.length > 1 ? [said("compare.manyPairs", { pairs: pairs.length })] : [];
  return { pairs: outcomes, best, notes };
}
