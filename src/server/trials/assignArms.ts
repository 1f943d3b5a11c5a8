import type { Body } from "@/contract";
import { nameInArm } from "@/core/trial";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { Problem, notFound } from "@/server/problem";
import { mended } from "@/server/runs/mended";
import { lockTrial } from "./lockTrial";
import { writing } from "@/server/writing";

/**
 * Gives runs of a trial other arms. Each takes over its new arm's settings, conditions and build, and its name where
 * that came from the arm; what the trial comes to is made anew.
 */
export async function assignArms(actor: Actor, id: string, { runs }: Body<"assignArms">): Promise<void> {
  return writing(actor, async (touch) => {
    const trial = await lockTrial(id);
    if (trial.decidedAt)
      throw new Problem(409, "This trial is decided.", "Take its decision back first: it rests on these runs.");
    const missing = runs.find(({ arm }) => trial.arms[arm] === undefined);
    if (missing)
      throw new Problem(422, "There is no such arm.", "Choose one of the trial's arms.", {
        runs: "No such arm.",
      });
    for (const { id: runId, arm } of runs) {
      const run = await data.findRun(runId);
      const made = trial.arms[arm];
      if (!run || !made || run.trialId !== id) throw notFound("run of this trial");
      if (run.arm === arm) continue;
      const from = run.arm === null ? undefined : trial.arms[run.arm];
      const said = {
        trialId: id,
        arm,
        settings: made.settings,
        conditions: { ...run.conditions, ...made.conditions },
        ...(made.buildId ? { buildId: made.buildId } : {}),
        label: nameInArm(run.label, trial.name, from?.name ?? "", made.name),
      };
      await data.putSaid(runId, said);
      await data.addEdit(runId, actor.name, [{ field: "arm", from: from?.name ?? null, to: made.name }]);
    }
    await mended(actor, await data.changesSoFar(), touch);
    touch({ kind: "trial", id }, { kind: "job", id: trial.jobId }, { kind: "jobs", id: trial.jobId });
  });
}
