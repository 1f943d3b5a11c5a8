import { methodVersion, summarise, type Summary } from "@/core/metrics";
import type { RunRow } from "@/core/records";
import { judge, type Verdict } from "@/core/verdict";
import { findTrace, putSummary } from "@/data";

/** Figures and verdict of a kept run; those of an older method are made anew from the trace and kept. Null for a run without a trace. */
export async function figuresOf(
  run: Pick<
    RunRow,
    "id" | "summary" | "verdict" | "methodVersion" | "yardstick" | "rules" | "crashed" | "faults"
  >,
): Promise<{ summary: Summary; verdict: Verdict } | null> {
  if (run.summary && run.verdict && run.methodVersion === methodVersion)
    return { summary: run.summary, verdict: run.verdict };
  const trace = await findTrace(run.id);
  if (!trace) return null;
  const summary = summarise(trace, run.yardstick, run.rules.measuring);
  const verdict = judge(summary, run.rules, { crashed: run.crashed, faults: run.faults });
  await putSummary(run.id, summary, verdict);
  return { summary, verdict };
}

/** A run whose revisited scenes were mostly cold on the first visit, or that was said to be cold. */
export function isColdRun(run: Pick<RunRow, "cacheState">, summary: Pick<Summary, "coldScenes">): boolean {
  return (
    run.cacheState === "cold" ||
    (summary.coldScenes !== null && summary.coldScenes.cold * 2 > summary.coldScenes.revisited)
  );
}
