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

export async function putBench(changes: Partial<BenchRow>): Promise<void> {
  store();
  await BenchState.update(changes, { where: { id: 1 } });
}
