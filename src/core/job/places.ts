import type { Summary } from "@/core/metrics";
import { wilson } from "@/core/stats";
import { holds, type SceneLight, type Verdict } from "@/core/verdict";

/** How many places of a run hold, with the 95 % interval of their share (Wilson 1927). */
export interface PlacesHeld {
  hold: number;
  of: number;
  low: number;
  high: number;
}

/** How many places hold; null where a run names fewer than two. */
export function placesHeld({ scenes = [] }: Pick<Verdict, "scenes">): PlacesHeld | null {
  if (scenes.length < 2) return null;
  const hold = scenes.filter(holds).length;
  return { hold, of: scenes.length, ...wilson(hold, scenes.length) };
}

/** A place of a run, as a table shows it. */
export interface PlaceRow extends SceneLight {
  visits: number;
  averageFps: number;
  targetFps: number;
  worstFps: number | null;
  /** Of a counter; null where frames were logged. */
  readings: number | null;
  seconds: number;
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
    readings: figures.form === "interval" ? figures.frames : null,
    seconds: figures.durationMs / 1000,
  }));
}

/** A place in every arm of a trial; null where an arm has no run of it. */
export interface ComparedPlace {
  label: string;
  arms: ({ averageFps: number; worstFps: number | null; runs: number; grade: PlaceRow["grade"] } | null)[];
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
      return {
        averageFps: Math.exp(own.reduce((sum, { averageFps }) => sum + Math.log(averageFps), 0) / own.length),
        worstFps: worst.length > 0 ? Math.min(...worst) : null,
        runs: own.length,
        grade: newest.grade,
      };
    }),
  }));
}
