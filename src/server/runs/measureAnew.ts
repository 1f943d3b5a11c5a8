import * as data from "@/data";
import { theApplication } from "@/server/actor";
import { measuredAside } from "@/server/system/heavy";
import { writing } from "@/server/writing";

/** Runs measured in one go: few enough that nobody waits long for what it locks. */
const batchRuns = 10;

/**
 * Makes the figures of a batch of runs anew that an older method made.
 * @returns how many are left, and the rigs whose runs were among them
 */
export async function measureAnew(): Promise<{ left: number; rigs: string[] }> {
  return writing(theApplication, async (touch) => {
    const batch = await data.outdatedRuns(batchRuns);
    for (const { id, jobId } of batch) {
      const [run, trace] = await data.together(
        async () => data.findRunAlways(id),
        async () => data.findKept(id),
      );
      if (!run || !trace) continue;
      await data.putSummary(id, await measuredAside(trace, run));
      touch({ kind: "job", id: jobId });
    }
    touch({ kind: "work", id: "measure-anew" });
    return { left: await data.outdatedCount(), rigs: [...new Set(batch.map(({ rigId }) => rigId))] };
  });
}
