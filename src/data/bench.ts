import { QueryTypes } from "sequelize";
import type { Conditions } from "@/core/kit";
import type { BenchRow } from "@/core/records";
import { BenchState, store } from "./models";

/** What is on the bench now; one row, shared by every window and process. */
export async function readBench(): Promise<BenchRow> {
  store();
  const row = await BenchState.findOne();
  return row
    ? row.get({ plain: true })
    : { version: 0, rigId: null, jobId: null, houseRulesId: null, conditions: null };
}

/** Changes what is on the bench; a rig's conditions are kept for when it lies there again. */
export async function putBench(changes: Partial<BenchRow>): Promise<void> {
  await BenchState.update(changes, { where: { id: 1 } });
  await store().query(
    `insert into bench_rigs (rig_id, conditions) select r.id, b.conditions from bench_state b join rigs r on r.id = b.rig_id
     where b.id = 1 and b.conditions is not null on conflict (rig_id) do update set conditions = excluded.conditions`,
  );
}

/** Puts down what a rig that isn't on the bench is to lie there with. */
export async function putConditionsOfRig(rigId: string, conditions: Conditions): Promise<void> {
  await store().query(
    `insert into bench_rigs (rig_id, conditions) values ($1, $2) on conflict (rig_id) do update set conditions = excluded.conditions`,
    { bind: [rigId, JSON.stringify(conditions)] },
  );
}

/** The conditions that a rig had on the bench last; null where it never lay there. */
export async function lastConditions(rigId: string): Promise<Conditions | null> {
  const [row] = await store().query<{ conditions: Conditions }>(
    `select conditions from bench_rigs where rig_id = $1`,
    { bind: [rigId], type: QueryTypes.SELECT },
  );
  return row?.conditions ?? null;
}
