import { understand, type TrialFacts, type Understood } from "@/core/trial";
import { traceOf, unpackKept, type KeptTrace } from "@/core/trace";
import { doors, type DoorName } from "@/contract";
import { measured } from "./measured";

/** What is wrong with a body, at most so much of it. */
const mostIssues = 100;

/** What takes long and asks nothing of the store: done on a thread of its own where there is one. */
export const tasks = {
  /** A packed trace, held against its bounds. */
  unpack: unpackKept,
  /** A kept trace's figures and verdict. */
  measure: (kept: KeptTrace, run: Parameters<typeof measured>[1]) => measured(traceOf(kept), run),
  /** What a trial comes to. */
  understand: (facts: TrialFacts, kept: ReadonlyMap<string, KeptTrace>): Understood =>
    understand(facts, new Map([...kept].map(([id, each]) => [id, traceOf(each)]))),
  /** A body that holds much, by its door's schema; null where it is no JSON. */
  readBody: (bytes: Uint8Array, door: DoorName) => {
    let sent: unknown;
    try {
      sent = JSON.parse(new TextDecoder().decode(bytes));
    } catch {
      return null;
    }
    const read = doors[door].body?.safeParse(sent);
    return read?.success === false
      ? { ok: false as const, issues: read.error.issues.slice(0, mostIssues) }
      : { ok: true as const, body: read ? (read.data as unknown) : sent };
  },
};
export type Tasks = typeof tasks;

/** Memory that an answer hands over instead of copying it. */
export const handedOver = (answer: unknown): ArrayBuffer[] => {
  const parts = (answer as { kept?: KeptTrace } | null)?.kept?.parts ?? [];
  return [...new Set(parts.map(({ values }) => values.buffer))];
};
