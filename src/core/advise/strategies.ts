import type { Strategy } from "@/core/kit";

/** Ways to begin; a job has one, and it can be changed on the way. */
export const strategyWords: Record<Strategy, { name: string; when: string }> = {
  climb: {
    name: "Climb",
    when: "From what is in force, one change at a time, keeping only what helps. Use it when the device is near: the profile stays short, and every override has its proof. It is the default.",
  },
  descend: {
    name: "Descend",
    when: "Everything at its fastest at once, then give quality back until it fails. Use it on a weak device, when the baseline is below half speed: one trial tells whether full speed can be had at all, before an afternoon is spent on single steps.",
  },
  screen: {
    name: "Screen",
    when: "Many switches, few runs: a design that sets all of them together, balanced so that each one's effect can be read off. Use it when five or more switches might matter and nothing says which; it finds the large main effects, not how switches act on one another.",
  },
};

/** Below this share of full speed descending is offered first, %. */
export const halfSpeed = 50;

export interface Opening {
  strategy: Strategy;
  sentence: string;
}

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
      sentence:
        strategy === "descend"
          ? "Begin with everything at its fastest: can full speed be had at all?"
          : `The baseline runs at ${speedPercent.toFixed(0)} %, below half speed: try everything at its fastest first, to see whether full speed can be had at all.`,
    };
  }
  if (strategy === "screen")
    return {
      strategy: "screen",
      sentence: "Begin with a screening design over the switches that might matter.",
    };
  return null;
}
