import type { Output } from "@/contract";
import { doneMigrations, migrations } from "@/data";

/** As package.json says it; a test holds it to that. */
export const ownVersion = "0.1.0";

type Health = Output<"viewHealth">;

/**
 * A database that doesn't answer within this, ms, doesn't answer: whoever asks for health waits for no
 * connection.
 */
const patienceMs = 1_000;

/**
 * Whether this process and its database answer, and which versions they are of.
 * @param told false for whoever may not read here: neither versions nor process are said then
 */
export async function viewHealth(told = true): Promise<Health> {
  const done = await Promise.race([
    doneMigrations().catch(() => null),
    new Promise<null>((resolve) => setTimeout(() => resolve(null), patienceMs).unref()),
  ]);
  const ready = done === migrations.length;
  return {
    application: "velvet-lamp",
    version: told ? ownVersion : "",
    live: true,
    ready,
    database: done !== null,
    migrations: told ? { done: done ?? 0, known: migrations.length } : { done: 0, known: 0 },
    process: told ? process.pid : 0,
  };
}
