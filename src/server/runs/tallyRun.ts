import type { Body } from "@/contract";
import { tallyTrace } from "@/core/metrics";
import type { Actor } from "@/server/actor";
import { keepRun, type ImportedRun } from "./keepRun";
import { Problem } from "@/server/problem";

/** Keeps a hand tally as readings, each a look that counts like the others. */
export async function tallyRun(actor: Actor, input: Body<"tallyRun">): Promise<ImportedRun> {
  const { run, readings, madeAt } = input;
  const seen = madeAt === undefined ? undefined : new Date(madeAt);
  if (seen && seen.getTime() > Date.now())
    throw new Problem(422, "It can't have been seen later than now.", "Give the day that it was seen.", {
      madeAt: "Later than now.",
    });
  return keepRun(actor, { ...run, source: "tally" }, tallyTrace(readings), seen);
}
