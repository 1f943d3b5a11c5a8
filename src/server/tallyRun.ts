import { tallySchema } from "@/contract";
import { tallyTrace } from "@/core/metrics";
import type { Actor } from "./actor";
import { keepRun, type ImportedRun } from "./keepRun";

/** Keeps a hand tally as readings, each a look that counts like the others. */
export async function tallyRun(actor: Actor, input: unknown): Promise<ImportedRun> {
  const { run, readings } = tallySchema.parse(input);
  return keepRun(actor, { ...run, source: "tally" }, tallyTrace(readings));
}
