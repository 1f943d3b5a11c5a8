import type { Sentences } from "./said";
import type { ClockColumn, DiagnoseCodes, SignCodes, Half, Loads, Cadence, Across } from "@/core/diagnose";
import type { Cause } from "@/core/diagnose";
import { capital, listed, share, signed } from "./figures";

export const causeWords: Record<Cause, { name: string; lever: string }> = {
  processor: {
    name: "the processor",
    lever: "Fewer pixels won't help: lighten the emulated machine, or raise clocks.",
  },
  graphics: { name: "graphics", lever: "Lower the internal scale, or try another back end or driver." },
  "power split": {
    name: "the power split",
    lever: "Processor and graphics share one budget: try another power mode, also a lower one.",
  },
  governor: {
    name: "the governor",
    lever: "Clocks sit low without need: try the next clock option, with the cooling for it.",
  },
  heat: { name: "heat", lever: "Cool it, ask less of it, or measure what it sustains." },
  memory: { name: "memory", lever: "Close what else runs, or leave the title before the wall." },
  shaders: {
    name: "shaders compiled on first sight",
    lever: "Keep the cache, compile ahead, and judge by the second pass.",
  },
  storage: { name: "storage", lever: "Move the title to a faster drive." },
  "cap or sync": {
    name: "a cap, or waiting for the display",
    lever: "Lift the limit or the sync for one run and see.",
  },
  "engine or driver": { name: "the engine or its driver", lever: "Try another back end, driver or build." },
};
const theHalf = (half: Half) => (half === "graphics" ? "graphics" : "the processor");
const loads = ({ processor, graphics }: Loads) =>
  `processor ${processor.toFixed(0)} %, graphics ${graphics.toFixed(0)} %`;
const cadence = ({ share: part, refreshes }: Cadence) =>
  `${share(part)} of frames last exactly ${refreshes === 1 ? "one refresh" : `${refreshes} refreshes`}`;

