import { Client } from "pg";
import { changesChannel, changesSince, type ChangeRow } from "@/data";

export { lastChange } from "@/data";

type Listener = (change: ChangeRow) => void;

/** One listening connection a process, whatever is loaded twice. */
const kept = globalThis as { lampListeners?: Set<Listener>; lampListening?: Client };

/** Milliseconds between tries to listen again. */
const againMs = 2000;

async function listen(listeners: Set<Listener>): Promise<void> {
  const client = new Client({ connectionString: process.env.DATABASE_URL, keepAlive: true });
  kept.lampListening = client;
  const again = () => {
    if (kept.lampListening !== client) return;
    delete kept.lampListening;
    void client.end().catch(() => {});
    setTimeout(() => {
      if (listeners.size > 0 && !kept.lampListening) void listen(listeners);
    }, againMs).unref();
  };
  client.on("error", again);
  client.on("end", again);
  client.on("notification", ({ payload }) => {
    const change = JSON.parse(payload ?? "{}") as ChangeRow;
    for (const listener of listeners) listener(change);
  });
  try {
    await client.connect();
    await client.query(`listen ${changesChannel}`);
  } catch {
    again();
  }
}

/**
 * Tells of every change from now on, made by any process on this database.
 * @param since id of the last change seen; what came after it is told first
 * @returns ends the watching
 */
export async function watchChanges(since: string | null, listener: Listener): Promise<() => void> {
  kept.lampListeners ??= new Set();
  const listeners = kept.lampListeners;
  listeners.add(listener);
  if (!kept.lampListening) await listen(listeners);
  if (since !== null && /^\d{1,18}$/.test(since))
    for (const change of await changesSince(since)) listener(change);
  return () => {
    listeners.delete(listener);
  };
}
