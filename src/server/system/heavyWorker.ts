// A thread of the application's own: does one task at a time, and answers what came of it.
import { constants, setPriority } from "node:os";
import { move, transferableSymbol, valueSymbol } from "piscina";
import { handedOver, tasks, type Tasks } from "./heavyTasks";

// What answers people goes first. Here a thread has a priority of its own; elsewhere this would be the whole
// process's.
if (process.platform === "linux") setPriority(0, constants.priority.PRIORITY_BELOW_NORMAL);

/** A thread that has nothing to do tidies nothing up: after what is larger than this it is asked to, bytes. */
const largeBytes = 16 * 1024 * 1024;

export default function work({ name, input }: { name: keyof Tasks; input: unknown[] }): unknown {
  const before = process.memoryUsage().arrayBuffers;
  setImmediate(() => {
    if (Math.max(before, process.memoryUsage().arrayBuffers) > largeBytes) globalThis.gc?.();
  });
  const answer = (tasks[name] as (...all: unknown[]) => unknown)(...input);
  const memory = handedOver(answer);
  // Handed over as it lies: the type says one piece, the pool takes several.
  return memory.length === 0
    ? answer
    : move({ [transferableSymbol]: memory, [valueSymbol]: answer } as unknown as ArrayBuffer);
}
