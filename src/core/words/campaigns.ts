import type { ArmAnswer, CampaignAnswer, CellState, Share, TitleAnswer, VersionChange } from "@/core/campaign";
import { count, listed, share as percent, signed } from "./figures";

/* What a campaign comes to, in words. */

/** Of fewer than this an interval says nothing that a person could use. */
export const leastForInterval = 3;

/** Of one or two their count is all there is to say. @example shareWords({ hits: 20, of: 22, low: 0.72, high: 0.97 }) // → "20 of 22 (95 %: 72 % to 97 %)" */
export const shareWords = ({ hits, of, low, high }: Share): string =>
  of === 0
    ? "none judged yet"
    : of < leastForInterval
      ? `${hits} of ${of}`
      : `${hits} of ${of} (95 %: ${percent(low)} to ${percent(high)})`;

/** What a campaign's runs come to so far: who wins where, and what is left. */
export function campaignWords(answer: CampaignAnswer, names: string[], question: string): string[] {
  const titles = answer.titles.length;
  if (answer.outcomes.untested === titles) return ["No run yet: nothing can be said."];
  if (question === "what changed") return changeSentences(answer, names);
  if (question === "what it manages" || question === "which scale and mode")
    return answer.arms.map((arm, at) => holdsWords(arm, names[at] ?? ""));
  return winnerSentences(answer, names);
}

/** @example "Even: 3 of 4 titles judged are Steady (95 %: 30 % to 95 %); 2 are still to be run." */
function holdsWords({ shares, untested, notForIt }: ArmAnswer, name: string): string {
  const { hits, of } = shares.steady;
  const left = [
    untested > 0 ? `${count(untested, "title is", "titles are")} still to be run` : "",
    notForIt > 0 ? `${notForIt} ${notForIt === 1 ? "isn't" : "aren't"} for it` : "",
  ].filter(Boolean);
  const judged =
    of === 0
      ? `${name}: no title is judged yet`
      : `${name}: ${hits} of ${count(of, "title")} judged ${hits === 1 ? "is" : "are"} Steady${of < leastForInterval ? "" : ` (95 %: ${percent(shares.steady.low)} to ${percent(shares.steady.high)})`}`;
  return `${[judged, ...left].join("; ")}.`;
}

function winnerSentences({ titles, arms, outcomes }: CampaignAnswer, names: string[]): string[] {
  const winners = arms.flatMap(({ wins }, at) => (wins > 0 ? [{ name: names[at] ?? "", wins }] : []));
  const made: string[] = [];
  if (winners.length === 0) made.push(`No arm wins any of ${count(titles.length, "title")} so far.`);
  else
    made.push(
      `${listed(
        winners.sort((a, b) => b.wins - a.wins).map(({ name, wins }) => `${name} wins ${wins}`),
      )} of ${count(titles.length, "title")}.`,
    );
  const rest = [
    outcomes.tie > 0 ? `${count(outcomes.tie, "is a tie", "are ties")}` : "",
    outcomes.open > 0 ? `${count(outcomes.open, "can't be told yet", "can't be told yet")}` : "",
    outcomes.faults > 0 ? `in ${outcomes.faults} every arm that runs is held down by faults` : "",
    outcomes.dark > 0 ? `in ${outcomes.dark} nothing runs` : "",
    outcomes.untested > 0 ? `${count(outcomes.untested, "has", "have")} no run` : "",
  ].filter(Boolean);
  if (rest.length > 0) made.push(`${capitalised(rest.join(", "))}.`);
  const held = titles.filter(({ fasterButFaulted }) => fasterButFaulted.length > 0).length;
  if (held > 0)
    made.push(`In ${count(held, "title")} the fastest arm is held down by faults: they outweigh its speed.`);
  return made;
}

const capitalised = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

const changeNames: Record<VersionChange, [one: string, many: string]> = {
  better: ["is better", "are better"],
  worse: ["is worse", "are worse"],
  unchanged: ["is unchanged", "are unchanged"],
  fixed: ["is fixed", "are fixed"],
  "newly broken": ["is newly broken", "are newly broken"],
  open: ["can't be told yet", "can't be told yet"],
};

function changeSentences({ changes, titles }: CampaignAnswer, [before = "", after = ""]: string[]): string[] {
  if (!changes) return [];
  const parts = (Object.keys(changeNames) as VersionChange[]).flatMap((change) =>
    changes[change] > 0 ? [`${changes[change]} ${changeNames[change][changes[change] === 1 ? 0 : 1]}`] : [],
  );
  return [`From ${before} to ${after}, of ${count(titles.length, "title")}: ${listed(parts)}.`];
}

/** What a title's runs come to, short enough for a table. */
export function titleWords(title: TitleAnswer, names: string[], question: string): string {
  const name = (arm: number) => names[arm] ?? "";
  if (question === "what changed" && title.change) return changeWords(title, names);
  if (question === "which scale and mode")
    return title.firstSteady === null
      ? title.outcome === "untested"
        ? "no run yet"
        : "none holds so far"
      : `${name(title.firstSteady)} holds`;
  if (title.outcome === "untested") return "no run yet";
  if (title.outcome === "dark") return "none of them runs";
  if (title.outcome === "faults") return "faults outweigh every one";
  const held = title.fasterButFaulted.map(name);
  const faulted = held.length > 0 ? `; ${listed(held)} is faster, but faulted` : "";
  if (title.outcome === "winner") {
    const [best = 0] = title.best;
    return title.cells.filter(({ runs }) => runs > 0).length === 1
      ? `${name(best)} alone runs`
      : `${name(best)} wins${faulted}`;
  }
  if (title.outcome === "tie") return `no difference: ${listed(title.best.map(name))}${faulted}`;
  const ran = title.cells.flatMap(({ runs }, arm) => (runs > 0 ? [arm] : []));
  if (ran.length === 1) return `${name(ran[0] ?? 0)} alone was run`;
  return `not to be told yet: ${listed(title.best.map(name))}${faulted}`;
}

/** A title's change from one version to the next. */
function changeWords({ change, pairs }: TitleAnswer, names: string[]): string {
  const [pair] = pairs;
  const by =
    pair && (change === "better" || change === "worse")
      ? `, ${signed(pair.ratio)} (95 %: ${signed(pair.low)} to ${signed(pair.high)})`
      : "";
  const words: Record<VersionChange, string> = {
    better: "better",
    worse: "worse",
    unchanged: "unchanged",
    fixed: `fixed by ${names[1] ?? ""}`,
    "newly broken": `newly broken by ${names[1] ?? ""}`,
    open: "not to be told yet",
  };
  return `${words[change ?? "open"]}${by}`;
}

export const cellStateWords: Record<CellState, string> = {
  untested: "no run yet",
  sound: "",
  faulted: "held down by faults",
  dark: "won't start or never ran through",
  "not for it": "not for this engine",
};
