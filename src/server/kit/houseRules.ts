import type { Body, Rejudged } from "@/contract";
import { isDeepStrictEqual } from "node:util";
import type { HouseRulesRow } from "@/core/records";
import type { Summary, Yardstick } from "@/core/metrics";
import { judge, yardstickUnder, type HouseRules, type Verdict } from "@/core/verdict";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { measuredAside } from "@/server/system/heavy";
import { notFound } from "@/server/problem";
import { queueWork } from "@/server/system/workQueue";
import { editing, writing } from "@/server/writing";

export async function viewHouseRules(id: string): Promise<HouseRulesRow> {
  const rules = (await data.listHouseRules()).find((row) => row.id === id);
  if (!rules) throw notFound("set of house rules");
  return rules;
}

export async function addHouseRules(actor: Actor, input: Body<"addHouseRules">): Promise<string> {
  const { name, rules } = input;
  return writing(actor, async (touch) => {
    touch({ kind: "kit", id: "house rules" });
    return data.addHouseRules(name, rules, false);
  });
}

/** Changes house rules for runs to come; runs made before keep theirs until they are judged anew. */
export async function changeHouseRules(
  actor: Actor,
  id: string,
  input: Body<"changeHouseRules">,
  saw: number | null = null,
): Promise<void> {
  const { name, rules } = input;
  return writing(actor, async (touch) => {
    await editing("house_rules", id, "set of house rules", saw);
    await data.putHouseRules(id, name, rules);
    touch({ kind: "kit", id: "house rules" }, { kind: "jobs", id: "" }, { kind: "bench", id: "" });
  });
}

interface Anew {
  run: data.JudgedRow;
  yardstick: Yardstick;
  summary: Summary;
  verdict: Verdict;
}

/**
 * A run judged by other rules. Its figures are made anew only where what is measured, or against what, differs.
 */
async function judgedBy(run: data.JudgedRow, rules: HouseRules): Promise<Anew> {
  const yardstick = yardstickUnder(run.yardstick, run.rules, rules);
  const isSame =
    isDeepStrictEqual(run.rules.measuring, rules.measuring) && isDeepStrictEqual(run.yardstick, yardstick);
  const trace = isSame ? null : await data.findKept(run.id);
  if (!trace) return { run, yardstick, summary: run.summary, verdict: judge(run.summary, rules, run) };
  return { run, yardstick, ...(await measuredAside(trace, { ...run, yardstick, rules })) };
}

/**
 * What judging old runs by these thresholds would change; done when `apply` is set. Runs of closed jobs stay as
 * they were closed, and are counted.
 */
export async function rejudge(
  actor: Actor,
  id: string,
  input: Body<"rejudge">,
): Promise<{ judged: number; closed: number; changes: Rejudged[] }> {
  const { rules, apply } = input;
  return writing(actor, async (touch) => {
    await viewHouseRules(id);
    const runs = await data.runsUnder(id);
    const open = runs.filter(({ closed }) => !closed);
    const changes: Rejudged[] = [];
    const rigs = new Set<string>();
    for (const run of open) {
      const { yardstick, summary, verdict } = await judgedBy(run, rules);
      const [from, to] = [run.verdict.grade, verdict.grade];
      const { id: runId, jobId, title, rig, number } = run;
      if (from !== to) changes.push({ runId, jobId, title, rig, number, from, to });
      if (!apply) continue;
      await data.putRules(runId, rules, yardstick);
      // Figures keep the version of the method that made them: an old one is still made anew in its turn.
      await data.putSummary(runId, { summary, verdict });
      touch({ kind: "job", id: jobId });
      rigs.add((await data.rigOfJob(jobId)) ?? "");
    }
    for (const rigId of rigs) if (rigId) await queueWork("noise-floor", { rigId });
    return { judged: open.length, closed: runs.length - open.length, changes };
  });
}
