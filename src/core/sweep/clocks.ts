import type { LadderNext, LadderState } from "./shape";
import { said } from "./codes";
import type { SoakFault } from "./shape";
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

/** What stops the climb in a soak, or null when it was clean. Heat counts at the limit, not near it. */
export function ladderStep(run: LadderRun, limitC: number | null): SoakFault | null {
  if (run.crashed) return { why: "crashed" };
  if (run.artefacts) return { why: "artefacts" };
  if (limitC !== null && run.hottestC !== null && run.hottestC >= limitC)
    return { why: "limit", celsius: run.hottestC, limitC };
  return run.throttled ? { why: "throttled" } : null;
}

/**
 * The next thing to do on a clock ladder: climb, soak, back off to the last clean step, confirm at twice the
 * soak.
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
    const fault = ladderStep(run, limitC);
    if (fault && (!failed || run.step < failed.step)) failed = { step: run.step, fault };
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
  const gaveUp = failed && { step: steps[failed.step], fault: failed.fault };
  let next: LadderNext;
  if (upTo < top) {
    const before = cleanAt(upTo);
    const left = Math.max(0.1, soakMinutes - before);
    const figures = { step: steps[upTo], minutes: left, more: before > 0, failed: gaveUp, limitC };
    next = { kind: "soak", step: upTo, minutes: left, sentence: said("clocks.soak", figures) };
  } else if (lastClean === null) {
    next = {
      kind: "done",
      step: null,
      sentence: said("clocks.notClean", { step: steps[0], failed: gaveUp }),
    };
  } else if (!enough(cleanMinutes, 2 * soakMinutes)) {
    const left = 2 * soakMinutes - cleanMinutes;
    const figures = { step: steps[lastClean], minutes: left, failed: gaveUp };
    next = { kind: "confirm", step: lastClean, minutes: left, sentence: said("clocks.confirm", figures) };
  } else {
    const figures = {
      step: steps[lastClean],
      minutes: cleanMinutes,
      // eslint-disable-next-line @typescript-eslint/no-non-null-assertion -- clean minutes rule something out
      perHour: ruledOutPerHour!,
      failed: gaveUp,
    };
    next = { kind: "done", step: lastClean, sentence: said("clocks.confirmed", figures) };
  }
  return { lastClean, failed, cleanMinutes, ruledOutPerHour, next };
}
