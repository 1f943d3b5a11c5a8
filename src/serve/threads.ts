import { availableParallelism } from "node:os";
import { join } from "node:path";
import { Piscina } from "piscina";

/** Tasks that wait, at most: each holds what it is to work on. */
const mostWaiting = 64;
/** A thread that has nothing to do ends after this, ms. */
const idleMs = 60_000;

/** Starts this process's threads for what takes long. @param processes that share the machine */
export function startThreads(processes: number): void {
  (globalThis as { lampThreads?: Piscina }).lampThreads = new Piscina({
    filename: join(process.cwd(), "src", "server", "system", "heavyWorker.ts"),
    minThreads: 1,
    maxThreads: Math.max(1, Math.floor(availableParallelism() / processes)),
    idleTimeout: idleMs,
    maxQueue: mostWaiting,
  });
}
