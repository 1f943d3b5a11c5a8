import { settingFor } from "@/core/kit";
import { weightedLine } from "@/core/stats";
import { holds } from "@/core/verdict";
import { said } from "../../codes";
import type { Said } from "@/core/said";
import { targetFpsOf, type TrialFacts, type TrialRun } from "../../facts";
import { meanOf } from "../../sweeping";

/** What a level's runs say without frame times. */
interface EyedLevel {
  scale: number;
  runs: number;
  fps: number;
  /** Full speed in every run; null where its runs contradict each other. */
  holds: boolean | null;
}

/** Share of a run's places that hold from which its level does. */
const mostPlaces = 0.9;

/**
 * A run at full speed, as far as it was looked at: one that is too short to be called so wasn't seen slow. Where it
 * names places, nearly all of them hold.
 */
function isFull({ verdict }: TrialRun): boolean {
  const { scenes = [] } = verdict;
  return scenes.length > 1 ? scenes.filter(holds).length >= mostPlaces * scenes.length : holds(verdict);
}

/** Levels that have a whole run, the smallest first. */
function eyedLevels({ trial, runs }: TrialFacts): EyedLevel[] {
  return trial.arms
    .flatMap(({ level }, arm): EyedLevel[] => {
      const own = runs.filter((run) => run.arm === arm && !run.crashed);
      const fps = meanOf(own.map(({ summary }) => summary.averageFps));
      if (level === null || fps === null) return [];
      const full = own.filter(isFull).length;
      const holds = full === own.length ? true : full === 0 ? false : null;
      return [{ scale: level, runs: own.length, fps, holds }];
    })
    .sort((a, b) => a.scale - b.scale);
}

/** Scales that the engine takes, as far as they may matter. */
function offeredScales({ catalogue, usefulScale }: TrialFacts, measured: number[]): number[] {
  const { min, max, step } = settingFor(catalogue, "scale") ?? {};
  const apart = step ?? 1,
    least = Math.max(min ?? 1, apart),
    most = Math.min(max ?? 16, Math.max(2 * (usefulScale ?? 1), ...measured) + 1);
  return Array.from(
    { length: Math.max(0, Math.floor((most - least) / apart + 1e-9)) + 1 },
    (_, k) => least + k * apart,
  );
}

/**
 * The scale at which rates that nothing holds reach the target, by a straight line of frame time over pixels; null for
 * fewer than two such levels, or a line that doesn't rise.
 */
function byRates(levels: EyedLevel[], targetFps: number): number | null {
  const slow = levels.filter(({ holds }) => holds === false);
  if (slow.length < 2) return null;
  const line = weightedLine(
    slow.map(({ scale }) => scale ** 2),
    slow.map(({ fps }) => 1000 / fps),
    slow.map(({ runs }) => runs),
  );
  if (!(line.slope > 0)) return null;
  const pixels = (1000 / targetFps - line.intercept) / line.slope;
  return pixels > 0 ? Math.sqrt(pixels) : 0;
}

export interface EyedScales {
  levels: EyedLevel[];
  sentence: Said;
  /** Scale to keep, and to run next; null where there is none. */
  kept: number | null;
  next: number | null;
}

/**
 * The largest scale that holds, by lights alone: between the largest that does and the smallest that doesn't the next
 * one to run is halfway, or where the rates of those that don't hold say. Runs that contradict each other are said.
 */
export function readByEye(facts: TrialFacts): EyedScales {
  const levels = eyedLevels(facts);
  const targetFps = targetFpsOf(facts);
  const measured = levels.map(({ scale }) => scale);
  const offered = offeredScales(facts, measured);
  const mixed = levels.find(({ holds }) => holds === null);
  const largest = levels.findLast(({ holds }) => holds) ?? null;
  const failing = levels.find(({ holds }) => holds === false) ?? null;
  const nothing = { levels, kept: null, next: null };
  if (mixed)
    return { ...nothing, sentence: said("resolution.contradicts", { scale: mixed.scale, other: null }) };
  if (largest && failing && failing.scale < largest.scale)
    return {
      ...nothing,
      sentence: said("resolution.contradicts", { scale: failing.scale, other: largest.scale }),
    };
  const low = largest?.scale ?? 0,
    useful = facts.usefulScale;
  const kept = largest && (useful === null ? low : Math.min(low, useful));
  const between = offered.filter(
    (scale) => scale > low && (!failing || scale < failing.scale) && !measured.includes(scale),
  );
  // Past what the display shows nothing is left to look for.
  const worth = failing || useful === null ? between : between.filter((scale) => scale <= useful);
  const guess = byRates(levels, targetFps);
  const wanted = guess ?? (failing ? (low + failing.scale) / 2 : Math.min(2 * low, useful ?? Infinity));
  const next = worth.reduce<number | null>(
    (best, scale) => (best === null || Math.abs(scale - wanted) < Math.abs(best - wanted) ? scale : best),
    null,
  );
  const figures = { targetFps, next };
  if (!largest)
    return {
      ...nothing,
      next,
      sentence: said("resolution.eyeNone", {
        ...figures,
        smallest: failing?.scale ?? 1,
        fps: failing?.fps ?? 0,
      }),
    };
  return {
    levels,
    kept,
    next,
    sentence: said("resolution.eye", {
      ...figures,
      holds: largest.scale,
      kept: kept ?? largest.scale,
      fails: failing && { scale: failing.scale, fps: failing.fps },
      byRates: guess !== null && next !== null,
    }),
  };
}
