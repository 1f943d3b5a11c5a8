import { runChangeSchema } from "@/contract";
import * as data from "@/data";
import type { Actor } from "./actor";
import { lockOpenJob } from "./lockJob";
import { queueNoise } from "./noise";
import { Problem, notFound } from "./problem";
import { editing, writing } from "./writing";

/** Renames a run, leaves it out, or takes it back. */
export async function changeRun(
  actor: Actor,
  id: string,
  input: unknown,
  saw: number | null = null,
): Promise<void> {
  const { label, deleted } = runChangeSchema.parse(input);
  return writing(actor, async (touch) => {
    const place = await data.placeOfRun(id);
    if (!place) throw notFound("run");
    await lockOpenJob(place.jobId);
    await editing("runs", id, "run", saw);
    if (deleted === false && place.trialDeleted)
      throw new Problem(409, "The trial of this run is left out.", "Take the trial back in first.");
    if (label !== undefined) await data.putLabel(id, label);
    if (deleted !== undefined && deleted !== place.deleted) {
      await data.setDeleted(id, deleted);
      await queueNoise(place.jobId);
    }
    touch({ kind: "job", id: place.jobId }, { kind: "jobs", id: place.jobId });
    if (place.trialId) touch({ kind: "trial", id: place.trialId });
  });
}
