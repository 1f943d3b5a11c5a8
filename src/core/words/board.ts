import type { Interval } from "@/core/stats";
import type { Calibration, StartingPoint } from "@/core/predict";
import type { HowRunsWereMade } from "@/core/records";
import { leastForInterval } from "./campaigns";
import { count, listed, share, outOfTen } from "./figures";

/** How many of those run hold, with the interval of their share where there are enough; what wasn't run is said. */
export function boardShareWords({ low, high }: Interval, held: number, judged: number, titles: number): string {
  const left = titles > judged ? `, ${titles - judged} not run` : "";
  if (judged < leastForInterval) return `${held} of ${judged} ${held === 1 ? "holds" : "hold"}${left}`;
  return `${share(low)} to ${share(high)} hold (95 %)${left}`;
}

/** How sure a cell is. */
export const sureWords = ({ runs, confirmed }: { runs: number; confirmed: boolean }): string =>
  confirmed ? "confirmed" : count(runs, "run");

const sourceNames: Record<string, string> = {
  log: "logs",
  tally: "readings by eye",
  capture: "videos of the screen",
  simulated: "the simulated bench",
};

/** How runs were made: how many, from what, when. */
export function wayWords({ sources, paths, from, to }: HowRunsWereMade): string {
  if (sources.length === 0 || !from || !to) return "no run yet";
  const runs = sources.reduce((sum, each) => sum + each.runs, 0);
  const of = sources.map(({ source, runs: n }) => `${sourceNames[source] ?? source}: ${n}`);
  const day = (when: string) => new Date(when).toISOString().slice(0, 10);
  const when = day(from) === day(to) ? `on ${day(from)}` : `from ${day(from)} to ${day(to)}`;
  const path = paths.length > 0 ? `; captured by ${listed(paths.slice(0, 6))}` : "";
  return `${count(runs, "run")} (${of.join(", ")}) ${when}${path}`;
}

/** What a board comes to, as its first sentence. */
export const publishedWords = (steady: number, judged: number): string[] =>
  judged === 0 ? [] : [`${steady} of ${count(judged, "light")} ${steady === 1 ? "is" : "are"} Steady.`];

const modeOf = ({ powerMode, clocks }: StartingPoint) => [powerMode, clocks].filter(Boolean).join(", ");

/** Where to begin, said to be a prediction, with how often such were right. */
export function beginWords(
  suggestion: StartingPoint,
  { held, of }: Calibration,
): [begin: string, trust: string] {
  const mode = modeOf(suggestion);
  return [
    `Begin at ×${suggestion.scale}${mode ? ` in ${mode}` : ""}: a chance of ${outOfTen(suggestion.chance)} that it holds.`,
    `A prediction from other titles and rigs, nothing measured here; of ${count(of, "rate")} left out to try it, ${held} lay in their 90 % intervals.`,
  ];
}

/** A cell that wasn't run, as it is foreseen. */
export const foreseenWords = (suggestion: StartingPoint): string =>
  `×${suggestion.scale}: ${outOfTen(suggestion.chance)}`;

/** How far dotted cells can be trusted. */
export const calibrationWords = ({ held, of }: Calibration): string =>
  `Dotted cells with figures are predictions for titles run elsewhere: that this scale holds. Of ${count(of, "rate")} left out to try them, ${held} lay in their 90 % intervals.`;
