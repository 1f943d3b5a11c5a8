import { words } from "@/core/words";
import type { Command } from "commander";
import { summarise } from "@/core/metrics";
import { fitScaleLaw, leastStep, hidesWork, usualFrameMs, type ScaleLaw, type ScaleLevel } from "@/core/sweep";
import type { ReadOptions } from "@/core/trace";
import { BadInput, mapEntry, positive, readLogFile } from "./input";
import { boxIn } from "./resolution";

interface Flags {
  picture: { width: number; height: number };
  target: number;
  step: number;
  map?: ReadOptions["map"];
  json?: boolean;
}

/** "2=run.csv" → the scale and the log. */
function levelIn(text: string): { scale: number; file: string } {
  const [, scale = "", file = ""] = /^(\d+(?:\.\d+)?)=(.+)$/.exec(text) ?? [];
  if (!(Number(scale) > 0)) throw new BadInput(`"${text}": write each run as SCALE=LOG, e.g. 2=run.csv.`);
  return { scale: Number(scale), file };
}

export function scaleLaw(program: Command): void {
  program
    .command("scale-law")
    .description("A resolution sweep: frame time against pixels, and the largest scale that holds the target.")
    .argument("<runs...>", "SCALE=LOG, one a run; a scale may be given several times")
    .requiredOption("--picture <size>", "the native picture, e.g. 320x240", boxIn)
    .option("--target <fps>", "the rate wanted", positive("--target"), 60)
    .option("--step <n>", "steps of the scale setting", positive("--step"), 1)
    .option("--map <column=role:unit>", "what a column is; may be given again", mapEntry)
    .option("--json", "print one JSON object")
    .action(async (runs: string[], { picture, target, step, map, json }: Flags) => {
      const nativePixels = picture.width * picture.height;
      const levels: ScaleLevel[] = [];
      for (const { scale, file } of runs.map(levelIn)) {
        const { trace } = await readLogFile(file, { map });
        const summary = summarise(trace, { nativeFps: target, tied: false, targetFps: target, refreshHz: 60 });
        const { p99FrameTimeMs } = summary,
          medianMs = usualFrameMs(summary);
        if (medianMs === null || p99FrameTimeMs === null)
          throw new BadInput(`${file} holds readings of a counter: a law needs frame times.`);
        levels.push({
          scale,
          pixels: nativePixels * scale ** 2,
          mediansMs: [medianMs],
          p99sMs: [p99FrameTimeMs],
          meansMs: [1000 / summary.averageFps],
          paced: hidesWork(summary),
        });
      }
      if (new Set(levels.map(({ scale }) => scale)).size < 2)
        throw new BadInput("A law needs runs at two scales or more; three tell the flat part from the slope.");
      if (step < leastStep)
        throw new BadInput(`--step ${step} is finer than any setting; ${leastStep} is the least.`);
      const law = fitScaleLaw(levels, { targetFps: target, nativePixels, step });
      process.stdout.write(
        json ? `${JSON.stringify({ ...law, notes: law.notes.map(words) })}\n` : page(law, target),
      );
    });
}

function page(law: ScaleLaw, target: number): string {
  const {
    floorMs,
    interceptMs,
    msPerMegapixel,
    msPerMegapixelInterval: [low, high],
    largestScale,
    largestSteadyScale,
    largestScaleInterval,
  } = law;
  const scale = (at: number | null) => (at === null || at === 0 ? "none" : `×${at}`);
  return [
    law.limitedByPixels
      ? `Largest scale for ${target} fps: ${scale(largestScale)}${largestScaleInterval ? ` (95 %: ${scale(largestScaleInterval[0])} … ${scale(largestScaleInterval[1])})` : ""}; steady by 99th percentiles: ${scale(largestSteadyScale)}`
      : "Resolution isn't the limit.",
    "",
    `  Floor           ${floorMs.toFixed(2)} ms${law.floorSeen ? "" : " (the intercept; no flat part was seen)"}`,
    `  Law             ${interceptMs.toFixed(2)} ms + ${msPerMegapixel.toFixed(2)} ms per million pixels (95 %: ${low.toFixed(2)} … ${high.toFixed(2)})`,
    ...law.predicted.map(
      ({ scale: at, frameTimeMs, low: from, high: to, holds }) =>
        `  ×${String(at).padEnd(14)} ${frameTimeMs.toFixed(1)} ms  (${from.toFixed(1)} … ${to.toFixed(1)})${holds ? "  holds" : ""}`,
    ),
    ...law.notes.map((note) => `  Note: ${words(note)}`),
    "",
  ].join("\n");
}
