import { placesHeld, type StoryRun } from "@/core/job";
import { changesBetween, conditionWarnings } from "@/core/kit";
import { methodVersion, tallyFigures } from "@/core/metrics";
import type { ThreadRun } from "@/contract";
import { findTrace } from "@/data";

/** A run as a page gets it: without what only the core reads. */
export async function threadRun(run: StoryRun, before: StoryRun | null): Promise<ThreadRun> {
  const {
    rules,
    buildId: _build,
    rigRevisionId: _revision,
    driver: _driver,
    faults: _faults,
    summary,
    verdict,
    ...rest
  } = run;
  const { segments: _segments, scenes: _places, ...figures } = summary;
  const { scenes: _lights, ...light } = verdict;
  return {
    ...rest,
    summary: figures,
    verdict: light,
    places: placesHeld(verdict),
    changes: before ? changesBetween(before.settings, run.settings) : [],
    warnings: conditionWarnings(run.conditions, rules.requires),
    outdated: summary.version < methodVersion,
    tally: await tallyOf(run),
  };
}

/** Runs in their order, each with what changed since the one before. */
export const threadRuns = async (runs: StoryRun[]): Promise<ThreadRun[]> =>
  Promise.all(runs.map(async (run, index) => threadRun(run, runs[index - 1] ?? null)));

/** Figures of a hand tally with their uncertainty; null for any other run. */
async function tallyOf(run: Pick<StoryRun, "id" | "source" | "yardstick">): Promise<ThreadRun["tally"]> {
  if (run.source !== "tally") return null;
  const trace = await findTrace(run.id);
  return trace?.form === "interval" ? tallyFigures(trace, run.yardstick.targetFps) : null;
}
