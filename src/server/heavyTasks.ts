import { understand, type TrialFacts, type Understood } from "@/core/trial";
import { traceOf, unpackKept, type KeptTrace } from "@/core/trace";
import { measured } from "./measured";

/** What takes long and asks nothing of the store: done on a thread of its own where there is one. */
export const tasks = {
  /** A packed trace, held against its bounds. */
  unpack: unpackKept,
  /** A kept trace's figures and verdict. */
  measure: (kept: KeptTrace, run: Parameters<typeof measured>[1]) => measured(traceOf(kept), run),
  /** What a trial comes to. */
  understand: (facts: TrialFacts, kept: ReadonlyMap<string, KeptTrace>): Understood =>
    understand(facts, new Map([...kept].map(([id, each]) => [id, traceOf(each)]))),
};
export type Tasks = typeof tasks;

/** Memory that an answer hands over instead of copying it. */
export const handedOver = (answer: unknown): ArrayBuffer[] => {
  const parts = (answer as { kept?: KeptTrace } | null)?.kept?.parts ?? [];
  return [...new Set(parts.map(({ values }) => values.buffer))];
};
