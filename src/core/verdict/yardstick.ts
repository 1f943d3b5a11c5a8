import { displayIn, first, type RigSpec } from "@/core/kit";
import type { Yardstick } from "@/core/metrics";
import type { HouseRules } from "./rulesSchema";

interface Measured {
  nativeFps: number;
  tied: boolean;
  /** As the job sets it; null for what the house rules or the title say. */
  targetFps: number | null;
  rules: Pick<HouseRules, "freeTargetFps">;
  /** The title's own rate in scenes where it is another. */
  sceneFps?: Record<string, number> | null;
}

/**
 * Rate that a job's runs are judged against, fps: the job's own, else the house rules' for a title free of its
 * rate, else the title's.
 */
export const targetOf = ({ nativeFps, tied, targetFps, rules }: Measured) =>
  targetFps ?? (tied ? null : rules.freeTargetFps) ?? nativeFps;

/** What a run of a job on a rig is measured against; the refresh is that of the display in use. */
export function yardstickOf(job: Measured, spec: Pick<RigSpec, "displays">, display: string | null): Yardstick {
  return {
    nativeFps: job.nativeFps,
    tied: job.tied,
    targetFps: targetOf(job),
    refreshHz: first(displayIn(spec, display).refreshHz),
    ...(job.sceneFps && { sceneFps: job.sceneFps }),
  };
}

/**
 * The yardstick of a run under other rules. A target that came from the rules it was made under follows the new
 * ones; one that the job or a decision set stays.
 */
export function yardstickUnder(
  yardstick: Yardstick,
  before: Pick<HouseRules, "freeTargetFps">,
  after: Pick<HouseRules, "freeTargetFps">,
): Yardstick {
  const { nativeFps, tied, targetFps } = yardstick;
  const byRules = (rules: Pick<HouseRules, "freeTargetFps">) =>
    targetOf({ nativeFps, tied, targetFps: null, rules });
  return targetFps === byRules(before) ? { ...yardstick, targetFps: byRules(after) } : yardstick;
}
