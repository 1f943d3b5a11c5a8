import { effectWords } from "@/core/advise";
import { stillToRun } from "@/core/compare";
import { defaultsOf, isSweep, type Setting } from "@/core/kit";
import { inForce, type Decided, type Standing } from "@/core/profile";
import type { Summary } from "@/core/metrics";
import type { JobRow, RunRow, TrialNode, TrialRow } from "@/core/records";
import type { Verdict } from "@/core/verdict";
import { catalogueOf, listRuns, listTrials } from "@/data";
import { figuresOf, isColdRun } from "./runFigures";

/** A kept run with figures that are up to date. */
export interface StoryRun extends RunRow {
  summary: Summary;
  verdict: Verdict;
  cold: boolean;
}

/** A job as it happened: runs, trials, and what holds after the decisions. */
export interface Story {
  job: JobRow;
  runs: StoryRun[];
  trials: TrialNode[];
  catalogue: Setting[];
  base: Standing;
  decided: (Decided & { number: number; proof: string })[];
  standing: Standing;
}

/** Runs of a trial that count: whole ones, and cold or warm as it asks; a crash counts where a crash is an answer. */
export const usableIn = (trial: Pick<TrialRow, "id" | "kind" | "cold">, runs: StoryRun[]) =>
  runs.filter(
    (run) =>
      run.trialId === trial.id &&
      (!run.crashed || trial.kind === "memory" || trial.kind === "clocks" || trial.kind === "heat") &&
      (trial.kind !== "compare" || trial.cold || !run.cold),
  );

export function nodeOf(trial: TrialRow, runs: StoryRun[]): TrialNode {
  const usable = usableIn(trial, runs);
  const counts = trial.arms.map((_, arm) => usable.filter((run) => run.arm === arm).length);
  // A rate is decided by uncapped runs; its capped arms may be run to confirm, and needn't.
  const left =
    trial.kind === "rate"
      ? trial.arms.flatMap(({ level }, arm) => (level === null && counts[arm] === 0 ? [arm] : []))
      : stillToRun(
          trial.arms.length,
          trial.rounds,
          usable.map((run) => run.arm!),
        );
  return { ...trial, runs: counts, left: trial.decidedAt ? [] : left };
}

/** What proves a decision, in figures. */
function proofOf({ outcome, keptArm }: TrialRow): string {
  if (!outcome) return "";
  const pair = outcome.pairs.find(({ a, b }) => a === 0 && b === keptArm);
  return pair ? effectWords(pair) : outcome.headline;
}

/** @param segments whether the scenes of every run are wanted, as a trial's screen does */
export async function storyOf(job: JobRow, { segments = false } = {}): Promise<Story> {
  const [rows, trialRows, catalogue] = await Promise.all([
    listRuns(job.id, { segments }),
    listTrials(job.id),
    catalogueOf(job.engineId),
  ]);
  const runs: StoryRun[] = [];
  for (const row of rows) {
    const figures = await figuresOf(row);
    if (figures) runs.push({ ...row, ...figures, cold: isColdRun(row, figures.summary) });
  }
  const first = runs.find(({ trialId }) => trialId === null);
  const base: Standing = {
    settings: { ...defaultsOf(catalogue), ...first?.settings },
    conditions: {},
    buildId: null,
  };
  const decided = trialRows
    .filter((trial): trial is TrialRow & { decidedAt: Date } => trial.decidedAt !== null)
    .sort((a, b) => new Date(a.decidedAt).getTime() - new Date(b.decidedAt).getTime())
    .map((trial) => ({
      number: trial.number,
      proof: proofOf(trial),
      before: trial.before.settings,
      kept: trial.keptArm === null ? null : trial.arms[trial.keptArm],
      keys: isSweep(trial.kind) ? trial.plan.keys : [],
    }));
  return {
    job,
    runs,
    trials: trialRows.map((trial) => nodeOf(trial, runs)),
    catalogue,
    base,
    decided,
    standing: inForce(base, decided),
  };
}
