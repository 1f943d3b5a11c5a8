import type { Grade } from "@/core/verdict";
import { count, effect, listed, signed, type Ratio } from "./figures";
import { gradeWords } from "./verdict";

/** Usual lights before and after; null where they are the same or not known. */
export type LightChange = [from: Grade, to: Grade] | null;

const light = (change: LightChange) =>
  change ? `, ${gradeWords[change[0]].name} → ${gradeWords[change[1]].name}` : "";
const both = (pair: Ratio, change: LightChange) => `${effect(pair)}${light(change)}`;

interface Pair {
  pair: Ratio;
  lights: LightChange;
}
interface Kept extends Pair {
  arm: string;
}

/** What comparisons come to, and what a person should know of how they were made. */
export const comparingSentences = {
  "effect.pair": ({ pair }: { pair: Ratio }) => effect(pair),
  "compare.faultsOutweigh": ({ pair, lights }: Pair) =>
    `Put back: ${both(pair, lights)}, but its faults outweigh the speed.`,
  "compare.faultGone": ({ arm, pair, lights }: Kept) =>
    `Keep ${arm}: ${both(pair, lights)}, and the fault is gone.`,
  "compare.better": ({ arm, pair, lights }: Kept) => `Keep ${arm}: ${both(pair, lights)}.`,
  "compare.worse": ({ pair, lights }: Pair) => `Put back: ${both(pair, lights)}.`,
  "compare.brighter": ({ arm, pair, lights, same }: Kept & { same: boolean }) =>
    `Keep ${arm}: the rate is ${same ? "the same" : "not told apart"} (${signed(pair.ratio)}), but every run shines brighter${light(lights)}.`,
  "compare.noDifference": ({ pair, lights }: Pair) =>
    `Put back: no difference worth having, ${both(pair, lights)}; fewer overrides are easier to keep.`,
  "compare.undecided": ({ pair, lights, more }: Pair & { more: number | null }) =>
    `Undecided: ${both(pair, lights)}. ${more === null ? "Even 40 more runs a side would hardly settle it: put it back." : `About ${more} more a side should settle it; until then put it back.`}`,
  "compare.heldByFaults": ({ fastest, stay }: { fastest: string[]; stay: string }) =>
    `${listed(fastest)} ${fastest.length === 1 ? "is" : "are"} fastest, but held down by faults. Stay with ${stay}.`,
  "compare.stay": ({ stay }: { stay: string }) => `Stay with ${stay}: no other arm beats it.`,
  "compare.tieStay": ({ tied, stay }: { tied: string[]; stay: string }) =>
    `${listed(tied)} tie inside the noise: stay with ${stay}.`,
  "compare.keepOf": ({ arm, over, pair, lights, ties }: Kept & { over: string; ties: string[] }) =>
    `Keep ${arm}: ${effect(pair)} over ${over}${light(lights)}.${ties.length > 0 ? ` ${listed(ties)} ${ties.length === 1 ? "ties" : "tie"} with it inside the noise.` : ""}`,
  "compare.underCap": () =>
    "Every run is held by a cap or the display, so runs differ by next to nothing; what either side could do free isn't seen.",
  "compare.borrowedSpread": ({ sd }: { sd: number }) =>
    `Fewer than 3 runs a side: the spread between runs is borrowed from the rig's noise floor (${(100 * sd).toFixed(1)} %).`,
  "compare.byRounds": ({ paired, alone }: { paired: number; alone: number }) =>
    `Analysed by rounds: the log ratio inside a round spreads by ${(100 * paired).toFixed(1)} %, the same runs without rounds by ${(100 * alone).toFixed(1)} %.`,
  "compare.readings": () => "A side holds readings, not frames: lows and hitches can't be compared.",
  "compare.nearMargin": () =>
    "The difference lies so near the margin that even 40 more runs a side would hardly settle it.",
  "compare.manyPairs": ({ pairs }: { pairs: number }) =>
    `${pairs} pairs were looked at: p is corrected after Holm (1979).`,

  "screen.effects": ({
    helping,
    hurting,
  }: {
    helping: { label: string; pair: Ratio }[];
    hurting: string[];
  }) => {
    const helps =
      helping.length === 0
        ? "None of the switches helps beyond the noise."
        : `${helping.map(({ label, pair }) => `${label} ${effect(pair)}`).join("; ")}.`;
    const hurts =
      hurting.length > 0 ? ` ${hurting.join(", ")} ${hurting.length === 1 ? "hurts" : "hurt"}.` : "";
    return `${helps}${hurts}${helping.length > 0 ? " Main effects only: confirm them together." : ""}`;
  },
  "screen.mainOnly": () => "Main effects only; how switches act on one another isn't seen.",

  "missing.half": ({ run, rows }: { run: number; rows: number }) =>
    `Fewer than half of the design's rows are in (${run} of ${rows}). Run some more of them, then decide.`,
  "missing.free": () => "The uncapped run is missing. Run the scene with the cap lifted, then decide.",
  "missing.arm": ({ arm, warm }: { arm: string; warm: boolean }) =>
    `${arm} has no ${warm ? "warm, whole " : ""}run yet. Run every arm once at least, then decide.`,
  "missing.runs": () => "No run is in yet.",

  "drift.revision": ({ rig, revision }: { rig: string; revision: number }) =>
    `${rig} has a newer revision (${revision}) than some of these runs were made on.`,
  "drift.room": ({ low, high }: { low: number; high: number }) => `The room was between ${low} and ${high} °C.`,
  "drift.capture": () => "The capture path changed between runs: capturing costs speed.",
  "drift.condition": ({ condition }: { condition: "pluggedIn" | "docked" | "cooler" }) =>
    ({
      pluggedIn: "Some runs were plugged in, others not.",
      docked: "Some runs were docked, others handheld.",
      cooler: "The cooler was on for some runs only.",
    })[condition],
  "drift.days": ({ days }: { days: number }) => `Its runs lie ${count(days, "day")} apart.`,
};
