import { saying } from "@/core/said";

/** A scale to try first, what it renders, what it costs, and the lines it is shown at. */
export interface ScaleSaid {
  scale: number;
  width: number;
  height: number;
  /** Pixels against those of ×1. */
  cost: number;
  lines: number;
}

/** Sentences that this folder says, by their codes, with the figures in each; core/words puts them into words. */
export interface ResolutionCodes {
  "scale.underAll": ScaleSaid;
  "scale.exact": ScaleSaid & { next: number | null };
  "scale.fills": ScaleSaid & { next: number | null };
  "scale.within": ScaleSaid & { useful: number; usefulCost: number };
}

export const said = saying<ResolutionCodes>();
