import type { Strategy } from "@/core/kit";

/** Ways to begin; a job has one, and it can be changed on the way. */
export const strategyWords: Record<Strategy, { name: string; when: string }> = {
  climb: {
    name: "One change at a time",
    when: "From what is in force, one change at a time, keeping only what helps. Use it when the device is near: the profile stays short, and every override has its proof. It is the default.",
  },
  descend: {
    name: "Fastest first",
    when: "Everything at its fastest at once, then give quality back until it fails. Use it on a weak device, when the baseline is below half speed: one trial tells whether full speed can be had at all, before an afternoon is spent on single steps.",
  },
  screen: {
    name: "Many at once",
    when: "Many switches, few runs: a design that sets all of them together, balanced so that each one's effect can be read off. Use it when five or more switches might matter and nothing says which; it finds what a switch does by itself when that is much, not how switches act on one another.",
  },
};
