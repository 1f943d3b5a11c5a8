import type { Sentences } from "./said";
import type { SharedCodes } from "@/core/said";
import type { TrialCodes, LightChange, Losses, Usual } from "@/core/trial";
import type { WordsCodes } from "./codes";
import type { CompareCodes } from "@/core/compare";
import { armWords, capital, count, effect, listed, signed } from "./figures";
import type { Ratio } from "@/core/said";
import type { Step } from "@/core/compare";
import { gradeWords, lightsWords } from "./verdict";

const usual = (one: Usual) => (Array.isArray(one) ? lightsWords(one[0], one) : gradeWords[one].name);
const light = (change: LightChange) => (change ? `, ${usual(change[0])} → ${usual(change[1])}` : "");
const both = (pair: Ratio, change: LightChange) => `${effect(pair)}${light(change)}`;

/** What a faster arm loses, the worst first. */
const lost = ({ lights, hitches, low }: Losses) =>
  listed([
    ...(lights ? [`light (${usual(lights[0])} → ${usual(lights[1])})`] : []),
    ...(hitches === null
      ? []
      : [`smoothness (${hitches.toFixed(hitches < 10 ? 1 : 0)} more hitches a minute)`]),
    ...(low === null ? [] : [`the slowest moments (1 % low ${signed(low)})`]),
  ]);

/** A chance in tenths, never rounded up to certainty. */
const tenths = (chance: number) => Math.min(9, Math.round(10 * chance));

/** What the next steps would do. @example further([{ more: 1, chance: 0.3 }, { more: 2, chance: 0.9 }]) // → "1 more run a side settles it in 3 of 10 cases, 2 in 9" */
function further(steps: Step[]): string {
  const [first, ...others] = steps;
  if (!first) return "no number of runs settles it";
  const inTen = ({ chance }: Step) => (chance < 0.05 ? "hardly any" : `${tenths(chance)} of 10 cases`);
  // What is counted stands with the first that has a number.
  const counted = steps.findIndex(({ chance }) => chance >= 0.05);
  const rest = others.map(
    (step, at) =>
      `${step.more} in ${step.chance < 0.05 ? "hardly any" : at + 1 === counted ? inTen(step) : tenths(step.chance)}`,
  );
  return `${count(first.more, "more run")} a side ${first.more === 1 ? "settles" : "settle"} it in ${listed([inTen(first), ...rest])}`;
}

