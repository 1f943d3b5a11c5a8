import { grades, type Grade } from "@/core/verdict";
import { said, type LightChange } from "../../codes";
import type { Aim } from "@/core/kit";
import { settles } from "@/core/compare";
import type { Said } from "@/core/said";
import type { Judged } from "../../facts";
import type { Advised } from "../../kind";
import { lossesOf, outweighsRate } from "./losses";
import { usualGrade } from "../../outcome";
import type { Advice, ArmEvidence, PairEffect } from "../../shape";
import type { CompareReading } from "./shape";

/** Fewest runs from which "brighter in every run" counts. */
const runsForLight = 2;
/** Lights of titles at full speed: what parts them is pacing, which hardly varies from run to run. */
const smooth: Grade[] = ["steady", "flickers"];
/** Lights that hang on speed count where chance alone gives "brighter in every run" this rarely. */
const rarely = 0.05;
/** How many ways there are of choosing so many runs of all. @example waysOf(6, 3) // → 20 */
const waysOf = (all: number, chosen: number): number =>
  chosen === 0 ? 1 : (waysOf(all - 1, chosen - 1) * all) / chosen;

/** Whether every run of B shines brighter than every run of A, and equal arms would hardly do so. */
function brighter(a: Grade[], b: Grade[]): boolean {
  if (a.length < runsForLight || b.length < runsForLight) return false;
  const bySpeed = a.some((grade) => !smooth.includes(grade));
  if (bySpeed && 1 / waysOf(a.length + b.length, b.length) > rarely) return false;
  const rank = (grade: Grade) => grades.indexOf(grade);
  return Math.max(...b.map(rank)) < Math.min(...a.map(rank));
}

function lightsOf(a: ArmEvidence, b: ArmEvidence): LightChange {
  const of = ({ grades, between }: ArmEvidence) => between ?? usualGrade(grades);
  const [from, to] = [of(a), of(b)];
  return from === null || to === null || String(from) === String(to) ? null : [from, to];
}

const keep = (arm: number, sentence: Said): Advice => ({ choice: "keep", arm, sentence });
const putBack = (sentence: Said): Advice => ({ choice: "put back", arm: null, sentence });

/** Two arms: the new one against what was in force. */
function adviseOne(pair: PairEffect, before: ArmEvidence, after: ArmEvidence, aim: Aim): Advice {
  const { decision, barred: why = null, moreRunsPerSide, chanceSettled = 0 } = pair;
  const { steps = [{ more: moreRunsPerSide, chance: chanceSettled }] } = pair;
  const arm = after.name;
  const figures = { pair, lights: lightsOf(before, after) };
  if (after.faulted && !before.faulted) return putBack(said("compare.faultsOutweigh", figures));
  if (before.faulted && !after.faulted && decision !== "worse")
    return keep(1, said("compare.faultGone", { arm, ...figures }));
  if (decision === "better") {
    const losses = lossesOf(pair, figures.lights);
    if (!losses) return keep(1, said("compare.better", { arm, ...figures }));
    return outweighsRate(losses, pair, aim)
      ? putBack(said("compare.tooDear", { ...figures, losses, aim }))
      : keep(1, said("compare.atACost", { arm, ...figures, losses }));
  }
  if (decision === "worse") return putBack(said("compare.worse", figures));
  // Where the order explains the rate, it explains the lights.
  if (!why && brighter(before.grades, after.grades))
    return keep(1, said("compare.brighter", { arm, ...figures, same: decision === "no difference" }));
  if (decision === "no difference") return putBack(said("compare.noDifference", figures));
  if (!why && !settles(steps))
    return { ...putBack(said("compare.whichever", { ...figures, arm, steps })), either: true };
  return putBack(said("compare.undecided", { ...figures, why, steps }));
}

/**
 * What to do about a comparison: keep the arm that is better, else go back to what was in force.
 *
 * A fault can outweigh speed: an arm held down by faults is never advised. Where rates can't be told apart but
 * every run of the new arm shines brighter, that is what it is kept for.
 *
 * A faster arm that loses light, hitches or lows says so first, and is kept only where the job's aim allows it.
 *
 * @param arms evidence, arm 0 being what was in force
 * @throws RangeError where the pair of an arm with arm 0 is missing
 */
export function adviseComparison(
  { pairs, best }: Pick<CompareReading, "pairs" | "best">,
  arms: ArmEvidence[],
  aim: Aim = "speed",
): Advice {
  const against = (arm: number) => {
    const pair = pairs.find(({ a, b }) => a === 0 && b === arm);
    if (!pair) throw new RangeError(`arm ${arm} was not compared with what was in force`);
    return pair;
  };
  const [before, after] = arms;
  if (before && after && arms.length === 2) return adviseOne(against(1), before, after, aim);
  const nameOf = (arm: number) => arms[arm]?.name ?? "";
  const stay = nameOf(0);
  const isFaulted = (arm: number) => arms[arm]?.faulted === true;
  const sound = best.filter((arm) => !isFaulted(arm) || arms.every(({ faulted }) => faulted));
  const [first, ...ties] = sound;
  const kept = first === undefined ? undefined : arms[first];
  if (first === undefined || !kept || !before)
    return putBack(said("compare.heldByFaults", { fastest: best.map(nameOf), stay }));
  if (sound.includes(0))
    return putBack(
      ties.length === 0
        ? said("compare.stay", { stay })
        : said("compare.tieStay", { tied: sound.map(nameOf), stay }),
    );
  const figures = { arm: kept.name, over: stay, pair: against(first), lights: lightsOf(before, kept) };
  const losses = lossesOf(figures.pair, figures.lights);
  if (losses && outweighsRate(losses, figures.pair, aim))
    return putBack(said("compare.tooDear", { ...figures, losses, aim }));
  if (losses) return keep(first, said("compare.atACost", { ...figures, losses }));
  return keep(first, said("compare.keepOf", { ...figures, ties: ties.map(nameOf) }));
}

export function advise({ trial, usable, evidence, aim }: Judged, reading: CompareReading | null): Advised {
  if (!reading) {
    const missing = trial.arms
      .filter((_, arm) => !usable.some((run) => run.arm === arm))
      .map(({ name: arm }) => said("missing.arm", { arm, warm: !trial.cold }));
    return { ok: false, missing };
  }
  const { pairs, best, notes } = reading;
  const advice = adviseComparison(reading, evidence, aim);
  const shown = pairs.find(({ a, b }) => a === 0 && b === (advice.arm ?? 1)) ?? pairs[0];
  const headline = shown ? said("effect.pair", { pair: shown }) : advice.sentence;
  return { ok: true, outcome: { pairs, best, effects: [], advice, headline, notes } };
}