/** Signs, each a code of its own: evidence of one code is one sign, whatever its figures. */
const signSentences = {
  "sign.processorBusy": ({ processor, graphics }) =>
    `The busiest core is ${processor.toFixed(0)} % busy${graphics === null ? "" : `, graphics ${graphics.toFixed(0)} %`}.`,
  "sign.graphicsBusy": ({ processor, graphics }) =>
    `Graphics is ${graphics.toFixed(0)} % busy${processor === null ? "" : `, the busiest core ${processor.toFixed(0)} %`}.`,
  "sign.graphicsIdle": ({ graphics }) => `Graphics is only ${graphics.toFixed(0)} % busy.`,
  "sign.processorIdle": ({ processor }) => `The busiest core is only ${processor.toFixed(0)} % busy.`,
  "sign.hot": ({ celsius, limitC }) => `${celsius.toFixed(0)} °C, the limit is ${limitC.toFixed(0)} °C.`,
  "sign.clockAtLimit": ({ half, clock, celsius }) =>
    `The ${half} clock is down to ${share(clock)} at ${celsius.toFixed(0)} °C.`,
  "sign.budgetSplit": ({ half, clock, other, watts }) =>
    `At the mode's ${watts.toFixed(0)} W ${theHalf(half)} gets ${share(clock)} of its clock${other === null ? "" : ` while the other half has ${share(other)}`}.`,
  "sign.atBudget": ({ half, watts }) =>
    `It draws what the mode allows, ${watts.toFixed(0)} W, and how far the ${half} clock is from full isn't known.`,
  "sign.otherKeepsClock": ({ half, clock, other }) =>
    `${capital(theHalf(half))} is busy at ${share(clock)} of its clock while the other half keeps ${share(other)}; watts weren't logged.`,
  "sign.clockRests": ({ clock, whole }) =>
    `The processor as a whole is ${whole.toFixed(0)} % busy at ${share(clock)} of its full clock; its busiest core wasn't logged.`,
  "sign.wholeLoad": ({ whole, graphics }) =>
    `The processor as a whole is ${whole.toFixed(0)} % busy, which can hide a full core, and graphics ${graphics.toFixed(0)} %.`,
  "sign.wholeRoom": ({ whole, graphics }) =>
    `The processor as a whole is only ${whole.toFixed(0)} % busy, graphics ${graphics.toFixed(0)} %, and no cap shows.`,
  "sign.coreAlone": ({ processor }) =>
    `The busiest core is ${processor.toFixed(0)} % busy; the graphics load wasn't logged.`,
  "sign.coreRoom": ({ processor, clock }) =>
    `The busiest core is only ${processor.toFixed(0)} % busy; the graphics load wasn't logged${clock === null ? "" : `, its clock is at ${share(clock)}`}.`,
  "sign.clockLow": ({ half, clock, celsius, watts, modeWatts }) => {
    const known = [
      celsius !== null && `${celsius.toFixed(0)} °C`,
      watts !== null &&
        (modeWatts === null ? `${watts.toFixed(1)} W` : `${watts.toFixed(1)} of ${modeWatts.toFixed(0)} W`),
    ].filter(Boolean);
    return `${capital(theHalf(half))} is busy at ${share(clock)} of its full clock, ${known.length > 0 ? `with room left: ${known.join(", ")}` : "and neither heat nor watts were logged to explain it"}.`;
  },
  "sign.clockNotWork": () => "Its clock, not its work, is short.",
  "sign.neitherBusy": (both) => `Neither half is busy: ${loads(both)}.`,
  "sign.cadenceIdle": (figures) => `${cadence(figures)}, and neither half is busy (${loads(figures)}).`,
  "sign.noCap": (both) => `Neither half is busy (${loads(both)}) and no cap shows.`,
  "sign.overAllowed": ({ half, ms, allowedMs }) =>
    `${capital(half)} works ${ms.toFixed(1)} ms on every frame, and ${allowedMs.toFixed(1)} are allowed.`,
  "sign.setPace": ({ fps, spread: part, idle }) =>
    `It runs at ${fps.toFixed(1)} fps and hardly varies (${(100 * part).toFixed(1)} %)${idle ? ", with room in both halves" : ""}: something sets the pace.`,
  "sign.wanders": ({ processor, graphics }) =>
    `The busiest core is ${processor.toFixed(0)} % busy and graphics ${graphics.toFixed(0)} %: work that wanders from core to core fills none.`,
  "sign.clockTakenBack": ({ half, clock, earlier, celsius, warmedC }) =>
    `The ${half} clock is down to ${share(clock)} from ${share(earlier)} earlier in the run${celsius === null ? "; heat wasn't logged" : `, ${(warmedC ?? 0).toFixed(0)} °C warmer since, at ${celsius.toFixed(0)} °C`}.`,
  "sign.cadence": (figures) => `${cadence(figures)}.`,
  "sign.firstVisits": ({ firstMs, laterMs }) =>
    `First visits lost ${firstMs.toFixed(0)} ms to hitches, later ones ${laterMs.toFixed(0)} ms.`,
  "sign.entryEveryTime": ({ ms }) =>
    `Entering a scene costs ${ms.toFixed(0)} ms on every visit, the first or not.`,
  "sign.coldHitches": ({ ms, onEntry }) =>
    `A cold cache, and ${ms.toFixed(0)} ms lost to hitches, ${share(onEntry)} of it on entering scenes.`,
  "sign.entryOnce": ({ entryMs, allMs, warm }) =>
    `${entryMs.toFixed(0)} of ${allMs.toFixed(0)} ms are lost on entering scenes${warm ? ", with the cache warm" : ""}.`,
  "sign.nothingTwice": () => "Nothing was visited twice, so a first sight can't be told from slow storage.",
  "sign.diedFull": ({ megabytes, ofMb }) =>
    `It died with ${megabytes.toFixed(0)} of ${ofMb.toFixed(0)} MB taken.`,
  "sign.memoryGrows": ({ mbPerMinute, minutes }) =>
    `Memory grows by ${mbPerMinute.toFixed(0)} MB a minute: the wall is ${minutes.toFixed(0)} minutes away.`,
  "sign.memoryShort": ({ neededMb, leftMb }) =>
    `The title is said to need ${(neededMb / 1024).toFixed(1)} GB, and the rig leaves about ${(leftMb / 1024).toFixed(1)}: a larger swap, fewer programs beside it, or another rig.`,
  "sign.memoryFull": ({ full }) => `${share(full)} of memory is taken.`,
  "sign.clockSags": ({ half, fromMhz, toMhz, celsius }) =>
    `The ${half} clock fell from ${fromMhz.toFixed(0)} to ${toMhz.toFixed(0)} MHz ${celsius === null ? "in the course of the run; heat wasn't logged" : `as it reached ${celsius.toFixed(0)} °C`}.`,
  "sign.nativeStillSlow": ({ ms, allowedMs }) =>
    `Even at native resolution a frame takes ${ms.toFixed(1)} ms of the ${allowedMs.toFixed(1)} allowed: not the pixels.`,
  "sign.pixelsHardly": (across) => `Pixels hardly matter: ${spread(across)}.`,
  "sign.pixels": ({ part, ...across }) =>
    `About ${share(part)} of the frame goes with pixels: ${spread(across)}.`,
  "sign.moreSlower": ({ ratio, mode }) => `More power made it slower: ${signed(ratio, 0)} in ${mode}.`,
  "sign.lessFaster": ({ ratio, mode }) => `Less power makes it faster: ${signed(ratio, 0)} in ${mode}.`,
  "sign.forcedClocks": ({ ratio, option }) => `Clocks set to ${option} give ${signed(ratio, 0)}.`,
  "sign.cooler": ({ ratio }) => `A cooler gives ${signed(ratio, 0)}.`,
  "sign.capLifted": ({ ratio }) => `With the cap lifted it runs ${signed(ratio, 0)}.`,
} satisfies Partial<Sentences<SignCodes>>;

