import { saying, type Said } from "@/core/said";

/** One thing in which a run is made otherwise than what holds in its job. */
export interface Differing {
  what:
    | "setting"
    | "powerMode"
    | "setUp"
    | "clocks"
    | "cooler"
    | "pluggedIn"
    | "docked"
    | "display"
    | "build"
    | "driver"
    | "targetFps";
  /** What a setting is called; empty for the others. */
  label: string;
  is: string | number | boolean | null;
  holds: string | number | boolean | null;
}

/** Sentences that this folder says, by their codes, with the figures in each; core/words puts them into words. */
export interface JobCodes {
  "holds.otherwise": { differing: Differing[] };
  "holds.bench": { set: Differing[] };
  "next.try": { suggestion: Said };
}

export const said = saying<JobCodes>();
