import type { Sentences } from "./said";
import type { VerdictCodes } from "@/core/verdict";
import type { CaptureCodes } from "@/core/capture";
import type { KitCodes } from "@/core/kit";
import type { Grade, Reason, RuleName } from "@/core/verdict";
import { count } from "./figures";

export const gradeWords: Record<Grade, { name: string; meaning: string }> = {
  steady: { name: "Steady", meaning: "full speed, nothing to notice" },
  flickers: { name: "Flickers", meaning: "full speed on average, with visible hitches or dips" },
  dims: { name: "Dims", meaning: "noticeably under full speed, playable" },
  gutters: { name: "Gutters", meaning: "well under full speed" },
  dark: { name: "Dark", meaning: "won't start, crashes or can't be used" },
};

/** A run's light in words; null is a run too short to judge. */
export const lightWords = (grade: Grade | null) =>
  grade ? gradeWords[grade] : { name: "No light", meaning: "too short to judge" };

/** The lights that readings leave open, the brighter first; one where they agree. @example lightsWords("dims", ["gutters", "dims"]) // → "Dims or Gutters" */
export function lightsWords(grade: Grade | null, between?: [worse: Grade, better: Grade] | null): string {
  if (!between) return lightWords(grade).name;
  const [worse, better] = between;
  const order = Object.keys(gradeWords);
  const isNext = Math.abs(order.indexOf(worse) - order.indexOf(better)) === 1;
  return `${gradeWords[better].name} ${isNext ? "or" : "to"} ${gradeWords[worse].name}`;
}

/** What a person says of a light. @example overruledWords({ grade: "steady", reason: "playable to me", by: "Mara" }) // → "Steady to Mara: “playable to me”" */
export const overruledWords = ({ grade, reason, by }: { grade: Grade; reason: string; by: string }) =>
  `${gradeWords[grade].name} to ${by}: “${reason}”`;

/** How many places hold, with the interval of their share. @example placesWords({ hold: 18, of: 20, low: 0.7, high: 0.97 }) // → "18 of 20 places hold (95 %: 70 to 97 %)" */
export const placesWords = ({ hold, of, low, high }: { hold: number; of: number; low: number; high: number }) =>
  `${hold} of ${of} places hold (95 %: ${(100 * low).toFixed(0)} to ${(100 * high).toFixed(0)} %)`;

const names: Record<RuleName, { name: string; unit: string }> = {
  speedPercent: { name: "Speed", unit: " %" },
  reportedSpeedPercent: { name: "Speed by the engine's own report", unit: " %" },
  percentOfTarget: { name: "Average against the target rate", unit: " %" },
  fullSpeedTimePercent: { name: "Full-speed time", unit: " %" },
  hitchesPerMinute: { name: "Hitches", unit: "/min" },
  freezes: { name: "Freezes", unit: "" },
  alternation: { name: "Pacing: how far long and short frames take turns (−1 is always)", unit: "" },
  crash: { name: "Crashes", unit: "" },
  blockingFaults: { name: "Blocking faults", unit: "" },
  severeFaults: { name: "Severe faults", unit: "" },
  visibleFaults: { name: "Visible faults", unit: "" },
};

const mostAllowed: RuleName[] = [
  "hitchesPerMinute",
  "freezes",
  "crash",
  "blockingFaults",
  "severeFaults",
  "visibleFaults",
];

/** A reason in words with its figures. @example "Full-speed time 84.2 %; at least 90 % is wanted" */
export function reasonWords({ rule, value, limit, met, counted }: Reason): string {
  const { name, unit } = names[rule];
  if (value === null) return `${name}: can't be told from this log`;
  if (rule === "alternation" && !met)
    return `Pacing: long and short frames take turns (${figureOf(value)}, where −1 is always; at least ${figureOf(limit)} is wanted)`;
  const figure = (n: number) => `${Number.isInteger(n) ? figureOf(n) : figureOf(n, shortOf(n, limit))}${unit}`;
  const most = mostAllowed.includes(rule);
  // A rate from a few hitches in a short run is a guess at best: how many there were stands beside it.
  const of = counted && counted.count > 0 ? ` (${counted.count} in ${Math.round(counted.seconds)} s)` : "";
  if (met) return `${name} ${figure(value)}${of}, ${most ? "at most" : "at least"} ${figure(limit)}`;
  return `${name} ${figure(value)}${of}; ${most ? (limit === 0 ? "none is" : `at most ${figure(limit)} is`) : `at least ${figure(limit)} is`} ${most ? "allowed" : "wanted"}`;
}

