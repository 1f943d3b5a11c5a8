import { medianOf } from "@/core/stats";
import { durationOf, sliceTrace, type FrameTrace, type Trace } from "@/core/trace";
import { hitches } from "./hitches";
import { defaultMeasuring, type MeasuringRules } from "./rules";

/** One visit to a marked scene. */
export interface Pass {
  startMs: number;
  endMs: number;
  hitches: number;
  lostMs: number;
}

/**
 * Visits to one scene in their order; `coldCache` when the first lost at least three times what later ones did.
 */
export interface WarmUp {
  label: string;
  passes: Pass[];
  coldCache: boolean;
}

/** Losses below this are a stray frame, not a compile; in ms. */
const leastLossMs = 30;

/**
 * First visits against later ones, scene by scene. Scenes visited once say nothing and are left out.
 * @param trace with marks; readings of a counter give an empty list
 */
export function warmUp(trace: Trace, rules: MeasuringRules = defaultMeasuring): WarmUp[] {
  if (trace.form !== "frames") return [];
  const found = hitches(trace.frameTimes, rules);
  const byLabel = new Map<string, Pass[]>();
  for (const { label, startMs, endMs } of trace.marks) {
    const within = found.filter((hitch) => hitch.startMs >= startMs - 1e-6 && hitch.startMs < endMs);
    const pass = {
      startMs,
      endMs,
      hitches: within.length,
      lostMs: within.reduce((sum, hitch) => sum + hitch.lostMs, 0),
    };
    byLabel.set(label, [...(byLabel.get(label) ?? []), pass]);
  }
  return [...byLabel]
    .filter(([, passes]) => passes.length > 1)
    .map(([label, passes]) => ({ label, passes, coldCache: isCold(passes.map(({ lostMs }) => lostMs)) }));
}

/** First pass of a scene or a run against the median of later ones. @param lostMs per pass, length ≥ 2 */
export function isCold(lostMs: number[]): boolean {
  return lostMs[0] >= leastLossMs && lostMs[0] >= 3 * medianOf(lostMs.slice(1));
}

/** Visits to marked scenes as traces of their own, with the number of the visit from 1. */
export function passesOf(trace: FrameTrace): { label: string; pass: number; trace: FrameTrace }[] {
  const seen = new Map<string, number>();
  return trace.marks
    .map(({ label, startMs, endMs }) => {
      const pass = (seen.get(label) ?? 0) + 1;
      seen.set(label, pass);
      return { label, pass, trace: sliceTrace(trace, startMs, endMs) as FrameTrace };
    })
    .filter((visit) => durationOf(visit.trace) > 0);
}
