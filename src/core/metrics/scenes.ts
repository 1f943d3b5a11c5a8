import type { SceneFigures } from "./shape";
import type { Mark, Trace } from "@/core/trace";
import type { Summary, Yardstick } from "./shape";

/** More places than this are a log's own numbering, not a tuner's. */
const mostScenes = 60;

/**
 * Whether moments lie in some visit, asked in their order: one walk through both, for a log may hold a million
 * frames and ten thousand marks.
 */
function within(visits: Mark[]): (ms: number) => boolean {
  const inOrder = [...visits].sort((a, b) => a.startMs - b.startMs);
  let next = 0,
    until = -Infinity;
  return (ms) => {
    for (let visit = inOrder[next]; visit && visit.startMs - 1e-6 <= ms; visit = inOrder[++next])
      until = Math.max(until, visit.endMs - 1e-6);
    return ms < until;
  };
}

/** The stretches of one place, cut from a trace and joined; null where nothing of it is left. */
function cut(trace: Trace, visits: Mark[]): Trace | null {
  const isIn = within(visits);
  if (trace.form === "frames") {
    let ms = 0;
    const kept: number[] = [];
    for (const frameMs of trace.frameTimes) {
      if (isIn(ms)) kept.push(frameMs);
      ms += frameMs;
    }
    return kept.length === 0
      ? null
      : { form: "frames", frameTimes: Float64Array.from(kept), channels: [], marks: [] };
  }
  const { durations, rates } = trace;
  const places: number[] = [];
  for (let i = 0, ms = 0; i < rates.length; ms += durations[i], i++)
    if (isIn(ms + durations[i] / 2)) places.push(i);
  return places.length === 0
    ? null
    : {
        form: "interval",
        durations: Float64Array.from(places, (i) => durations[i] ?? 0),
        rates: Float64Array.from(places, (i) => rates[i] ?? 0),
        channels: [],
        marks: [],
      };
}

/** What a place is measured against: a title's own rate may be another there. */
function yardstickAt({ sceneFps, ...whole }: Yardstick, label: string): Yardstick {
  const own = sceneFps?.[label];
  if (own === undefined) return whole;
  return {
    ...whole,
    nativeFps: own,
    targetFps: whole.targetFps === whole.nativeFps ? own : Math.min(own, whole.targetFps),
  };
}

/**
 * A run's places by their names, in the order they were first visited; none where no more than one is named.
 * @param figuresOf a trace's figures
 */
export function scenesOf(
  trace: Trace,
  yardstick: Yardstick,
  figuresOf: (trace: Trace, yardstick: Yardstick) => Summary,
): SceneFigures[] {
  const byLabel = new Map<string, Mark[]>();
  for (const mark of trace.marks) {
    const visits = byLabel.get(mark.label);
    if (visits) visits.push(mark);
    else if (mark.label !== "") byLabel.set(mark.label, [mark]);
  }
  if (byLabel.size < 2 || byLabel.size > mostScenes) return [];
  return [...byLabel].flatMap(([label, visits]): SceneFigures[] => {
    const part = cut(trace, visits);
    if (!part) return [];
    const { segments: _segments, ...figures } = figuresOf(part, yardstickAt(yardstick, label));
    const worstFps =
      part.form === "interval" ? Math.min(...part.rates) : (figures.dips?.deepestFps ?? figures.averageFps);
    return [{ label, visits: visits.length, worstFps, figures }];
  });
}
