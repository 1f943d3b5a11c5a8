import { expose } from "comlink";
import { comparable, compare, noiseFloor, type Comparison, type NoiseFloor } from "@/core/compare";
import type { MeasuringRules, Yardstick } from "@/core/metrics";
import { unpackTrace, type Trace } from "@/core/trace";

export interface ComparedRuns {
  comparison: Comparison;
  by: "frames" | "engine speed";
  /** The floor that was reckoned with; null where the usual 2 % was assumed. */
  floor: NoiseFloor | null;
}

async function fetched(runId: string): Promise<Trace> {
  const response = await fetch(`/api/v1/runs/${runId}/trace`);
  if (!response.ok) throw new Error((await response.json()).title);
  return unpackTrace(new Uint8Array(await response.arrayBuffer())).trace;
}

const api = {
  /**
   * Compares two arms of runs, B over A.
   * @param repeats average rates of the job's repeats, a group a setting: the rig's noise floor, where there are enough
   */
  async compare(a: string[], b: string[], yardstick: Yardstick, rules: MeasuringRules, marginPercent: number, repeats: number[][], onProgress: (share: number) => void): Promise<ComparedRuns> {
    const [tracesA, tracesB] = await Promise.all([a, b].map((ids) => Promise.all(ids.map(fetched))));
    const arms = comparable(tracesA, tracesB, yardstick.nativeFps);
    const measured = noiseFloor(repeats);
    const floor = measured && measured.freedom >= 4 ? measured : null;
    const comparison = compare(arms.a, arms.b, { targetFps: yardstick.targetFps, rules, marginPercent, ...(floor ? { noise: floor } : {}), onProgress });
    return { comparison, by: arms.by, floor };
  },
};

export type RunComparer = typeof api;
expose(api);
