import { z } from "zod";
import { newRunSchema } from "@/core/kit";
import type { IntervalTrace } from "@/core/trace";
import { keepRun, type ImportedRun } from "./importRun";

/** A hand tally: numbers read off a screen, each with the second at which it was read. */
export const tallySchema = z.object({
  run: newRunSchema,
  readings: z
    .array(
      z.object({
        fps: z.number().min(0).max(1000),
        second: z.number().min(0).max(86_400),
        scene: z.string().trim().max(120).default(""),
      }),
    )
    .min(1, "Enter at least one reading.")
    .max(2000),
});

/** Keeps a hand tally as readings, each standing for the time since the one before. */
export async function tallyRun(input: unknown): Promise<ImportedRun> {
  const { run, readings } = tallySchema.parse(input);
  const gaps = readings.map(({ second }, index) =>
    index === 0 ? 0 : Math.max(0.001, second - readings[index - 1].second),
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
    at += trace.durations[index];
    const last = trace.marks.at(-1);
    if (scene === "") return;
    if (last && last.label === scene && last.endMs === startMs) last.endMs = at;
    else trace.marks.push({ label: scene, startMs, endMs: at });
  });
  return keepRun({ ...run, source: "tally" }, trace);
}
