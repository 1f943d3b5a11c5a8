import type { Trace } from "@/core/trace";
import { said, type Said } from "@/core/words";
import { compare, type CompareOptions, type Comparison } from "./compare";
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
 * Compares every pair of arms, with Holm's correction (1979) for looking more than once; ties stay ties.
 *
 * @param arms two or more, each with a run at least
 * @throws RangeError for fewer than two arms
 */
export function compareArms(
  arms: Trace[][],
  { nativeFps, ...options }: CompareOptions & { nativeFps: number },
): ArmsOutcome {
  if (arms.length < 2) throw new RangeError("a comparison needs two arms");
  const pairs: Omit<PairOutcome, "p" | "decision">[] = [];
  const count = (arms.length * (arms.length - 1)) / 2;
  for (let a = 0; a < arms.length; a++) {
    for (let b = a + 1; b < arms.length; b++) {
      const done = pairs.length;
      const sides = comparable(arms[a], arms[b], nativeFps);
      const rounds = options.rounds === true && arms[a].length === arms[b].length && arms[a].length > 1;
      pairs.push({
        a,
        b,
        by: sides.by,
        comparison: compare(sides.a, sides.b, {
          ...options,
          rounds,
          onProgress: (share) => options.onProgress?.((done + share) / count),
        }),
      });
    }
  }
  const corrected = holm(pairs.map(({ comparison }) => comparison.p));
  const outcomes = pairs.map((pair, index): PairOutcome => {
    const { decision } = pair.comparison;
    const stands = corrected[index] < looksLevel || (decision !== "better" && decision !== "worse");
    return { ...pair, p: corrected[index], decision: stands || count === 1 ? decision : "undecided" };
  });
  const rate = (arm: number) => {
    // eslint-disable-next-line @typescript-eslint/no-non-null-assertion -- every arm stands in a pair
    const pair = outcomes.find(({ a, b }) => a === arm || b === arm)!;
    return (pair.a === arm ? pair.comparison.arms.a : pair.comparison.arms.b).averageFps;
  };
  const beaten = (arm: number) =>
    outcomes.some(
      ({ a, b, decision }) => (b === arm && decision === "worse") || (a === arm && decision === "better"),
    );
  const best = arms
    .map((_, arm) => arm)
    .filter((arm) => !beaten(arm))
    .sort((x, y) => rate(y) - rate(x));
  const notes = count > 1 ? [said("compare.manyPairs", { pairs: count })] : [];
  return { pairs: outcomes, best, notes };
}
