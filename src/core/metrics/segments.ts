import type { Segment } from "./shape";
import { medianOf, quantile } from "@/core/stats";
import { firstEndAfter, type Floats, type FrameTrace, type IntervalTrace, type Trace } from "@/core/trace";
import type { Hitch } from "./hitches";
import { blockRates } from "./rate";

const entryMs = 3000;
/** Parts of an unmarked run, and the least length of one. */
const mostParts = 8;
const leastPartMs = 8000;
/** More scenes than this are read together in equal parts. */
const mostMarks = 200;
const mostForMedian = 20_000;
/** Frames of more refreshes are counted together. */
const mostCadence = 512;

function stretchesOf(
  trace: Pick<Trace, "marks">,
  durationMs: number,
): { label: string; startMs: number; endMs: number }[] {
  if (trace.marks.length > 0 && trace.marks.length <= mostMarks) return trace.marks;
  const parts = Math.max(1, Math.min(mostParts, Math.floor(durationMs / leastPartMs)));
  return Array.from({ length: parts }, (_, k) => ({
    label: "",
    startMs: (k * durationMs) / parts,
    endMs: ((k + 1) * durationMs) / parts,
  }));
}

/**
 * Where moments lie among frames, in one pass and without a copy.
 * @param moments ms from the start, in any order
 * @returns of each of them the index of the first frame that ends after it (N when none does), and when that
 *   frame begins
 */
function placesAt(frameTimes: Floats, moments: number[]): (ms: number) => [index: number, beganMs: number] {
  const found = new Map<number, [number, number]>();
  let at = 0,
    ms = 0;
  for (const moment of [...new Set(moments)].sort((a, b) => a - b)) {
    while (at < frameTimes.length && ms + frameTimes[at] <= moment) ms += frameTimes[at++];
    found.set(moment, [at, ms]);
  }
  return (moment) => found.get(moment) ?? [at, ms];
}

/**
 * A run scene by scene, with what the device did meanwhile: what diagnosis reads.
 * @param hitches of the whole run, in order
 */
export function segmentsOf(
  trace: FrameTrace,
  durationMs: number,
  hitches: Hitch[],
  refreshHz: number,
): Segment[] {
  const visits = new Map<string, number>();
  const made: Segment[] = [];
  const { frameTimes } = trace;
  const stretches = stretchesOf(trace, durationMs);
  const after = (ms: number) => ms + 1e-6;
  const placeAt = placesAt(
    frameTimes,
    stretches.flatMap(({ startMs, endMs }) => [after(startMs), after(endMs)]),
  );
  for (const { label, startMs, endMs } of stretches) {
    const [first, firstMs] = placeAt(after(startMs)),
      [last, lastMs] = placeAt(after(endMs));
    const count = last - first;
    if (count <= 0) continue;
    const visit = label === "" ? 0 : (visits.get(label) ?? 0) + 1;
    visits.set(label, visit);
    const within = hitches.filter((hitch) => hitch.startMs >= startMs - 1e-6 && hitch.startMs < endMs);
    const lost = (list: Hitch[]) => list.reduce((sum, { lostMs }) => sum + lostMs, 0);
    const counts = new Uint32Array(mostCadence);
    for (let i = first; i < last; i++)
      counts[Math.min(mostCadence - 1, Math.round((frameTimes[i] * refreshHz) / 1000))]++;
    const cadence = counts.reduce((best, frames, k) => (frames > counts[best] ? k : best), 0);
    const step = Math.ceil(count / mostForMedian);
    const chosen = Float64Array.from(
      { length: Math.ceil(count / step) },
      (_, k) => frameTimes[first + k * step],
    );
    made.push({
      label,
      visit,
      startMs,
      endMs,
      averageFps: (1000 * count) / (lastMs - firstMs),
      medianFrameTimeMs: medianOf(chosen),
      cadence,
      cadenceShare: counts[cadence] / count,
      paceSpread: paceSpreadOf(frameTimes.subarray(first, last)),
      hitches: within.length,
      lostMs: lost(within),
      entryLostMs: lost(within.filter((hitch) => hitch.startMs < startMs + entryMs)),
      means: meansOf(trace, startMs, endMs),
    });
  }
  return made;
}

/** Blocks that a pace is read from, ms, and the fewest of them. */
const paceBlockMs = 500,
  fewestBlocks = 8;

/**
 * Spread of the rate over blocks: half the distance from the 16th to the 84th percentile over the median, so
 * that hitches don't make it.
 */
function paceSpreadOf(frameTimes: Floats): number | null {
  const rates = blockRates(frameTimes, paceBlockMs);
  if (rates.length < fewestBlocks) return null;
  const sorted = rates.sort();
  return (quantile(sorted, 0.84) - quantile(sorted, 0.16)) / 2 / quantile(sorted, 0.5);
}

/** Readings under which a stretch of a counter's log isn't a part by itself. */
const fewestInPart = 4;

/**
 * A counter's readings scene by scene, or in equal parts: rates and what the device did meanwhile; of frames it says
 * nothing.
 */
export function segmentsOfReadings(trace: IntervalTrace, durationMs: number): Segment[] {
  const { durations, rates } = trace;
  const sparse = rates.length < 2 * fewestInPart;
  const stretches =
    sparse && trace.marks.length === 0
      ? [{ label: "", startMs: 0, endMs: durationMs }]
      : stretchesOf(trace, durationMs);
  const visits = new Map<string, number>();
  const middles = new Float64Array(rates.length);
  for (let i = 0, ms = 0; i < rates.length; ms += durations[i], i++) middles[i] = ms + durations[i] / 2;
  return stretches.flatMap(({ label, startMs, endMs }): Segment[] => {
    let time = 0,
      frames = 0;
    for (let i = 0; i < rates.length; i++)
      if (middles[i] >= startMs && middles[i] < endMs) {
        time += durations[i];
        frames += rates[i] * durations[i];
      }
    if (time === 0 || frames === 0) return [];
    const visit = label === "" ? 0 : (visits.get(label) ?? 0) + 1;
    visits.set(label, visit);
    const averageFps = frames / time;
    return [
      {
        ...{ label, visit, startMs, endMs, averageFps },
        medianFrameTimeMs: 1000 / averageFps,
        ...{ cadence: 0, cadenceShare: 0, paceSpread: null, hitches: 0, lostMs: 0, entryLostMs: 0 },
        means: meansOf(trace, startMs, endMs),
      },
    ];
  });
}

function meansOf({ channels }: Pick<Trace, "channels">, startMs: number, endMs: number): Segment["means"] {
  const made: Segment["means"] = {};
  for (const { role, times, values } of channels) {
    // A reading holds until the next: a load that never changes may have been logged once.
    let at = Math.max(0, firstEndAfter(times, startMs) - 1),
      weighted = 0;
    if (times.length === 0 || times[0] > endMs) continue;
    const first = Math.max(startMs, times[0]);
    for (; at < times.length && times[at] < endMs; at++)
      weighted +=
        values[at] * Math.max(0, Math.min(endMs, times[at + 1] ?? endMs) - Math.max(first, times[at]));
    if (endMs > first) made[role] = weighted / (endMs - first);
  }
  return made;
}
