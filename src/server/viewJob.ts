import { changesBetween, conditionWarnings } from "@/core/kit";
import { methodVersion, summarise, tallyFigures, type Summary } from "@/core/metrics";
import { nextStep } from "@/core/advise";
import type { JobView, RunRow, ThreadRun } from "@/core/records";
import { judge, type Verdict } from "@/core/verdict";
import { findJob, findTrace, listRuns, putSummary } from "@/data";
import { notFound } from "./problem";

/** Figures made by an older method are made anew from the trace and kept. */
async function upToDate(run: RunRow): Promise<{ summary: Summary; verdict: Verdict } | null> {
  if (run.summary && run.verdict && run.methodVersion === methodVersion) return { summary: run.summary, verdict: run.verdict };
  const trace = await findTrace(run.id);
  if (!trace) return null;
  const summary = summarise(trace, run.yardstick, run.rules.measuring);
  const verdict = judge(summary, run.rules, { crashed: run.crashed });
  await putSummary(run.id, summary, verdict);
  return { summary, verdict };
}

/** A run whose revisited scenes were mostly cold on the first visit, or that was said to be cold. */
function isColdRun(run: Pick<RunRow, "cacheState">, summary: Summary): boolean {
  return run.cacheState === "cold" || (summary.coldScenes !== null && summary.coldScenes.cold * 2 > summary.coldScenes.revisited);
}

export async function viewJob(id: string): Promise<JobView> {
  const job = await findJob(id);
  if (!job) throw notFound("job");
  const runs: ThreadRun[] = [];
  let before: RunRow | null = null;
  for (const row of await listRuns(id)) {
    const figures = await upToDate(row);
    if (!figures) continue;
    const { rules, methodVersion: _version, ...run } = row;
    runs.push({ ...run, ...figures, changes: before ? changesBetween(before.settings, row.settings) : [], warnings: conditionWarnings(row.conditions, rules.requires), tally: await tallyOf(row) });
    before = row;
  }
  const next = nextStep(runs.map((run) => ({ settings: run.settings, grade: run.verdict.grade, crashed: run.crashed, coldCache: isColdRun(run, run.summary) })));
  return { job, runs, next };
}

/** Figures of a hand tally with their uncertainty; null for any other run. */
async function tallyOf(run: Pick<RunRow, "id" | "source" | "yardstick">): Promise<ThreadRun["tally"]> {
  if (run.source !== "tally") return null;
  const trace = await findTrace(run.id);
  return trace?.form === "interval" ? tallyFigures([...trace.rates], run.yardstick.targetFps) : null;
}
