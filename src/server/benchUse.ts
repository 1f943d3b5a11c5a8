import { z } from "zod";
import { conditionsSchema, firstConditions } from "@/core/kit";
import type { BenchView } from "@/core/records";
import { findRig, listHouseRules, listRigs, putBench, readBench } from "@/data";
import { notFound } from "./problem";

export async function viewBench(): Promise<BenchView> {
  const [state, rigs, houseRules] = await Promise.all([readBench(), listRigs(), listHouseRules()]);
  const rig = rigs.find(({ id }) => id === state.rigId) ?? rigs[0] ?? null;
  return {
    rigs: rigs.map(({ id, name }) => ({ id, name })),
    rig,
    conditions:
      rig && (rig.id === state.rigId ? state.conditions : null)
        ? state.conditions
        : rig && firstConditions(rig.spec),
    houseRules,
    houseRulesId: state.houseRulesId ?? houseRules[0]?.id ?? null,
    jobId: state.jobId,
  };
}

export const benchChangeSchema = z.object({
  rigId: z.uuid().optional(),
  jobId: z.uuid().nullable().optional(),
  houseRulesId: z.uuid().optional(),
  conditions: conditionsSchema.optional(),
});

/** Puts a rig, a job, house rules or conditions on the bench. Another rig starts from its own first conditions. */
export async function changeBench(input: unknown): Promise<BenchView> {
  const change = benchChangeSchema.parse(input);
  if (change.rigId && !change.conditions) {
    const rig = await findRig(change.rigId);
    if (!rig) throw notFound("rig");
    await putBench({ ...change, conditions: firstConditions(rig.spec) });
  } else {
    await putBench(change);
  }
  return viewBench();
}