/** What comparisons come to, and what a person should know of how they were made. */
export const comparingSentences = {
  "trial.contradicting": ({ arm, low, lowRun, high, highRun }) =>
    `Runs of ${arm} contradict each other: ${low.toFixed(1)} fps in run ${lowRun}, ${high.toFixed(1)} in run ${highRun}, over three times as much. One of them is of something else: give it its own arm, or leave it out.`,
  "effect.pair": ({ pair }) => effect(pair),
  "compare.faultsOutweigh": ({ pair, lights }) =>
    `Put back: ${both(pair, lights)}, but its faults outweigh the speed.`,
  "compare.faultGone": ({ arm, pair, lights }) => `Keep ${arm}: ${both(pair, lights)}, and the fault is gone.`,
  "compare.better": ({ arm, pair, lights }) => `Keep ${arm}: ${both(pair, lights)}.`,
  "compare.atACost": ({ arm, pair, losses }) =>
    `Loses ${lost(losses)}. For the rate keep ${arm}: ${effect(pair)}.`,
  "compare.tooDear": ({ pair, losses, aim }) =>
    `Loses ${lost(losses)}. Put back: ${effect(pair)} doesn't make up for it${aim === "speed" ? ", for the title isn't at full speed for longer" : ` where the aim is ${aim === "picture" ? "the picture" : "the battery"}`}.`,
  "compare.worse": ({ pair, lights }) => `Put back: ${both(pair, lights)}.`,
  "compare.brighter": ({ arm, pair, lights, same }) =>
    `Keep ${arm}: the rate is ${same ? "the same" : "not told apart"} (${signed(pair.ratio)}), but every run shines brighter${light(lights)}.`,
  "compare.noDifference": ({ pair, lights }) =>
    `Put back: no difference worth having, ${both(pair, lights)}; fewer overrides are easier to keep.`,
  "compare.undecided": ({ pair, lights, why, steps = [] }, words) =>
    `Undecided: ${both(pair, lights)}. ${why ? `${words(why)} ` : ""}${steps.length > 0 ? `${capital(further(steps))}; until then put it back.` : "Put it back."}`,
  "compare.whichever": ({ pair, lights, arm, steps }) =>
    `Whichever: ${arm} changes the rate by between ${signed(pair.low)} and ${signed(pair.high)}${light(lights)}, and ${further(steps.slice(-1))}. Choose by taste or by what it costs; put back, there is one override less to keep.`,
  "compare.further": ({ steps }) => further(steps),
  "compare.heldByFaults": ({ fastest, stay }) =>
    `${listed(fastest)} ${fastest.length === 1 ? "is" : "are"} fastest, but held down by faults. Stay with ${armWords(stay)}.`,
  "compare.stay": ({ stay }) => `Stay with ${armWords(stay)}: no other arm beats it.`,
  "compare.tieStay": ({ tied, stay }) => `${listed(tied)} tie inside the noise: stay with ${armWords(stay)}.`,
  "compare.keepOf": ({ arm, over, pair, lights, ties }) =>
    `Keep ${arm}: ${effect(pair)} over ${armWords(over)}${light(lights)}.${ties.length > 0 ? ` ${listed(ties)} ${ties.length === 1 ? "ties" : "tie"} with it inside the noise.` : ""}`,
  "compare.underCap": () =>
    "Every run is held by a cap or the display, so runs differ by next to nothing; what either side could do free isn't seen.",
  "compare.borrowedSpread": ({ sd }) =>
    `The spread between runs leans on this rig's repeats: ${(100 * sd).toFixed(1)} %.`,
  "compare.assumedSpread": ({ sd }) =>
    `How much this rig varies from run to run is hardly known: about ${(100 * sd).toFixed(1)} % is assumed, and the interval is wide for it. Every repeat makes it surer.`,
  "compare.oneRun": () =>
    "A side has one run: it is called by how much rigs usually vary from run to run, so only a large difference shows, and what the rig did between the two isn't seen.",
  "compare.orderMixed": () =>
    "One side ran before the other, so the change can't be told from what the rig did meanwhile. Run them in turn: A B, B A.",
  "compare.ceiling": () =>
    "A side may have been faster than its video can show, so the difference can't be told. Capture more pictures a second.",
  "compare.seen": ({ bound }) =>
    `Measured from videos: what they leave open widens the interval by ${(100 * bound).toFixed(1)} % either way, and no repeat takes that away.`,
  "compare.noSpread": () =>
    "One run a side doesn't show how full-speed time and hitches vary from run to run: no interval can be given.",
  "compare.byOrder": ({ drift, spread, alone }) =>
    `Fitted with the order of the runs: the rate drifted by ${signed(Math.exp(drift))} from the first to the last; runs spread by ${(100 * spread).toFixed(1)} % about that, by ${(100 * alone).toFixed(1)} % without it. So the effect may differ from that of the two averages.`,
  "compare.byRounds": () =>
    "Analysed by rounds, each against itself. Who went first isn't known, so either is allowed for.",
  "compare.stepped": ({ after, size }) =>
    `The rig's rate changed by about ${signed(Math.exp(size))} after run ${after}, in both sides alike. Look what changed then: power mode, charger, heat, another program.`,
  "compare.readings": () => "A side holds readings, not frames: lows and hitches can't be compared.",
  "compare.manyPairs": ({ pairs }) =>
    `${pairs} pairs were looked at, so each has to be surer than one alone would (Holm 1979).`,

  "screen.effects": ({ helping, hurting }) => {
    const helps =
      helping.length === 0
        ? "None of the switches helps beyond the noise."
        : `${helping.map(({ label, pair }) => `${label} ${effect(pair)}`).join("; ")}: leads, each to be confirmed by a trial of its own.`;
    const hurts = hurting.length > 0 ? ` ${listed(hurting)} ${hurting.length === 1 ? "hurts" : "hurt"}.` : "";
    return `${helps}${hurts}`;
  },
  "screen.leads": ({ mixed }) =>
    mixed
      ? "What each switch does by itself is mixed with what pairs of them do together: run the second half, with every switch set the other way, or take these as leads only."
      : "Both halves are run, so what each switch does by itself stands free of what pairs of them do together; the intervals hold for all switches at once.",

  "missing.half": ({ run, rows }) =>
    `Fewer than half of the design's rows are in (${run} of ${rows}). Run some more of them, then decide.`,
  "missing.free": () => "The uncapped run is missing. Run the scene with the cap lifted, then decide.",
  "missing.arm": ({ arm, warm }) =>
    `${arm === "as it is" ? "What is in force" : arm} has no ${warm ? "warm, whole " : ""}run yet. Run every arm once at least, then decide.`,
  "missing.runs": () => "No run is in yet.",

  "drift.revision": ({ rig, revision }) =>
    `${rig} has a newer revision (${revision}) than some of these runs were made on.`,
  "drift.room": ({ low, high }) => `The room was between ${low} and ${high} °C.`,
  "drift.capture": () => "The capture path changed between runs: capturing costs speed.",
  "drift.caches": ({ warmOverCold }) =>
    `${warmOverCold ? "A warm run lies over one that compiled effects on first sight" : "A run that compiled effects on first sight lies over warm ones"}: what differs may be the cache and nothing else.`,
  "drift.condition": ({ condition }) =>
    ({
      pluggedIn: "Some runs were plugged in, others not.",
      docked: "Some runs were docked, others handheld.",
      cooler: "The cooler was on for some runs only.",
    })[condition],
  "drift.days": ({ days }) => `Its runs lie ${count(days, "day")} apart.`,
} satisfies Partial<Sentences<SharedCodes & TrialCodes & WordsCodes & CompareCodes>>;
