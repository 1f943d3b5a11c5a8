import type { Grade } from "@/core/verdict";
import { capital, count, listed } from "./figures";
import { lightWords } from "./verdict";

/* What a recipe says to somebody who repeats it elsewhere. */

/** What it comes to, by the run that confirmed it. */
export const comesToWords = (run: { grade: Grade | null; averageFps: number } | null): string =>
  run
    ? `${lightWords(run.grade).name}: ${lightWords(run.grade).meaning}; ${run.averageFps.toFixed(1)} fps on average.`
    : "What it comes to wasn't measured as a whole.";

/** Crashes with their exact interval; null without any running. */
export function crashWords(
  rate: {
    crashes: number;
    hours: number;
    perHour: number;
    low: number;
    high: number;
    ruledOutAbove: number;
  } | null,
): string {
  if (!rate) return "No running time yet.";
  const { crashes, hours, perHour, low, high, ruledOutAbove } = rate;
  const time = hours < 1 ? `${(hours * 60).toFixed(0)} min` : `${hours.toFixed(1)} h`;
  return crashes === 0
    ? `None in ${time}; more than ${ruledOutAbove.toFixed(1)} an hour is ruled out (95 %).`
    : `${crashes} in ${time}: ${perHour.toFixed(1)} an hour (95 %: ${low.toFixed(1)} to ${high.toFixed(1)}).`;
}

/**
 * Why this driver: what others came to with the same settings, power mode and clocks; null where nothing was
 * run with it.
 */
export function driverWords(
  driver: string,
  rates: { driver: string; runs: number; averageFps: number }[],
): string | null {
  const own = rates.find((each) => each.driver === driver);
  if (!own) return null;
  const others = rates.filter((each) => each !== own);
  const came = ({ driver: name, runs, averageFps }: (typeof rates)[number]) =>
    `driver ${name} ran it at ${averageFps.toFixed(1)} fps (${count(runs, "run")})`;
  return others.length === 0
    ? `${capital(came(own))}; no other driver was run with these settings, power mode and clocks.`
    : `${capital(came(own))}, ${listed(others.map(came))}, with the same settings, power mode and clocks; not in turn, so the day may count too.`;
}

const costNames = {
  picture: "picture",
  feel: "feel of the controls",
  heat: "heat",
  risk: "risk of faults",
} as const;

/** What a setting may cost, as its catalogue says; null for nothing. */
export function sideEffectWords(setting: {
  label: string;
  costs: Record<keyof typeof costNames, number>;
}): string | null {
  const felt = (Object.keys(costNames) as (keyof typeof costNames)[])
    .filter((key) => setting.costs[key] > 0)
    .map((key) =>
      `${costNames[key]} ${["", "a little", "noticeably", "much"][setting.costs[key]] ?? ""}`.trim(),
    );
  return felt.length === 0 ? null : `${setting.label} may cost: ${felt.join(", ")}.`;
}

const cautions = [
  "Follow the maker's limits for heat, power and charging; these figures don't replace them.",
  "Stop when a device gets too hot to hold, swells or smells, and have it looked at by qualified service.",
  "Local rules and the title's own licence apply to what you run and how.",
];
const clockCaution =
  "Clocks were changed: raising them can overheat or damage a device and may void its warranty. Go back at the first fault.";

/** What somebody has to mind; where clocks were changed, that first. */
export const cautionWords = (clocksChanged: boolean): string[] =>
  clocksChanged ? [clockCaution, ...cautions] : cautions;
