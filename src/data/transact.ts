import { AsyncLocalStorage } from "node:async_hooks";
import { Sequelize, Transaction } from "sequelize";
import { store } from "./models";
import { Room } from "./room";

/**
 * One of them a process: the framework may load this file more than once, and all of them have to see one
 * transaction.
 */
const kept = globalThis as { lampTransactions?: AsyncLocalStorage<Map<string, unknown>>; lampWriters?: Room };
/** What Sequelize asks of a namespace: the transaction under way, found by every query made inside it. */
const under = (kept.lampTransactions ??= new AsyncLocalStorage<Map<string, unknown>>());
// No hook of a page: Sequelize calls its namespaces so.
// eslint-disable-next-line react-hooks/rules-of-hooks
Sequelize.useCLS({
  run: (work: (context: unknown) => unknown) =>
    under.run(new Map(under.getStore()), () => work(under.getStore())),
  bind: <F extends (...args: never[]) => unknown>(work: F) => AsyncLocalStorage.bind(work),
  get: (name: string) => under.getStore()?.get(name),
  set: (name: string, value: unknown) => under.getStore()?.set(name, value),
});

/**
 * Transactions that write at once, a process, at most. Each holds a connection, also while it waits for a lock: the
 * others of the pool (`connection.ts`) stay free for pages.
 */
const mostWriters = 5;
const writers = (kept.lampWriters ??= new Room(mostWriters));

/**
 * One transaction for everything that `work` does: all of it or nothing. Inside another it is part of that one.
 * Waits, without a connection, while many others write.
 *
 * @example await transact(async () => { await addRun(…); await tell(…); })
 */
export async function transact<T>(work: () => Promise<T>): Promise<T> {
  if (under.getStore()?.get("transaction")) return work();
  const leave = await writers.enter(1, "");
  try {
    return await store().transaction(async () => work());
  } finally {
    leave();
  }
}

/**
 * Everything that `work` reads as it stood at one moment, however many questions it asks. Inside a transaction
 * it is part of that one.
 */
export async function atOneMoment<T>(work: () => Promise<T>): Promise<T> {
  if (isTransacting()) return work();
  const isolationLevel = Transaction.ISOLATION_LEVELS.REPEATABLE_READ;
  return store().transaction({ isolationLevel }, async () => work());
}

/** Whether a transaction is under way here. */
export const isTransacting = () => under.getStore()?.get("transaction") !== undefined;

/**
 * Several questions at once. Inside a transaction they share one connection, and are asked one after the other.
 * @example const [job, runs] = await together(() => findJob(id), () => listRuns(id));
 */
export async function together<Asked extends (() => Promise<unknown>)[]>(
  ...asked: Asked
): Promise<{ [K in keyof Asked]: Awaited<ReturnType<Asked[K]>> }> {
  const answers: unknown[] = [];
  if (isTransacting()) for (const ask of asked) answers.push(await ask());
  else answers.push(...(await Promise.all(asked.map(async (ask) => ask()))));
  return answers as { [K in keyof Asked]: Awaited<ReturnType<Asked[K]>> };
}
