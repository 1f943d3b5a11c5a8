import { QueryTypes } from "sequelize";
import { store } from "./models";

/** True when a seed was not added before; the caller adds it after claiming it here. */
export async function claimSeed(name: string): Promise<boolean> {
  const rows = await store().query(
    `insert into seeds (name) values ($1) on conflict do nothing returning name`,
    { bind: [name], type: QueryTypes.SELECT },
  );
  return rows.length > 0;
}
