import { summarise, type Summary, type Yardstick } from "@/core/metrics";
import type { Severity } from "@/core/kit";
import type { Trace } from "@/core/trace";
import { judge, type HouseRules, type Verdict } from "@/core/verdict";

/** A run's figures and verdict: the one place where a kept trace is measured and judged. */
export function measured(
  trace: Trace,
  {
    yardstick,
    rules,
    ...trouble
  }: { yardstick: Yardstick; rules: HouseRules; crashed: boolean; faults: Severity[] },
): { summary: Summary; verdict: Verdict } {
  const summary = summarise(trace, yardstick, rules.measuring);
  return { summary, verdict: judge(summary, rules, trouble) };
}
