/** What can hold a run back. */
export const causes = [
  "processor",
  "graphics",
  "power split",
  "governor",
  "heat",
  "memory",
  "shaders",
  "storage",
  "cap or sync",
  "engine or driver",
] as const;
export type Cause = (typeof causes)[number];

/** One sign: what it speaks for (or against, below 0), how strongly, and the words a person would use. */
export interface Evidence {
  cause: Cause;
  weight: number;
  words: string;
}

export const causeWords: Record<Cause, { name: string; lever: string }> = {
  processor: {
    name: "the processor",
    lever: "Fewer pixels won't help: lighten the emulated machine, or raise clocks.",
  },
  graphics: { name: "graphics", lever: "Lower the internal scale, or try another back end or driver." },
  "power split": {
    name: "the power split",
    lever: "Processor and graphics share one budget: try another power mode, also a lower one.",
  },
  governor: {
    name: "the governor",
    lever: "Clocks sit low without need: try the next clock option, with the cooling for it.",
  },
  heat: { name: "heat", lever: "Cool it, ask less of it, or measure what it sustains." },
  memory: { name: "memory", lever: "Close what else runs, or leave the title before the wall." },
  shaders: {
    name: "shaders compiled on first sight",
    lever: "Keep the cache, compile ahead, and judge by the second pass.",
  },
  storage: { name: "storage", lever: "Move the title to a faster drive." },
  "cap or sync": {
    name: "a cap, or waiting for the display",
    lever: "Lift the limit or the sync for one run and see.",
  },
  "engine or driver": { name: "the engine or its driver", lever: "Try another back end, driver or build." },
};
