import { quantile } from "@/core/stats";
import type { Trace } from "./types";

/** Shares of frames that a percentile curve is drawn at. */
const shares = [0, 0.01, 0.05, 0.1, 0.25, 0.5, 0.75, 0.9, 0.95, 0.98, 0.99, 0.995, 0.999, 1];
const bins = 48;

/** How a run's frame times are spread. */
export interface FrameSpread {
  /** Share of frames (0 to 1) and the frame time that they stay under, ms. */
  curve: { share: number; ms: number }[];
  /** Middle of each bin, ms, and its share of all frames; what lies outside is in the outermost bins. */
  histogram: { ms: number; share: number }[];
}

/**
 * How a run's frame times are spread: quantiles (Hyndman and Fan's type 7) and a histogram between the 0.5 and the
 * 99.5 % frame.
 * @param range of the histogram, ms, where several runs are drawn over one another
 * @returns null of readings of a counter: they have no frames
 */
export function frameSpread(trace: Trace, range?: [low: number, high: number]): FrameSpread | null {
  if (trace.form !== "frames" || trace.frameTimes.length === 0) return null;
  const sorted = Float64Array.from(trace.frameTimes).sort();
  const [low, high] = range ?? [quantile(sorted, 0.005) * 0.9, quantile(sorted, 0.995) * 1.1];
  const width = (high - low) / bins || 1;
  const counts = new Array<number>(bins).fill(0);
  for (const ms of sorted) {
    const bin = Math.min(bins - 1, Math.max(0, Math.floor((ms - low) / width)));
    counts[bin] = (counts[bin] ?? 0) + 1;
  }
  return {
    curve: shares.map((share) => ({ share, ms: quantile(sorted, share) })),
    histogram: counts.map((count, at) => ({ ms: low + (at + 0.5) * width, share: count / sorted.length })),
  };
}
