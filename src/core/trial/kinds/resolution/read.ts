import type { ResolutionReading } from "./shape";
import {
  fitScaleLaw,
  hidesWork,
  isPaced,
  mostScale,
  nextScale,
  usualFrameMs,
  type ScaleLaw,
} from "@/core/sweep";
import { settingFor } from "@/core/kit";
import type { Grade } from "@/core/verdict";
import { said } from "../../codes";
import type { Said } from "@/core/said";
import { targetFpsOf, type TrialFacts } from "../../facts";
import { meanOf } from "../../sweeping";
import { readByEye } from "./byEye";

/** Lights of runs that are short of their rate. */
const underSpeed: Grade[] = ["dims", "gutters", "dark"];

/** Whether the engine's hold on the rate was let go in every arm; false where it has none. */
function wasLetFree({ trial, catalogue }: Pick<TrialFacts, "trial" | "catalogue">): boolean {
  const hold = settingFor(catalogue, "hold rate");
  return hold !== null && trial.arms.every(({ settings }) => (settings[hold.key] ?? hold.default) === false);
}

/** What was measured at every level that has a run with frame times. */
function levelsOf({ trial, runs, screens }: TrialFacts) {
  const nativePixels = screens.reduce((sum, { width, height }) => sum + width * height, 0) || 1;
  const levels = trial.arms.flatMap(({ level }, arm) => {
    const own = runs.filter((run) => run.arm === arm && !run.crashed);
    const mediansMs = own.flatMap(({ summary }) => usualFrameMs(summary) ?? []);
    const timed = own.filter(({ summary }) => summary.p99FrameTimeMs !== null);
    const p99sMs = timed.flatMap(({ summary }) => summary.p99FrameTimeMs ?? []);
    const meansMs = timed.map(({ summary }) => 1000 / summary.averageFps);
    if (level === null || mediansMs.length === 0) return [];
    const paced = timed.some(({ summary }) => hidesWork(summary));
    const slow = own.some(({ verdict }) => verdict.grade !== null && underSpeed.includes(verdict.grade));
    return [{ scale: level, pixels: nativePixels * level ** 2, mediansMs, p99sMs, meansMs, paced, slow }];
  });
  return { levels, nativePixels };
}

/** Levels that were read off a screen: by their lights. */
function eyed(facts: TrialFacts): ResolutionReading {
  const { levels, sentence, kept, next } = readByEye(facts);
  const arm = kept === null ? -1 : facts.trial.arms.findIndex(({ level }) => level === kept);
  return {
    kind: "resolution",
    law: null,
    levels: levels.map(({ scale, runs, fps }) => ({ scale, runs, medianMs: 1000 / fps, p99Ms: null })),
    next: next === null ? null : { scale: next, sentence: said("resolution.tryNext", { scale: next }) },
    arm: arm >= 0 ? arm : null,
    missing: [],
    sentence,
  };
}

export function read(facts: TrialFacts): ResolutionReading | null {
  const { trial, runs } = facts;
  if (runs.length === 0) return null;
  if (runs.every(({ summary }) => summary.form === "interval")) return eyed(facts);
  const targetFps = targetFpsOf(facts);
  const { levels, nativePixels } = levelsOf(facts);
  const shown = levels.map(({ scale, mediansMs, p99sMs }) => ({
    scale,
    runs: mediansMs.length,
    medianMs: meanOf(mediansMs) ?? 0,
    p99Ms: meanOf(p99sMs) ?? 0,
  }));
  const missing: Said[] = [];
  if (runs.some(({ summary }) => summary.form === "interval")) missing.push(said("resolution.readings"));
  if (runs.some(({ summary }) => isPaced(summary))) missing.push(said("resolution.paced"));
  const common = { kind: "resolution" as const, levels: shown };
  if (new Set(levels.map(({ scale }) => scale)).size < 2) {
    const few = said("resolution.fewLevels", { only: shown[0]?.scale ?? null });
    const sentence = said("resolution.runNext");
    return { ...common, law: null, next: null, arm: null, missing: [...missing, few], sentence };
  }
  const law = fitScaleLaw(levels, { targetFps, nativePixels, letFree: wasLetFree(facts) });
  const most = Math.max(...trial.arms.map(({ level }) => level ?? 1));
  const offered = Array.from({ length: Math.min(mostScale, Math.ceil(most) + 1) }, (_, k) => k + 1);
  const measured = shown.map(({ scale }) => scale);
  const { scale: kept, sentence } = recommend(law, targetFps, facts.usefulScale);
  const arm = kept === null ? -1 : trial.arms.findIndex(({ level }) => level === kept);
  return {
    ...common,
    law,
    next: nextScale(law, measured, offered, targetFps),
    arm: arm >= 0 ? arm : null,
    missing: [...missing, ...law.notes],
    sentence,
  };
}

/** The scale to keep: the largest that the law lets hold, and none that the display can't show. */
function recommend(
  { largestScale, largestSteadyScale, largestScaleInterval, limitedByPixels, floorMs, failing }: ScaleLaw,
  targetFps: number,
  usefulScale: number | null,
): { scale: number | null; sentence: Said } {
  if (largestScale === null) {
    const sentence = limitedByPixels
      ? said("resolution.none", { targetFps, floorMs, failing })
      : said("resolution.elsewhere", { targetFps });
    return { scale: null, sentence };
  }
  const kept = usefulScale === null ? largestScale : Math.min(largestScale, usefulScale);
  const sentence = limitedByPixels
    ? said("resolution.keep", {
        kept,
        largest: largestScale,
        steady: largestSteadyScale,
        targetFps,
        interval: largestScaleInterval,
      })
    : said("resolution.free", { largest: largestScale, kept });
  return { scale: kept, sentence };
}
