import { QueryTypes } from "sequelize";
import { store } from "./models";

export interface KeptAnswer {
  door: string;
  digest: string;
  status: number;
  answer: unknown;
}

/**
 * Claims a key for the transaction under way; another that claims the same one waits until this is over.
 * @returns the answer kept under it, or null when it is new
 */
export async function claimKey(key: string, door: string, digest: string): Promise<KeptAnswer | null> {
  const made = await store().query(
    `insert into idempotency_keys (key, door, digest, status, answer) values ($1, $2, $3, 0, 'null') on conflict do nothing returning key`,
    { bind: [key, door, digest], type: QueryTypes.SELECT },
  );
  if (made.length > 0) return null;
  const rows = await store().query<KeptAnswer & object>(
    `select door, digest, status, answer from idempotency_keys where key = $1`,
    { bind: [key], type: QueryTypes.SELECT },
  );
  return rows[0] ?? null;
}

export async function keepAnswer(key: string, status: number, answer: unknown): Promise<void> {
  await store().query(`update idempotency_keys set status = $2, answer = $3::jsonb where key = $1`, {
    bind: [key, status, JSON.stringify(answer ?? null)],
  });
}
