import { sameSettings, type Settings } from "@/core/kit";
import type { Grade } from "@/core/verdict";

/** What is known of a job's runs when its next step is asked for, oldest first. */
export interface StepRun {
  settings: Settings;
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

export interface NextStep {
  action: "baseline" | "repeat" | "rerun" | "trial" | "decide" | "change" | "confirm" | "close" | "closed";
  /** One sentence for the tuner, with the reason. */
  sentence: string;
}

/** Repeats of the same settings that give a spread of their own; with fewer it is borrowed from the rig. */
export const enoughRepeats = 3;

export interface StepInput {
  runs: StepRun[];
  /** Settings in force: what was kept so far. */
  inForce?: Settings;
  openTrial?: StepTrial | null;
  /** Sentence of the best suggestion, or of how to begin. */
  suggestion?: string | null;
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
  inForce,
  openTrial = null,
  suggestion = null,
  confirmed = false,
  decided = 0,
  closed = false,
}: StepInput): NextStep {
  if (closed) return { action: "closed", sentence: "The job is closed; its profile stands below." };
  const own = runs.filter(({ inTrial }) => !inTrial);
  const last = own.at(-1);
  if (!last && !openTrial)
    return { action: "baseline", sentence: "Record a baseline: the scene at its worst, settings as they are." };
  if (openTrial) {
    const [first, ...rest] = openTrial.left;
    if (first === undefined) return { action: "decide", sentence: `“${openTrial.name}” has its runs: decide.` };
    return {
      action: "trial",
      sentence: `“${openTrial.name}”: run ${first} next${rest.length > 0 ? `, then ${rest.slice(0, 3).join(", ")}${rest.length > 3 ? " …" : ""}` : ""}; ${openTrial.left.length} to go.`,
    };
  }
  if (decided > 0) {
    if (!confirmed)
      return {
        action: "confirm",
        sentence: "Run the scene once more with what was kept: that confirmation closes the job.",
      };
    if (last!.grade === "steady")
      return { action: "close", sentence: "Steady, and confirmed: close the job and keep its profile." };
    return suggestion
      ? { action: "change", sentence: suggestion }
      : {
          action: "close",
          sentence: "Confirmed, and nothing likely is left to try: close the job with what holds.",
        };
  }
  if (last!.crashed)
    return {
      action: "rerun",
      sentence: "The last run ended in a crash. Run it again to see whether it comes back.",
    };
  if (last!.coldCache)
    return {
      action: "rerun",
      sentence:
        "The last run compiled effects as it went. Run the same scene again with the cache warm before judging it.",
    };
  const settings = inForce ?? last!.settings;
  const same = runs.filter((run) => !run.crashed && !run.coldCache && sameSettings(run.settings, settings));
  const steady = same.at(-1)?.grade === "steady";
  if (same.length < enoughRepeats) {
    const left = enoughRepeats - same.length;
    return {
      action: "repeat",
      sentence: `Run the same settings ${left === 1 ? "once" : left === 2 ? "twice" : "three times"} more: ${same.length} of the ${enoughRepeats} repeats that show how much this rig varies by itself.`,
    };
  }
  if (steady)
    return {
      action: "confirm",
      sentence: `Steady over its repeats.${suggestion ? ` ${suggestion}` : " Confirm it on a harder scene, or try for a better picture."}`,
    };
  return {
    action: "change",
    sentence: suggestion ?? "The repeats are in. Change one setting, run the same scene, and compare.",
  };
}
