import { mean } from "@/core/stats";
import { said } from "./codes";
import type { Said } from "@/core/said";
import type { MeasuredArms } from "./fitArms";
import { fitRuns, spreadOf, type Explanation, type RunsFit } from "./fitRuns";
import { anySpreads } from "./spreads";

/** Chance from which a drift is told of. */
const likely = 0.5;
/** Least rate that two runs differ by, as a variance of its log. */
const leastWithin = 1e-8;

const chanceOf = (explanations: Explanation[]) => explanations.reduce((sum, { weight }) => sum + weight, 0);
const driftedBy = (explanations: Explanation[]) =>
  explanations.reduce((sum, { weight, drifted }) => sum + weight * drifted, 0) / chanceOf(explanations);

/**
 * What the rig did by itself between the runs, where that is likelier than not: a step after a run, or a drift
 * from the first to the last; null where it isn't, or the order isn't known.
 */
export function likelyDrift({ arms, places }: MeasuredArms, fit: RunsFit): Said | null {
  if (places === null) return null;
  const drifting = fit.explanations.filter(({ drift }) => drift.name !== "none");
  if (drifting.length === 0 || chanceOf(drifting) < likely) return null;
  const afters = [
    ...new Set(drifting.flatMap(({ drift }) => (drift.after === undefined ? [] : [drift.after]))),
  ];
  for (const after of afters) {
    const stepped = drifting.filter(({ drift }) => drift.after === after);
    if (chanceOf(stepped) > likely) return said("compare.stepped", { after, size: driftedBy(stepped) });
  }
  const values = arms.map((arm) => arm.map((run) => run.values.averageFps ?? 0));
  const range = Math.max(...values.flat()) - Math.min(...values.flat());
  const within = Math.max(leastWithin, mean(arms.flat().map((run) => run.within.averageFps)));
  const alone = fitRuns(values, [], anySpreads(within, range));
  return said("compare.byOrder", {
    drift: driftedBy(drifting),
    spread: spreadOf(fit),
    alone: spreadOf(alone),
  });
}
