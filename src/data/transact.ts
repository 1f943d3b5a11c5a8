import { AsyncLocalStorage } from "node:async_hooks";
import { Sequelize } from "sequelize";
import { database } from "./connection";

/** What Sequelize asks of a namespace: the transaction under way, found by every query made inside it. */
const under = new AsyncLocalStorage<Map<string, unknown>>();
Sequelize.useCLS({
  run: (work: (context: unknown) => unknown) =>
    under.run(new Map(under.getStore()), () => work(under.getStore())),
  bind: <F extends (...args: never[]) => unknown>(work: F) => AsyncLocalStorage.bind(work),
  get: (name: string) => under.getStore()?.get(name),
  set: (name: string, value: unknown) => under.getStore()?.set(name, value),
} as unknown as object);

/**
 * One transaction for everything that `work` does: all of it or nothing. Inside another it is part of that one.
 *
 * @example await transact(async () => { await addRun(…); await tell(…); })
 */
export function transact<T>(work: () => Promise<T>): Promise<T> {
  if (under.getStore()?.get("transaction")) return work();
  return database().transaction(() => work());
}

/** Whether a transaction is under way here. */
export const isTransacting = () => under.getStore()?.get("transaction") !== undefined;
