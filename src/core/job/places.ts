import type { PlaceRow, PlacesHeld, ComparedPlace } from "./shape";
import type { Summary } from "@/core/metrics";
import { mean, meanInterval, standardDeviation, wilson } from "@/core/stats";
import { holds, type Verdict } from "@/core/verdict";

/** How many places hold; null where a run names fewer than two. */
export function placesHeld({ scenes = [] }: Pick<Verdict, "scenes">): PlacesHeld | null {
  if (scenes.length < 2) return null;
  const hold = scenes.filter(holds).length;
  return { hold, of: scenes.length, ...wilson(hold, scenes.length) };
}

/** A run's places with their figures and lights, in the order they were first visited. */
export function placesOf(
  summary: Pick<Summary, "scenes">,
  { scenes = [] }: Pick<Verdict, "scenes">,
): PlaceRow[] {
  const lights = new Map(scenes.map((light) => [light.label, light]));
  return (summary.scenes ?? []).map(({ label, visits, worstFps, figures }) => ({
    ...(lights.get(label) ?? { label, grade: null }),
    ...{ visits, worstFps, averageFps: figures.averageFps, targetFps: figures.targetFps },
    interval: figures.looked?.interval ?? null,
    readings: figures.form === "interval" ? figures.frames : null,
    seconds: figures.durationMs / 1000,
  }));
}

/**
 * 95 % of where an arm's rate lies at a place, in logarithms: by how its runs differ, and never narrower than what
 * their readings leave open; equal whole numbers don't make a rate certain.
 */
function openOf(own: PlaceRow[], logs: number[], middle: number): { low: number; high: number } | null {
  const between = own.length > 1 ? meanInterval(logs, middle, standardDeviation(logs), null) : null;
  const read = own.flatMap(({ interval }) => interval ?? []);
  const within = read.length > 0 && {
    low: mean(read.map(({ low }) => Math.log(low))),
    high: mean(read.map(({ high }) => Math.log(high))),
  };
  if (!between || !within) return between || within || null;
  return { low: Math.min(between.low, within.low), high: Math.max(between.high, within.high) };
}

/** A trial's arms place by place: means over runs, the light of the newest. */
export function comparePlaces(
  arms: number,
  runs: { arm: number; summary: Pick<Summary, "scenes">; verdict: Pick<Verdict, "scenes"> }[],
): ComparedPlace[] {
  const rows = runs.map((run) => ({ arm: run.arm, places: placesOf(run.summary, run.verdict) }));
  const labels = [...new Set(rows.flatMap(({ places }) => places.map(({ label }) => label)))];
  return labels.map((label) => ({
    label,
    arms: Array.from({ length: arms }, (_, arm) => {
      const own = rows
        .filter((row) => row.arm === arm)
        .flatMap(({ places }) => places.filter((place) => place.label === label));
      const newest = own.at(-1);
      if (!newest) return null;
      const worst = own.flatMap(({ worstFps }) => worstFps ?? []);
      const logs = own.map(({ averageFps }) => Math.log(averageFps));
      const middle = mean(logs);
      const open = openOf(own, logs, middle);
      return {
        averageFps: Math.exp(middle),
        interval: open && { low: Math.exp(open.low), high: Math.exp(open.high) },
        worstFps: worst.length > 0 ? Math.min(...worst) : null,
        runs: own.length,
        grade: newest.grade,
        ...(newest.between && { between: newest.between }),
      };
    }),
  }));
}