/** A figure with a true minus. */
const figureOf = (n: number, text = String(Number.isInteger(n) ? n : Number(n.toFixed(2)))) =>
  n < 0 ? `−${text.replace(/^-/, "")}` : text;

/** Enough digits that a figure short of its limit doesn't read as the limit. */
function shortOf(value: number, limit: number): string {
  for (let digits = 1; digits < 4; digits++) {
    const text = value.toFixed(digits);
    if (Number(text) !== limit) return text;
  }
  return value.toFixed(4);
}

/** What a person should know beside a verdict, and the conditions that break house rules. */
export const verdictSentences = {
  "verdict.counterDisagrees": ({ fps, speedPercent }) =>
    `The counter disagrees: it shows ${fps.toFixed(1)} fps while the engine reports ${speedPercent.toFixed(1)} % speed. The picture repeats old frames.`,
  "verdict.tooFast": ({ speedPercent }) =>
    `It runs at ${speedPercent.toFixed(0)} % of its own speed: too fast. Check the limiter, and the title's own rate.`,
  "verdict.tooShort": ({ seconds, wanted }) =>
    `${seconds < 1 ? "Less than a second" : `${seconds.toFixed(1)} s`} is too short to judge: run ${wanted} s at least, better the whole scene.`,
  "verdict.tooFewReadings": ({ readings, wanted }) =>
    `${count(readings, "reading")} ${readings === 1 ? "is" : "are"} too few to judge: take ${wanted} at least.`,
  "verdict.justUnder": ({ slowestFps, wantedFps }) =>
    `Just under: its slowest second runs at ${slowestFps.toFixed(2)} fps, and ${wantedFps.toFixed(2)} would count as full speed.`,
  "capture.measured": ({ captureFps, low, high }) =>
    `Measured from a video of ${captureFps.toFixed(captureFps % 1 > 0.05 && captureFps % 1 < 0.95 ? 1 : 0)} pictures a second: the average lies between ${low.toFixed(2)} and ${high.toFixed(2)} fps, each frame time within ${(1000 / captureFps).toFixed(1)} ms.`,
  "capture.ceiling": ({ averageFps }) =>
    `Nearly every captured picture is new: at least about ${averageFps.toFixed(0)} fps, and no capture this slow can say more. Capture faster.`,
  "capture.unsure": ({ unsure, of }) =>
    `${count(unsure, "captured picture")} of ${of} could be new or repeated: too many to trust the rate.`,
  "capture.clock": ({ speed, low, high }) =>
    `By the title's own clock it ran at ${(100 * speed).toFixed(1)} % of its speed (${(100 * low).toFixed(1)} to ${(100 * high).toFixed(1)} %).`,
  "capture.counter": ({ shown, averageFps }) =>
    `The counter disagrees: it says ${shown.toFixed(1)} fps, the pictures ${averageFps.toFixed(1)}.`,
  "verdict.asWholeNumbersTell": () =>
    "Full speed as far as whole numbers tell: a counter without decimals may show a frame less than there is.",
  "verdict.straddles": ({ worse, better, low, high }) =>
    `${lightsWords(worse, [worse, better])}: these readings leave the speed open from ${low.toFixed(0)} to ${high.toFixed(0)} %.`,
  "verdict.spikes": ({ periodMs, extraMs, count: times }) =>
    `A spike comes back every ${periodMs < 950 ? `${periodMs.toFixed(0)} ms` : `${(periodMs / 1000).toFixed(1)} s`}: a frame ${extraMs.toFixed(extraMs < 10 ? 1 : 0)} ms longer than those around it, ${times} times. Something runs by a clock of its own: a program beside it, saving, sound, or the overlay.`,
  "verdict.fromReadings": () => "Judged from readings: hitches and pacing can't be seen in them.",
  "conditions.against": ({ condition, is }) => {
    const state = {
      pluggedIn: ["on battery", "plugged in"],
      docked: ["handheld", "docked"],
      cooler: ["no cooler", "cooler on"],
    }[condition];
    return `${state[Number(is)]}: house rules say ${state[Number(!is)]}`;
  },
} satisfies Partial<Sentences<VerdictCodes & CaptureCodes & KitCodes>>;
