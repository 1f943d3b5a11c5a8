import type { Body } from "@/contract";
import { isAgainst, type TrialOutcome } from "@/core/trial";
import type { BenchSet, TrialRow } from "@/core/records";
import { words } from "@/core/words";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { landDecision } from "@/server/profiles/landing";
import { setBenchToHolds } from "@/server/jobs/holds";
import { loadStory } from "@/server/jobs/loadStory";
import { Problem } from "@/server/problem";
import { lockTrial } from "./lockTrial";
import { loadTrial, understood } from "./trialFacts";
import { outcomeOr409 } from "./viewTrial";
import { editing, writing } from "@/server/writing";

/** What whoever decides second is told: what was decided, by which choice. */
function decidedAlready({ arms, choice, keptArm, reason, decidedAt }: TrialRow): Problem {
  const what = keptArm === null ? "everything was put back" : `${arms[keptArm]?.name} was kept`;
  return new Problem(
    409,
    `This trial is decided already: ${what}${reason === "" ? "" : ` (“${reason}”)`}.`,
    "Take the decision back first, if it should be another.",
    {},
    { decided: { choice, arm: keptArm, reason, decidedAt } },
  );
}

/**
 * Decides a trial: what it came to is worked out from its runs, and kept beside the choice; deciding against it
 * takes a reason.
 */
export async function decideTrial(
  actor: Actor,
  id: string,
  choice: Body<"decideTrial">,
  saw: number | null = null,
  decidedAt?: Date,
): Promise<{ outcome: TrialOutcome; bench: BenchSet | null }> {
  // What takes long is done, and kept, before anybody has to wait for the lock.
  const before = await loadTrial(id);
  if (!before.trial.decidedAt && !before.job.closedAt) await understood(id, before.facts);
  return writing(actor, async (touch) => {
    const trial = await lockTrial(id);
    if (trial.decidedAt) throw decidedAlready(trial);
    await editing("trials", id, "trial", saw);
    if (choice.arm !== null && choice.arm >= trial.arms.length)
      throw new Problem(422, "There is no such arm.", "Choose one of the trial's arms.", {
        arm: "There is no such arm.",
      });
    const outcome = outcomeOr409(await understood(id, (await loadTrial(id)).facts));
    if (isAgainst(choice, outcome.advice) && choice.reason === "")
      throw new Problem(
        422,
        `The runs say otherwise: ${words(outcome.advice.sentence)}`,
        "Deciding against it is yours to do: say why, and it is kept with the decision.",
        { reason: "Say why." },
      );
    await data.putDecision(id, { ...choice, outcome, by: actor.name, decidedAt });
    await landDecision(actor, trial.jobId, id);
    touch(
      { kind: "profile", id: "" },
      { kind: "trial", id },
      { kind: "job", id: trial.jobId },
      { kind: "jobs", id: trial.jobId },
    );
    return { outcome, bench: await setBench(trial, touch) };
  });
}

/** Sets the bench to what holds after a decision, or after one was taken back. */
async function setBench(trial: TrialRow, touch: (topic: data.Topic) => void): Promise<BenchSet | null> {
  const job = await data.findJob(trial.jobId);
  const set = job && (await setBenchToHolds(job, await loadStory(job), trial));
  if (set) touch({ kind: "bench", id: "" });
  return set;
}

/** Takes a decision back; what the other decisions come to holds again, on the bench too. */
export async function undecideTrial(
  actor: Actor,
  id: string,
  saw: number | null = null,
): Promise<{ bench: BenchSet | null }> {
  return writing(actor, async (touch) => {
    const trial = await lockTrial(id);
    if (!trial.decidedAt) throw new Problem(409, "This trial isn't decided.", "There is nothing to take back.");
    await editing("trials", id, "trial", saw);
    await data.putDecision(id, null);
    await landDecision(actor, trial.jobId, id);
    touch(
      { kind: "profile", id: "" },
      { kind: "trial", id },
      { kind: "job", id: trial.jobId },
      { kind: "jobs", id: trial.jobId },
    );
    return { bench: await setBench(trial, touch) };
  });
}
