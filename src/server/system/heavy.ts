import type { Piscina } from "piscina";
import { Problem } from "@/server/problem";
import type { KeptTrace } from "@/core/trace";
import { buffersOf, tasks, type Tasks } from "./heavyTasks";

/**
 * One pool a process, put there by the application's own server: tests, scripts and the framework's build have
 * none.
 */
const kept = globalThis as { lampThreads?: Piscina };

/** Whatever takes longer than this is given up, ms. */
const deadlineMs = 60_000;

/**
 * Does something that takes long, away from the thread that answers others.
 * @param handed memory that is handed over with what is asked, and isn't the caller's any more
 * @throws Problem 503 after a minute; whatever the task throws, as an Error with its message
 */
export async function heavy<Name extends keyof Tasks>(
  name: Name,
  input: Parameters<Tasks[Name]>,
  handed: ArrayBuffer[] = [],
): Promise<ReturnType<Tasks[Name]>> {
  const pool = kept.lampThreads;
  if (!pool) return (tasks[name] as (...all: unknown[]) => ReturnType<Tasks[Name]>)(...input);
  try {
    return (await pool.run(
      { name, input },
      {
        signal: AbortSignal.timeout(deadlineMs),
        transferList: handed,
      },
    )) as ReturnType<Tasks[Name]>;
  } catch (error) {
    if ((error as Error).name !== "AbortError") throw error;
    throw new Problem(
      503,
      "This takes longer than a minute, and was given up.",
      "Nothing was kept. Cut the log into shorter runs, or try again when less is going on.",
    );
  }
}

/** A kept trace's figures and verdict. @param kept is handed over, and isn't the caller's any more */
export const measuredAside = async (
  kept: KeptTrace,
  run: Parameters<Tasks["measure"]>[1],
): Promise<ReturnType<Tasks["measure"]>> => heavy("measure", [kept, run], buffersOf(kept));
