import type { NextStep } from "./shape";
import type { Grade } from "@/core/verdict";
import { said } from "./codes";
import type { Said } from "@/core/said";

/** What is known of a job's runs when its next step is asked for, oldest first. */
export interface StepRun {
  /** Made under what holds in the job. */
  held: boolean;
  grade: Grade | null;
  crashed: boolean;
  coldCache: boolean;
  /** Made for a trial: it says what that trial needs, not what the job does. */
  inTrial?: boolean;
}

/** A trial that isn't decided yet. */
export interface StepTrial {
  name: string;
  /** Names of the arms still to run, in order. */
  left: string[];
}

export interface StepInput {
  runs: StepRun[];
  openTrial?: StepTrial | null;
  /** Sentence of the best suggestion, or of how to begin. */
  suggestion?: Said | null;
  /** Whether settings in force were run once more after the last decision. */
  confirmed?: boolean;
  decided?: number;
  closed?: boolean;
}

/**
 * The one next thing to do in a job.
 *
 * @param input the job's runs, oldest first (may be empty), what is in force, and the trial under way
 */
export function nextStep({
  runs,
  openTrial = null,
  suggestion = null,
  confirmed = false,
  decided = 0,
  closed = false,
}: StepInput): NextStep {
  if (closed) return { action: "closed", sentence: said("next.closed") };
  const own = runs.filter(({ inTrial }) => !inTrial);
  const last = own.at(-1);
  if (openTrial) {
    const { name: trial, left } = openTrial;
    const [first, ...rest] = left;
    if (first === undefined) return { action: "decide", sentence: said("next.decide", { trial }) };
    const figures = { trial, first, then: rest.slice(0, 3), left: left.length };
    return { action: "trial", sentence: said("next.trial", figures) };
  }
  if (decided > 0 && !confirmed)
    return {
      action: "confirm",
      sentence: runs.at(-1)?.grade === "dark" ? said("next.confirmDark") : said("next.confirm"),
    };
  if (!last) return { action: "baseline", sentence: said("next.baseline") };
  if (decided > 0) {
    if (last.grade === "steady") return { action: "close", sentence: said("next.closeSteady") };
    return suggestion
      ? { action: "change", sentence: suggestion }
      : { action: "close", sentence: said("next.closeAsIs") };
  }
  if (last.crashed) return { action: "rerun", sentence: said("next.crashed") };
  if (last.coldCache) return { action: "rerun", sentence: said("next.cold") };
  // Repeats are never asked for first: a trial's own pairs are the repeats that a floor is made of, and these
  // runs are its first ones of what holds.
  const same = runs.filter((run) => !run.crashed && !run.coldCache && run.held);
  if ((same.at(-1) ?? last).grade === "steady")
    return { action: "confirm", sentence: said("next.steady", { runs: same.length, suggestion }) };
  return { action: "change", sentence: suggestion ?? said("next.change") };
}
