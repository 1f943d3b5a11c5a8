import { nextArmName } from "@/core/trial";
import type { JobView } from "@/contract";

/**
 * The one main button of a job, wherever it stands: what it is called, its key, and where it leads or what it
 * does.
 */
export interface MainAction {
  label: string;
  key: string;
  /** Where it leads; null where it does something on the job's own page. */
  path: string | null;
  does: "go" | "try" | "begin" | "close" | "reopen";
}

type Shown = Pick<JobView, "job" | "next" | "trials" | "suggestions" | "opening">;

/** The trial under way; null where every one is decided. */
export const openTrialOf = (trials: JobView["trials"]) =>
  trials.findLast(({ decidedAt }) => !decidedAt) ?? null;

/** Where the next run of a job is brought in: of the trial under way, its next arm. */
export function newRunPath({ job, trials }: Pick<Shown, "job" | "trials">): string {
  const open = openTrialOf(trials);
  const of = open && open.left.length > 0 ? `?trial=${open.id}&arm=${open.left[0]}` : "";
  return `/jobs/${job.id}/runs/new${of}`;
}

/** The next step as the button that takes it; the step's own sentence is its reason. */
export function mainActionOf({ job, next, trials, suggestions, opening }: Shown): MainAction {
  const go = (label: string, key: string, path: string): MainAction => ({ label, key, path, does: "go" });
  const bring = (what: string) => go(`Bring in ${what}`, "N", newRunPath({ job, trials }));
  const open = openTrialOf(trials);
  const [best] = suggestions;
  switch (next.action) {
    case "baseline":
      return bring("the baseline");
    case "rerun":
      return bring("the next run");
    case "confirm":
      return bring(trials.some(({ decidedAt }) => decidedAt) ? "the confirmation" : "a run");
    case "trial":
      return bring((open && nextArmName(open)) ?? "a run");
    case "decide":
      return go(`Decide “${open?.name ?? ""}”`, "V", `/jobs/${job.id}/trials/${open?.id ?? ""}`);
    case "close":
      return { label: "Close the job", key: "D", path: null, does: "close" };
    case "closed":
      return { label: "Open the job again", key: "", path: null, does: "reopen" };
    case "change":
      if (opening) return { label: "Begin as offered", key: "A", path: null, does: "begin" };
      if (best) return { label: `Try ${best.lever.label}`, key: "Y", path: null, does: "try" };
      return go("Plan a trial", "W", `/jobs/${job.id}/trials/new`);
  }
}
