import { z } from "zod";
import type { HouseRulesRow, Rejudged } from "@/core/records";
import { summarise, type Summary } from "@/core/metrics";
import { houseRulesSchema, judge, type HouseRules, type Verdict } from "@/core/verdict";
import * as data from "@/data";
import { notFound } from "./problem";

const namedSchema = z.object({
  name: z.string().trim().min(1, "Give them a name.").max(80),
  rules: houseRulesSchema,
});

export async function viewHouseRules(id: string): Promise<HouseRulesRow> {
  const rules = (await data.listHouseRules()).find((row) => row.id === id);
  if (!rules) throw notFound("set of house rules");
  return rules;
}

export async function addHouseRules(input: unknown): Promise<string> {
  const { name, rules } = namedSchema.parse(input);
  return data.addHouseRules(name, rules, false);
}

/** Changes house rules for runs to come; runs made before keep theirs until they are judged anew. */
export async function changeHouseRules(id: string, input: unknown): Promise<void> {
  const { name, rules } = namedSchema.parse(input);
  if (!(await data.putHouseRules(id, name, rules))) throw notFound("set of house rules");
}

type Anew = Rejudged & { rules: HouseRules; summary: Summary; verdict: Verdict };

/** Every run under some house rules judged by given thresholds. Figures are made anew only where measuring itself differs. */
async function judgeAnew(id: string, rules: HouseRules): Promise<Anew[]> {
  const made: Anew[] = [];
  for (const run of await data.runsUnder(id)) {
    if (!run.summary || !run.verdict) continue;
    const sameMeasure = JSON.stringify(run.rules.measuring) === JSON.stringify(rules.measuring);
    const trace = sameMeasure ? null : await data.findTrace(run.id);
    const summary = trace ? summarise(trace, run.yardstick, rules.measuring) : run.summary;
    const verdict = judge(summary, rules, { crashed: run.crashed, faults: run.faults });
    made.push({
      runId: run.id,
      jobId: run.jobId,
      title: run.title,
      rig: run.rig,
      number: run.number,
      from: run.verdict.grade,
      to: verdict.grade,
      rules,
      summary,
      verdict,
    });
  }
  return made;
}

const rejudgeSchema = z.object({ rules: houseRulesSchema, apply: z.boolean() });

/** What judging old runs by these thresholds would change; done when `apply` is set. */
export async function rejudge(id: string, input: unknown): Promise<{ judged: number; changes: Rejudged[] }> {
  const { rules, apply } = rejudgeSchema.parse(input);
  await viewHouseRules(id);
  const anew = await judgeAnew(id, rules);
  if (apply) await data.putRejudged(anew.map(({ runId, ...run }) => ({ id: runId, ...run })));
  const changes = anew
    .filter(({ from, to }) => from !== to)
    .map(({ runId, jobId, title, rig, number, from, to }) => ({ runId, jobId, title, rig, number, from, to }));
  return { judged: anew.length, changes };
}
