import { QueryTypes } from "sequelize";
import { store } from "./models";

/** Tables whose rows are edited, each raising its version. */
export type Edited =
  | "rigs"
  | "systems"
  | "titles"
  | "engines"
  | "house_rules"
  | "jobs"
  | "trials"
  | "runs"
  | "bench_state"
  | "campaigns";

/**
 * Locks a row until the transaction under way is over, so that what follows is decided on what is there.
 * @returns its version, or null when there is no such row
 */
export async function lockRow(table: Edited, id: string | number): Promise<number | null> {
  const rows = await store().query<{ version: number }>(
    `select version from ${table} where id = $1 for update`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows[0]?.version ?? null;
}
