import { said, words } from "@/core/words";
import type { Command } from "commander";
import { assumedNoise, compare, givenNoise, type Comparison } from "@/core/compare";
import type { Trace } from "@/core/trace";
import { BadInput, mapEntry, positive, readLogFile } from "./input";
import type { ReadOptions } from "@/core/trace";

interface Flags {
  a: string[];
  b: string[];
  rounds?: boolean;
  order?: string;
  margin: number;
  noise?: number;
  seed: number;
  target: number;
  map?: ReadOptions["map"];
  json?: boolean;
}

function whole(text: string): number {
  if (!/^\d{1,9}$/.test(text)) throw new BadInput(`--seed takes a whole number, not "${text}".`);
  return Number(text);
}

export function compareCommand(program: Command): void {
  program
    .command("compare")
    .description("Two arms of runs: B over A, with intervals and a decision.")
    .requiredOption("--a <logs...>", "logs of arm A")
    .requiredOption("--b <logs...>", "logs of arm B")
    .option("--rounds", "the k-th log of each side belongs to round k")
    .option("--order <letters>", "who ran when, such as ABBA; drift is then told from the change")
    .option("--margin <percent>", "smallest difference worth having", positive("--margin"), 2)
    .option("--noise <percent>", "how much the rig varies from run to run", positive("--noise"))
    .option("--target <fps>", "the rate wanted, for full-speed time", positive("--target"), 60)
    .option("--seed <n>", "seed of the resampling", whole, 1)
    .option("--map <column=role:unit>", "what a column is; may be given again", mapEntry)
    .option("--json", "print one JSON object")
    .action(async ({ a, b, rounds, order, margin, noise, seed, target, map, json }: Flags) => {
      if (rounds && a.length !== b.length)
        throw new BadInput(
          `--rounds needs as many logs on one side as on the other: ${a.length} and ${b.length} were given.`,
        );
      const read = async (files: string[]) => {
        const traces: Trace[] = [];
        for (const file of files) traces.push((await readLogFile(file, { map })).trace);
        return traces;
      };
      const made = compare(await read(a), await read(b), {
        targetFps: target,
        rounds,
        marginPercent: margin,
        seed,
        places: order ? placesOf(order, a.length, b.length) : null,
        noise: noise === undefined ? assumedNoise : givenNoise(noise / 100),
      });
      process.stdout.write(json ? `${JSON.stringify(asJson(made))}\n` : page(made));
    });
}

/** Places in the order of each side's logs. @throws BadInput where letters and logs don't agree */
function placesOf(order: string, a: number, b: number): { a: number[]; b: number[] } {
  const letters = [...order.toUpperCase()];
  const of = (side: string) => letters.flatMap((letter, place) => (letter === side ? [place] : []));
  const places = { a: of("A"), b: of("B") };
  if (places.a.length !== a || places.b.length !== b || letters.length !== a + b)
    throw new BadInput(
      `--order takes one A or B a log, in the order they were run: ${a} A and ${b} B were given.`,
    );
  return places;
}

function asJson({
  arms,
  averageFps,
  worstTimeLow,
  fullSpeedTime,
  hitchesPerMinute,
  decision,
  moreRunsPerSide,
  chanceSettled,
  steps,
  notes,
}: Comparison) {
  return {
    arms,
    averageFps,
    worstTimeLow,
    fullSpeedTime,
    hitchesPerMinute,
    decision,
    moreRunsPerSide,
    chanceSettled,
    steps,
    notes: notes.map(words),
  };
}

function page({
  arms,
  averageFps,
  worstTimeLow,
  fullSpeedTime,
  hitchesPerMinute,
  decision,
  steps,
  notes,
}: Comparison): string {
  const percent = (ratio: number) => `${ratio >= 1 ? "+" : "−"}${Math.abs(100 * (ratio - 1)).toFixed(1)} %`;
  const ratio = (effect: { ratio: number; low: number; high: number } | null) =>
    effect
      ? `${percent(effect.ratio)}  (95 %: ${percent(effect.low)} … ${percent(effect.high)})`
      : "can't be told from these logs";
  const difference = (effect: { difference: number; low: number; high: number } | null, unit: string) =>
    effect
      ? `${effect.difference.toFixed(1)} ${unit}  (95 %: ${effect.low.toFixed(1)} … ${effect.high.toFixed(1)})`
      : "can't be told from these logs";
  return [
    `B over A: ${decision}${decision === "undecided" ? `; ${words(said("compare.further", { steps }))}` : ""}`,
    "",
    `  A  ${arms.a.averageFps.toFixed(2)} fps over ${arms.a.runs} runs`,
    `  B  ${arms.b.averageFps.toFixed(2)} fps over ${arms.b.runs} runs`,
    "",
    `  Average fps             ${ratio(averageFps)}`,
    `  1 % low (worst time)    ${ratio(worstTimeLow)}`,
    `  Full-speed time         ${difference(fullSpeedTime, "points")}`,
    `  Hitches                 ${difference(hitchesPerMinute, "/min")}`,
    ...notes.map((note) => `  Note: ${words(note)}`),
    "",
  ].join("\n");
}