const clockColumnWords: Record<ClockColumn, string> = {
  cpuClock: "the processor's clock",
  gpuClock: "the graphics clock",
  watts: "watts",
  temperature: "the temperature",
};
const spread = ({ leastMs, leastPixels, mostMs, mostPixels }: Across) =>
  `${leastMs.toFixed(1)} ms at ${(leastPixels / 1e6).toFixed(2)} Mpx, ${mostMs.toFixed(1)} ms at ${(mostPixels / 1e6).toFixed(2)} Mpx`;

export const diagnosingSentences = {
  ...signSentences,
  "diagnosis.found": ({ first, chance, because, second, secondBecause }, words) =>
    `${capital(causeWords[first].name)} ${first === "shaders" ? "hold" : "holds"} it back${chance !== undefined && chance < 0.95 ? `, with a chance of ${Math.round(10 * chance)} in 10` : ""}. ${words(because)}${second && secondBecause ? ` ${capital(causeWords[second].name)} too: ${words(secondBecause)}` : ""}`,
  "diagnosis.hardly": ({ speedPercent, fullSpeedTimePercent }) =>
    `A little under full speed, ${speedPercent.toFixed(1)} % on average${fullSpeedTimePercent === null ? "" : ` and at it for ${fullSpeedTimePercent.toFixed(1)} % of the time`}, and no stretch of it is slow enough to show what holds it back.`,
  "diagnosis.nothing": () => "Nothing holds it back: full speed throughout.",
  "diagnosis.notEnough": () => "Not enough evidence to say what holds it back.",
  "settle.readLoads": () =>
    "Read the loads beside the rate, and type them with it (“24 gpu 97 core 88”): they say which half works longer on a frame.",
  "settle.walkTwice": () =>
    "Walk the same scenes twice in one run, with marks: what is lost only at first is shaders, what is lost every time is storage.",
  "settle.logLoadRepeat": () => "Log processor and graphics load beside the frames, and repeat the run.",
  "settle.logLoad": () => "Log processor and graphics load beside the frames.",
  "settle.halfScaleOrLoad": () =>
    "Run the same scene at half the internal scale: if it speeds up, it is the pixels. Logging processor and graphics load would tell at once.",
  "settle.liftCap": () => "Lift the rate limit for one run: a cap shows as a jump.",
  "settle.busiestThread": () =>
    "Log the busiest thread, or hold the engine to fewer cores for one run: work that wanders then fills one.",
  "settle.logColumns": ({ columns }) =>
    `Log ${listed(columns.map((each) => clockColumnWords[each]))} as well: together the clocks, watts and temperature tell heat, the power split and the governor apart.`,
  "settle.runCool": () =>
    "Start one run cool and one warm: a clock that sags only when warm is heat's, one that is low from the start the governor's.",
  "settle.halfScale": () =>
    "Run the same scene at half the internal scale: if nothing changes, it isn't the pixels.",
} satisfies Partial<Sentences<DiagnoseCodes>>;
