import type PgBoss from "pg-boss";
import { QueryTypes } from "sequelize";
import * as data from "@/data";

/** Work that isn't done while somebody waits for it. */
export interface Work {
  "noise-floor": { rigId: string };
  "measure-anew": { batch: number };
  "land-decisions": { batch: number };
  "keep-holds": { batch: number };
  forget: Record<string, never>;
}

/** What does each kind of work. */
export type WorkHandlers = { [Name in keyof Work]: (input: Work[Name]) => Promise<void> };

/** Once a process, whatever is loaded twice: its worker, and what does the work. */
const kept = globalThis as {
  lampWork?: { boss: PgBoss; ready: Promise<void> };
  lampWorkHandlers?: WorkHandlers;
};

/** Names what does the work; `work.ts` does so when it is loaded. */
export function setWorkHandlers(handlers: WorkHandlers): void {
  kept.lampWorkHandlers = handlers;
}

/** This process's worker, once it was started. */
export const workerOfProcess = {
  get: () => kept.lampWork ?? null,
  set: (worker: { boss: PgBoss; ready: Promise<void> }) => {
    kept.lampWork = worker;
  },
};

/**
 * Sends statements by the transaction under way, so that work is queued when what asks for it is kept, and not
 * before.
 */
const sameTransaction = {
  executeSql: async (text: string, values: unknown[]) => ({
    rows: await data
      .database()
      .query<object>(text, { bind: (values ?? []).map((value) => value ?? null), type: QueryTypes.SELECT }),
  }),
};

/**
 * Puts work down to be done by whichever process is free. Where this process has no worker it is done on the
 * spot. One of a kind for one thing waits at a time; more would do the same again.
 */
export async function queueWork<Name extends keyof Work>(name: Name, input: Work[Name]): Promise<void> {
  if (!kept.lampWork) {
    if (!kept.lampWorkHandlers) throw new Error(`Nothing does the work ${name}: load server/work first.`);
    return kept.lampWorkHandlers[name](input);
  }
  await kept.lampWork.ready;
  await kept.lampWork.boss.send(name, input, {
    singletonKey: JSON.stringify(input),
    ...(data.isTransacting() ? { db: sameTransaction } : {}),
  });
}
