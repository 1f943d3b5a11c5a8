import { tallySchema } from "@/contract";
import type { IntervalTrace } from "@/core/trace";
import type { Actor } from "./actor";
import { keepRun, type ImportedRun } from "./keepRun";

/** Readings nearer to one another than this are taken to be so far apart, s. */
const leastGapSeconds = 0.001;

/** Keeps a hand tally as readings, each standing for the time since the one before. */
export async function tallyRun(actor: Actor, input: unknown): Promise<ImportedRun> {
  const { run, readings } = tallySchema.parse(input);
  const gaps = readings.map(({ second }, index) =>
    index === 0 ? 0 : Math.max(leastGapSeconds, second - (readings[index - 1]?.second ?? 0)),
  );
  const usual =
    readings.length > 1 ? gaps.slice(1).reduce((sum, gap) => sum + gap, 0) / (readings.length - 1) : 1;
  const trace: IntervalTrace = {
    form: "interval",
    durations: Float64Array.from(gaps, (gap, index) => (index === 0 ? usual : gap) * 1000),
    rates: Float64Array.from(readings, ({ fps }) => fps),
    channels: [],
    marks: [],
  };
  // Readings that name one scene in a row are a mark.
  let at = 0;
  readings.forEach(({ scene }, index) => {
    const startMs = at;
    at += trace.durations[index] ?? 0;
    const last = trace.marks.at(-1);
    if (scene === "") return;
    if (last && last.label === scene && last.endMs === startMs) last.endMs = at;
    else trace.marks.push({ label: scene, startMs, endMs: at });
  });
  return keepRun(actor, { ...run, source: "tally" }, trace);
}
