import { targetOf } from "@/core/verdict";
import type { JobRow, RunRow } from "@/core/records";
import type { Yardstick } from "@/core/metrics";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { measuredAside } from "@/server/system/heavy";
import { lockOpenJob } from "./lockJob";
import { queueNoise } from "@/server/trials/noise";
import { writing } from "@/server/writing";

type Title = Pick<JobRow, "nativeFps" | "tied" | "sceneFps">;

/**
 * Whether a run was judged by another rate of its title, or of a place it was in, or another tie to it, than the
 * title has now.
 */
export const isOtherwise = (
  { yardstick, verdict }: Pick<RunRow, "yardstick" | "verdict">,
  { nativeFps, tied, sceneFps }: Title,
): boolean =>
  yardstick.nativeFps !== nativeFps ||
  yardstick.tied !== tied ||
  (verdict?.scenes ?? []).some(({ label }) => yardstick.sceneFps?.[label] !== sceneFps?.[label]);

/**
 * A run's yardstick with what its title says now. A target that followed from the title follows; one that was
 * set stays.
 */
export function yardstickNow(
  { yardstick, rules }: Pick<RunRow, "yardstick" | "rules">,
  { nativeFps, tied, sceneFps }: Title,
): Yardstick {
  const followed = targetOf({ ...yardstick, targetFps: null, rules });
  const { sceneFps: _before, ...rest } = yardstick;
  return {
    ...rest,
    nativeFps,
    tied,
    ...(sceneFps && { sceneFps }),
    targetFps:
      yardstick.targetFps === followed
        ? targetOf({ nativeFps, tied, targetFps: null, rules })
        : yardstick.targetFps,
  };
}

/**
 * Judges a job's runs by what their title says now, where that was corrected after they were made.
 * @returns how many were measured anew
 */
export async function judgeAnew(actor: Actor, jobId: string): Promise<{ changed: number }> {
  return writing(actor, async (touch) => {
    const job = await lockOpenJob(jobId);
    const runs = (await data.listRuns(jobId)).filter((run) => isOtherwise(run, job));
    for (const run of runs) {
      const yardstick = yardstickNow(run, job);
      await data.putRules(run.id, run.rules, yardstick);
      const trace = await data.findKept(run.id);
      if (trace && run.summary)
        await data.putSummary(run.id, await measuredAside(trace, { ...run, yardstick }));
      if (run.trialId) touch({ kind: "trial", id: run.trialId });
    }
    touch({ kind: "job", id: jobId }, { kind: "jobs", id: jobId });
    if (runs.length > 0) await queueNoise(jobId);
    return { changed: runs.length };
  });
}
