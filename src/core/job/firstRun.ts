import { kindOf } from "@/core/trial";
import type { TrialRow } from "@/core/records";
import { isUnder, underArm } from "./holds";
import type { Holding } from "./shape";
import type { Story, StoryRun } from "./story";
import { lastDecisionMs } from "./telling";

/** A run counts for a trial that is begun within so many hours of it: the rig is still as it was. */
const sittingHours = 12;

/**
 * The run that counts as the first of what is in force in a trial that begins now: the newest whole, warm one
 * outside any trial that was made under its first arm, since the last decision. Null where there is none.
 */
export function firstRunFor(
  { kind, arms, cold }: Pick<TrialRow, "kind" | "arms" | "cold">,
  { runs, trials, catalogue }: Pick<Story, "runs" | "trials" | "catalogue">,
  holds: Holding,
  now: Date,
): StoryRun | null {
  const [first] = arms;
  if (!kindOf(kind).takesBaseline || cold || first?.role !== "as it is") return null;
  const since = Math.max(lastDecisionMs({ trials }), now.getTime() - sittingHours * 3_600_000);
  const wanted = underArm(holds, first);
  const counts = (run: StoryRun) =>
    run.trialId === null &&
    !run.crashed &&
    !run.cold &&
    !run.fromMemory &&
    new Date(run.madeAt).getTime() >= since &&
    new Date(run.madeAt).getTime() <= now.getTime() &&
    isUnder(wanted, run, catalogue);
  return runs.filter(counts).at(-1) ?? null;
}
