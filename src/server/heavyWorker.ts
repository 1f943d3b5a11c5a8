// A thread of the application's own: does one task at a time, and answers what came of it.
import { move, transferableSymbol, valueSymbol } from "piscina";
import { handedOver, tasks, type Tasks } from "./heavyTasks";

export default function work({ name, input }: { name: keyof Tasks; input: unknown[] }): unknown {
  const answer = (tasks[name] as (...all: unknown[]) => unknown)(...input);
  const memory = handedOver(answer);
  // Handed over as it lies: the type says one piece, the pool takes several.
  return memory.length === 0
    ? answer
    : move({ [transferableSymbol]: memory, [valueSymbol]: answer } as unknown as ArrayBuffer);
}
