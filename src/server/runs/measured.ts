import { summarise, type Summary, type Yardstick } from "@/core/metrics";
import { judgedCapture } from "@/core/capture";
import type { CaptureFacts, Severity } from "@/core/kit";
import type { Trace } from "@/core/trace";
import { judge, type HouseRules, type Verdict } from "@/core/verdict";

/** A run's figures and verdict: the one place where a kept trace is measured and judged. */
export function measured(
  trace: Trace,
  {
    yardstick,
    rules,
    capture,
    ...trouble
  }: {
    yardstick: Yardstick;
    rules: HouseRules;
    crashed: boolean;
    faults: Severity[];
    capture?: CaptureFacts | null;
  },
): { summary: Summary; verdict: Verdict } {
  const summary = summarise(trace, yardstick, rules.measuring);
  const verdict = judge(summary, rules, trouble);
  if (!capture) return { summary, verdict };
  const judged = judgedCapture(summary, verdict, capture, yardstick.targetFps);
  return { summary: judged.summary, verdict: judged.verdict };
}
