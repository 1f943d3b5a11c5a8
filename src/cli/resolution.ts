import { first } from "@/core/kit";
import { Option, type Command } from "commander";
import {
  fillings,
  planScales,
  scaleAdvice,
  screenLayouts,
  type Box,
  type Filling,
  type ScreenShape,
  type ScreenLayout,
} from "@/core/resolution";
import { words } from "@/core/words";
import { BadInput } from "./input";

interface Flags {
  picture?: ScreenShape;
  screens?: ScreenShape[];
  display: Box;
  filling?: Filling;
  fit?: Filling;
  layout: ScreenLayout;
  json?: boolean;
}

/** "320x240", or "256x224:1.143" with the shape of its pixels. */
export function boxIn(text: string): ScreenShape {
  const found = /^(\d{1,5})[x×](\d{1,5})(?::(\d*\.?\d+))?$/.exec(text.trim());
  const box = found && {
    width: Number(found[1]),
    height: Number(found[2]),
    pixelAspect: found[3] ? Number(found[3]) : 1,
  };
  if (!box || box.width === 0 || box.height === 0 || !(box.pixelAspect >= 0.2 && box.pixelAspect <= 5))
    throw new BadInput(`"${text}" is no size; write it as 320x240.`);
  return box;
}

function oneOf<Word extends string>(name: string, words: readonly Word[]): (text: string) => Word {
  return (text) => {
    const word = words.find((known) => known === text);
    if (!word) throw new BadInput(`${name} takes one of: ${words.join(", ")}; not "${text}".`);
    return word;
  };
}

export function resolution(program: Command): void {
  program
    .command("resolution")
    .description("Every internal scale of a picture on a display, and which is worth trying.")
    .option("--picture <size>", "the native picture, e.g. 320x240", boxIn)
    .option("--screens <sizes>", 'several screens, e.g. "384x240,320x240"', (text: string) =>
      text.split(",").map(boxIn),
    )
    .requiredOption("--display <size>", "the display's pixels", boxIn)
    .option("--filling <filling>", `${fillings.join(", ")} (default: contain)`, oneOf("--filling", fillings))
    // Its name before; scripts may have it.
    .addOption(new Option("--fit <filling>").argParser(oneOf("--fit", fillings)).hideHelp())
    .option(
      "--layout <layout>",
      `of several screens: ${screenLayouts.join(", ")}`,
      oneOf("--layout", screenLayouts),
      "stacked",
    )
    .option("--json", "print one JSON object")
    .action(({ picture, screens, display, filling, fit, layout, json }: Flags) => {
      const shown = screens ?? (picture ? [picture] : null);
      if (!shown) throw new BadInput("Give the native picture with --picture 320x240, or --screens.");
      const plan = planScales(shown, display, filling ?? fit ?? "contain", layout);
      const sentence = words(scaleAdvice(plan));
      if (json) {
        const scales = plan.scales.map(
          ({ scale, width, height, pixels, costOfNative, displayShare, coverage, isWithin }) => ({
            scale,
            width,
            height,
            pixels,
            costOfNative,
            displayShare,
            coverage,
            fits: isWithin,
          }),
        );
        process.stdout.write(`${JSON.stringify({ scales, usefulScale: plan.usefulScale, sentence })}\n`);
        return;
      }
      const rows = plan.scales.map((row) => [
        `×${row.scale}`,
        `${row.width}×${row.height}`,
        `${(row.pixels / 1e6).toFixed(2)} Mpx`,
        `${row.costOfNative} ×`,
        `${(100 * row.displayShare).toFixed(0)} %`,
        row.isWithin ? "within" : `${(100 * row.pastScreen).toFixed(0)} % past`,
        row.scale === plan.usefulScale ? "useful" : "",
      ]);
      process.stdout.write(
        `${sentence}\n\n${["scale", "picture", "pixels", "cost", "of display", "lines", ""].map((head) => head.padEnd(12)).join("")}\n${rows
          .map((row) =>
            row
              .map((cell) => cell.padEnd(12))
              .join("")
              .trimEnd(),
          )
          .join("\n")}\nCovers ${(100 * first(plan.scales).coverage).toFixed(1)} % of the display.\n`,
      );
    });
}
