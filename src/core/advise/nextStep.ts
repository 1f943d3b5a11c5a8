import type { Settings } from "@/core/kit";
import type { Grade } from "@/core/verdict";

/** What is known of a job's runs when its next step is asked for, oldest first. */
export interface StepRun {
  settings: Settings;
  grade: Grade | null;
  crashed: boolean;
  coldCache: boolean;
}

export interface NextStep {
  action: "baseline" | "repeat" | "rerun" | "change" | "confirm";
  /** One sentence for the tuner, with the reason. */
  sentence: string;
}

/** Repeats of the same settings that give a spread of their own; with fewer it is borrowed from the rig. */
export const enoughRepeats = 3;

const sameSettings = (a: Settings, b: Settings) => {
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...keys].every((key) => a[key] === b[key]);
};

/**
 * The one next thing to do in a job.
 *
 * @param runs the job's runs, oldest first; may be empty
 */
export function nextStep(runs: StepRun[]): NextStep {
  const last = runs.at(-1);
  if (!last) return { action: "baseline", sentence: "Record a baseline: the scene at its worst, settings as they are." };
  if (last.crashed) return { action: "rerun", sentence: "The last run ended in a crash. Run it again to see whether it comes back." };
  if (last.coldCache) return { action: "rerun", sentence: "The last run compiled effects as it went. Run the same scene again with the cache warm before judging it." };
  const repeats = runs.filter((run) => !run.crashed && !run.coldCache && sameSettings(run.settings, last.settings)).length;
  if (repeats < enoughRepeats) {
    const left = enoughRepeats - repeats;
    return { action: "repeat", sentence: `Run the same settings ${left === 1 ? "once" : "twice"} more: ${repeats} of the ${enoughRepeats} repeats that show how much this rig varies by itself.` };
  }
  if (last.grade === "steady") return { action: "confirm", sentence: "Steady over its repeats. Confirm it on a harder scene, or try for a better picture." };
  return { action: "change", sentence: "The repeats are in. Change one setting, run the same scene, and compare." };
}
