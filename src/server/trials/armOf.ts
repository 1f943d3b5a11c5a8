import type { NewRun } from "@/core/kit";
import type { Arm } from "@/core/trial";
import * as data from "@/data";
import { Problem, notFound } from "@/server/problem";

/**
 * The arm that a run is of, its trial locked; null outside any. @throws Problem 404 where there is none, 409
 * where its trial is decided
 */
export async function armOf({
  trialId,
  arm,
  jobId,
}: Required<Pick<NewRun, "trialId" | "arm" | "jobId">>): Promise<Arm | null> {
  if (trialId === null || arm === null) return null;
  await data.lockRow("trials", trialId);
  const trial = await data.findTrial(trialId);
  const made = trial?.jobId === jobId ? trial.arms[arm] : undefined;
  if (!trial || !made) throw notFound("arm of a trial");
  if (trial.decidedAt)
    throw new Problem(409, "This trial is decided.", "Take its decision back to add a run to it.");
  return made;
}
