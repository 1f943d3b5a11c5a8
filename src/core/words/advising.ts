import type { Sentences } from "./said";
import type { AdviseCodes, ProposedChange } from "@/core/advise";
import type { WordsCodes } from "./codes";
import type { JobCodes } from "@/core/job";
import { valueWords } from "@/core/kit";
import { armWords, count, gain, listed, lower, outOfTen, share } from "./figures";

const change = ({ label, from, to }: ProposedChange) =>
  `${label} ${from === null ? "" : `${valueWords(from)} → `}${valueWords(to)}`;
const past = ({ tried, helped }: Pick<ProposedChange, "tried" | "helped">) =>
  tried > 0 ? ` On this rig it helped in ${helped} of ${tried} ${tried === 1 ? "trial" : "trials"}.` : "";
const pixels = (ratio: number) =>
  ratio < 1
    ? `${(100 * (1 - ratio)).toFixed(0)} % fewer pixels`
    : `${(100 * (ratio - 1)).toFixed(0)} % more pixels`;

/** What to try, how to begin, and what to do next. */
export const advisingSentences = {
  "suggest.speed": (of, words) =>
    `${change(of)}:${of.pixelRatio === null ? "" : ` asks ${pixels(of.pixelRatio)};`} about ${gain(of.logGain)} when it helps, a ${share(of.chance)} chance.${of.because ? ` ${words(of.because)}` : of.relieves === false ? " Nothing measured points to it, and nobody said what it relieves: only a trial tells." : " Nothing measured points to it; what it is said to relieve does."}${of.since ? ` It didn't help before, but ${of.since} was kept since.` : ""}${past(of)}`,
  "suggest.several": (of) =>
    `${listed(of.parts)} at once, each at its fastest: a ${share(of.chance)} chance to help. It tells whether settings help together that don't help alone, and whether there is anything to win.${past(of)}`,
  "suggest.room": (of) =>
    `${change(of)}: steady at ${of.speedPercent.toFixed(0)} % leaves room to ${of.aim === "picture" ? "give picture back" : "spend fewer watts"}${of.pixelRatio === null ? "" : `; it asks ${pixels(of.pixelRatio)}`}.${past(of)}`,
  "caution.heat": () =>
    "Keep to the maker's limits; a fan and a heat sink stay on, fingers and dust away from the fan.",
  "caution.limit": () =>
    "Stop at the temperature limit. Expect crashes and lost saves, and know that it can void a warranty.",
  "caution.cool": ({ celsius }) =>
    `The last run reached ${celsius.toFixed(0)} °C. Let the device cool before the next, and keep to the maker's limit.`,
  "opening.fastest": () => "Begin with everything at its fastest: can full speed be had at all?",
  "opening.weak": ({ speedPercent }) =>
    `The baseline runs at ${speedPercent.toFixed(0)} %, below half speed: try everything at its fastest first, to see whether full speed can be had at all.`,
  "opening.screen": () => "Begin with a screening design over the switches that might matter.",
  "next.closed": () => "The job is closed; its profile stands below.",
  "next.baseline": () => "Record a baseline: the scene at its worst, settings as they are.",
  "next.decide": ({ trial }) => `“${trial}” has its runs: decide.`,
  "next.trial": ({ trial, first, then, left }) =>
    `“${trial}”: run ${armWords(first)} next${then.length > 0 ? `, then ${then.map(armWords).join(", ")}${left > 1 + then.length ? " …" : ""}` : ""}; ${left} to go.`,
  "next.confirm": () => "Run the scene once more with what was kept: that confirmation closes the job.",
  "next.confirmDark": () =>
    "The last run ended Dark. Run the scene once more with what was kept: only a run that holds confirms it.",
  "next.closeSteady": () => "Steady, and confirmed: close the job and keep its profile.",
  "next.closeAsIs": () => "Confirmed, and nothing likely is left to try: close the job with what holds.",
  "next.outOfReach": ({ missing, trials, tied }) =>
    `${gain(missing)} is missing, and ${trials === 0 ? "there is nothing to change" : `after ${count(trials, "trial")} nothing is left to change that could give it`}: full speed can't be reached this way. ${tied ? "Try another engine or build, or close the job with what holds." : "Lock a lower rate that holds, lower the target, or try another engine."}`,
  "next.unlikely": ({ missing, chance, levers, suggestion }, words) =>
    `Full speed is unlikely: ${gain(missing)} is missing, and ${count(levers, "change")} left to try ${levers === 1 ? "has" : "have"} a chance of about ${outOfTen(chance)} to give it.${suggestion ? ` What would tell: ${lower(words(suggestion))}` : ""}`,
  "next.crashed": () => "The last run ended in a crash. Run it again to see whether it comes back.",
  "next.cold": () =>
    "The last run compiled effects as it went. Run the same scene again with the cache warm before judging it.",
  "next.steady": ({ runs, suggestion }, words) =>
    `Steady${runs > 1 ? ` over ${runs} runs` : ""}. ${suggestion ? words(suggestion) : "Confirm it on a harder scene, or try for a better picture."}`,
  "next.change": () =>
    "Change one setting, run the same scene, and compare. One run each way shows a large difference; a small one takes two or three.",
  "next.try": ({ suggestion }, words) => `Try ${lower(words(suggestion))}`,
} satisfies Partial<Sentences<AdviseCodes & WordsCodes & JobCodes>>;
