import type { Command } from "commander";
import { readingKinds, readTyped, summarise, tallyFigures, tallyTrace, type ReadingKind } from "@/core/metrics";
import { judge } from "@/core/verdict";
import { lightsWords, words } from "@/core/words";
import { BadInput, positive } from "./input";

interface Flags {
  native: number;
  refresh: number;
  target?: number;
  every: number;
  free?: boolean;
  kind: string;
  json?: boolean;
}

/** A tally typed in a terminal: the light, and what the readings leave open, as the pages say it. */
export function tally(program: Command): void {
  program
    .command("tally")
    .description("The light of numbers read off a screen.")
    .argument("<readings>", 'as they were read, e.g. "59 60 60 59", "85 % 84 %" or "24 gpu 97 cpu 88 15 W"')
    .option("--native <fps>", "the title's own rate", positive("--native"), 60)
    .option("--refresh <hz>", "the display's refresh", positive("--refresh"), 60)
    .option("--target <fps>", "the rate wanted (default: the native rate)", positive("--target"))
    .option("--every <seconds>", "how far apart the readings were made", positive("--every"), 5)
    .option("--kind <kind>", `what a bare number is: ${readingKinds.join(", ")}`, "rate")
    .option("--free", "the title's speed isn't tied to its rate")
    .option("--json", "print one JSON object")
    .action((text: string, flags: Flags) => {
      const kind = readingKinds.find((each) => each === flags.kind);
      if (!kind) throw new BadInput(`--kind takes ${readingKinds.join(", ")}, not "${flags.kind}".`);
      process.stdout.write(
        flags.json ? `${JSON.stringify(judged(text, kind, flags))}\n` : page(text, kind, flags),
      );
    });
}

/** What a typed tally comes to. @throws BadInput naming the part that can't be read */
function judged(text: string, kind: ReadingKind, { native, refresh, target = native, every, free }: Flags) {
  const typed = readTyped(text, kind, native);
  if (!typed.ok) throw new BadInput(`"${typed.part}" isn't a reading.`);
  if (typed.readings.length === 0) throw new BadInput("There is no reading.");
  const trace = tallyTrace(
    typed.readings.map((reading, at) => ({ ...reading, second: at * every, scene: "" })),
  );
  const yardstick = { nativeFps: native, tied: !free, targetFps: target, refreshHz: refresh };
  const summary = summarise(trace, yardstick);
  const { grade, between, remarks } = judge(summary);
  const { mean, effective, readings, atTarget } = tallyFigures(trace, target);
  return {
    lights: between ?? [grade],
    grade,
    averageFps: mean,
    interval: summary.looked?.interval ?? null,
    readings,
    looks: summary.looked?.looks ?? readings,
    effective,
    speedPercent: summary.speedPercent,
    atTarget,
    said: [lightsWords(grade, between), ...remarks.map(words)],
  };
}

function page(text: string, kind: ReadingKind, flags: Flags): string {
  const { averageFps, interval, readings, effective, said } = judged(text, kind, flags);
  const between = interval ? `, 95 % between ${interval.low.toFixed(1)} and ${interval.high.toFixed(1)}` : "";
  return [
    `${said[0]}, by eye`,
    `${averageFps.toFixed(1)} fps on average${between}; ${readings} readings, worth ${effective.toFixed(1)} independent`,
    ...said.slice(1),
    "",
  ].join("\n");
}
