import type { Body, BenchView } from "@/contract";
import { conditionsOnBench, conditionWarnings, firstConditions, type Conditions } from "@/core/kit";
import type { RigRow } from "@/core/records";
import { words } from "@/core/words";
import {
  countGrowing,
  findRig,
  lastConditions,
  listHouseRules,
  listRigs,
  putBench,
  readBench,
  together,
} from "@/data";
import type { Actor } from "@/server/actor";
import { Problem, notFound } from "@/server/problem";
import { editing, writing } from "@/server/writing";

export async function viewBench(): Promise<BenchView> {
  const [state, rigs, houseRules, growing] = await Promise.all([
    readBench(),
    listRigs(),
    listHouseRules(),
    countGrowing(),
  ]);
  const rig = rigs.find(({ id }) => id === state.rigId) ?? rigs[0] ?? null;
  const kept = rig && rig.id === state.rigId ? state.conditions : null;
  const conditions = kept ?? (rig && firstConditions(rig.spec));
  const houseRulesId = state.houseRulesId ?? houseRules[0]?.id ?? null;
  const rules = houseRules.find(({ id }) => id === houseRulesId);
  return {
    version: state.version,
    rigs: rigs.map(({ id, name }) => ({ id, name })),
    rig,
    conditions,
    houseRules,
    houseRulesId,
    jobId: state.jobId,
    growing,
    warnings: conditions && rules ? conditionWarnings(conditions, rules.rules.requires).map(words) : [],
  };
}

/** The house rules of the bench, or the first there are. @throws Problem 409 where there are none */
export async function usualRules(): Promise<string> {
  const [{ houseRulesId }, [first]] = await together(readBench, listHouseRules);
  const id = houseRulesId ?? first?.id;
  if (id === undefined)
    throw new Problem(409, "There are no house rules.", "Add a set under Settings, House rules.");
  return id;
}

/** The one row of the bench. */
const theBench = 1;

/** Conditions that a rig is put on the bench with. */
export async function conditionsFor(rig: Pick<RigRow, "id" | "spec">): Promise<Conditions> {
  return conditionsOnBench(rig.spec, await lastConditions(rig.id));
}

/**
 * Puts a rig, a job, house rules or conditions on the bench. A rig that lay there before has the conditions that
 * it had then.
 */
export async function changeBench(
  actor: Actor,
  change: Body<"changeBench">,
  saw: number | null = null,
): Promise<BenchView> {
  await writing(actor, async (touch) => {
    await editing("bench_state", theBench, "bench", saw);
    const rig = change.rigId && !change.conditions ? await findRig(change.rigId) : null;
    if (change.rigId && !change.conditions && !rig) throw notFound("rig");
    await putBench({ ...change, ...(rig ? { conditions: await conditionsFor(rig) } : {}) });
    touch({ kind: "bench", id: "" });
  });
  return viewBench();
}
