import { crashRate } from "./crashes";

/** A ladder of clock options, from the makers' own upwards. */
export interface LadderPlan {
  /** In order; the first is as the maker ships it. */
  steps: string[];
  soakMinutes: number;
  limitC: number | null;
}

/** What a soak at one step showed. */
export interface LadderRun {
  step: number;
  minutes: number;
  crashed: boolean;
  artefacts: boolean;
  hottestC: number | null;
  throttled: boolean;
}

export type LadderNext =
  | { kind: "soak"; step: number; minutes: number; sentence: string }
  | { kind: "confirm"; step: number; minutes: number; sentence: string }
  | { kind: "done"; step: number | null; sentence: string };

export interface LadderState {
  /** Highest step whose soaks were all clean; null before the first. */
  lastClean: number | null;
  /** Why a step was given up. */
  failed: { step: number; why: string } | null;
  cleanMinutes: number;
  /** Crashes an hour that the clean minutes at the last clean step rule out, 95 %; null before any. */
  ruledOutPerHour: number | null;
  next: LadderNext;
}

/** Why a soak stops the climb, or null when it was clean. Heat counts at the limit, not near it. */
export function ladderStep(run: LadderRun, limitC: number | null): string | null {
  if (run.crashed) return "it crashed";
  if (run.artefacts) return "the picture broke up";
  if (limitC !== null && run.hottestC !== null && run.hottestC >= limitC)
    return `it reached ${run.hottestC.toFixed(0)} °C, the limit is ${limitC} °C`;
  if (run.throttled) return "heat took clocks back";
  return null;
}

/**
 * The next thing to do on a clock ladder: climb, soak, back off to the last clean step, confirm at twice the soak.
 *
 * Half-run soaks count for the minutes they lasted, so a ladder can be left and taken up days later.
 *
 * @param runs in the order they were made
 * @throws RangeError for a plan without steps or soak
 */
export function ladder({ steps, soakMinutes, limitC }: LadderPlan, runs: LadderRun[]): LadderState {
  if (steps.length === 0 || !(soakMinutes > 0)) throw new RangeError("a ladder needs steps and a soak");
  let failed: LadderState["failed"] = null;
  for (const run of runs) {
    const why = ladderStep(run, limitC);
    if (why && (!failed || run.step < failed.step)) failed = { step: run.step, why };
  }
  const cleanAt = (step: number) =>
    runs
      .filter((run) => run.step === step && !ladderStep(run, limitC))
      .reduce((sum, { minutes }) => sum + minutes, 0);
  const enough = (minutes: number, wanted: number) => minutes >= wanted - 0.05;
  let lastClean: number | null = null;
  for (let step = 0; step < (failed?.step ?? steps.length); step++) {
    if (!enough(cleanAt(step), soakMinutes)) break;
    lastClean = step;
  }
  const cleanMinutes = lastClean === null ? 0 : cleanAt(lastClean);
  const ruledOutPerHour = cleanMinutes > 0 ? crashRate(0, cleanMinutes / 60).ruledOutAbove : null;
  const upTo = lastClean === null ? 0 : lastClean + 1;
  const top = failed?.step ?? steps.length;
  const because = failed ? ` ${steps[failed.step]} is given up: ${failed.why}.` : "";
  let next: LadderNext;
  if (upTo < top) {
    const left = Math.max(0.1, soakMinutes - cleanAt(upTo));
    next = {
      kind: "soak",
      step: upTo,
      minutes: left,
      sentence: `Soak ${steps[upTo]} for ${minutesWords(left)}${cleanAt(upTo) > 0 ? " more" : ""}.${because} Stop at once on a crash, a broken picture${limitC === null ? "" : `, or ${limitC} °C`}.`,
    };
  } else if (lastClean === null) {
    next = {
      kind: "done",
      step: null,
      sentence: `Even ${steps[0]} isn't clean.${because} Look at cooling and supply before clocks.`,
    };
  } else if (!enough(cleanMinutes, 2 * soakMinutes)) {
    next = {
      kind: "confirm",
      step: lastClean,
      minutes: 2 * soakMinutes - cleanMinutes,
      sentence: `Back to ${steps[lastClean]}, the last clean step, and confirm it for ${minutesWords(2 * soakMinutes - cleanMinutes)} more, twice the soak in all.${because}`,
    };
  } else {
    next = {
      kind: "done",
      step: lastClean,
      sentence: `${steps[lastClean]} is confirmed: ${minutesWords(cleanMinutes)} clean, which rules out more than ${ruledOutPerHour!.toFixed(1)} crashes an hour (95 %) and nothing rarer.${because}`,
    };
  }
  return { lastClean, failed, cleanMinutes, ruledOutPerHour, next };
}

const minutesWords = (minutes: number) =>
  `${minutes % 1 < 0.05 || minutes % 1 > 0.95 ? minutes.toFixed(0) : minutes.toFixed(1)} min`;
