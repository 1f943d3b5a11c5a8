import { Room } from "@/data";
import { hungUp } from "@/server/problem";

/** One queue a process and a key, while anybody is in it; the framework may load this file more than once. */
const kept = globalThis as { lampQueues?: Map<string, { room: Room; asked: number }> };
const queues = (kept.lampQueues ??= new Map<string, { room: Room; asked: number }>());

/**
 * Does work on one thing after the other's is done: whoever waits for its turn holds no connection of the database's
 * pool, as it would while it waits for a row's lock.
 * @param key    what is worked on: a job's, trial's or run's id; null for work that nothing else waits for
 * @param signal gives the place in the queue up
 * @throws Problem 408 where it is aborted while waiting
 */
export async function oneByOne<T>(key: string | null, signal: AbortSignal, work: () => Promise<T>): Promise<T> {
  if (key === null) return work();
  const queue = queues.get(key) ?? { room: new Room(1), asked: 0 };
  queues.set(key, queue);
  queue.asked++;
  let leave = () => {};
  try {
    leave = await queue.room.enter(1, "", signal).catch(() => {
      throw hungUp();
    });
    return await work();
  } finally {
    leave();
    if (--queue.asked === 0) queues.delete(key);
  }
}
