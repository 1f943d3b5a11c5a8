import { expose } from "comlink";
import { compareArms, type ArmsOutcome, type NoiseFloor } from "@/core/compare";
import type { MeasuringRules, Yardstick } from "@/core/metrics";
import { unpackTrace, type Trace } from "@/core/trace";

/** What a comparison is made under. */
export interface ComparedUnder {
  yardstick: Yardstick;
  rules: MeasuringRules;
  marginPercent: number;
  noise: NoiseFloor;
  /** Where every run stood in the order, in the shape of the arms. */
  places: number[][];
}

const kept = new Map<string, Promise<Trace>>();

function fetched(runId: string): Promise<Trace> {
  const held =
    kept.get(runId) ??
    fetch(`/api/v1/runs/${runId}/trace`).then(async (response) => {
      if (!response.ok) throw new Error((await response.json()).title);
      return unpackTrace(new Uint8Array(await response.arrayBuffer())).trace;
    });
  kept.set(runId, held);
  held.catch(() => kept.delete(runId));
  return held;
}

const api = {
  /**
   * Compares every pair of arms.
   * @param arms ids of the runs of each
   */
  async compare(
    arms: string[][],
    { yardstick, rules, marginPercent, noise, places }: ComparedUnder,
  ): Promise<ArmsOutcome> {
    const traces = await Promise.all(arms.map((ids) => Promise.all(ids.map(fetched))));
    return compareArms(traces, {
      nativeFps: yardstick.nativeFps,
      targetFps: yardstick.targetFps,
      rules,
      marginPercent,
      noise,
      places,
    });
  },
};

export type RunComparer = typeof api;
expose(api);
