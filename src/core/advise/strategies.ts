import type { Opening } from "./shape";
import type { Strategy } from "@/core/kit";
import { said } from "./codes";

/** Below this share of full speed descending is offered first, %. */
export const halfSpeed = 50;

/**
 * How to begin after the baseline, where something other than the job's own strategy is worth offering first.
 * @param speedPercent of the baseline
 * @param trials begun so far
 */
export function openingFor(strategy: Strategy, speedPercent: number, trials: number): Opening | null {
  if (trials > 0) return null;
  if (strategy === "descend" || (strategy === "climb" && speedPercent < halfSpeed)) {
    return {
      strategy: "descend",
      sentence: strategy === "descend" ? said("opening.fastest") : said("opening.weak", { speedPercent }),
    };
  }
  if (strategy === "screen")
    return {
      strategy: "screen",
      sentence: said("opening.screen"),
    };
  return null;
}
