import type { Cause } from "@/core/diagnose";
import { capital, listed, share, signed } from "./figures";
import type { AnySaid, InWords } from "./said";

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

type Half = "processor" | "graphics";
interface Loads {
  processor: number;
  graphics: number;
}
interface Cadence {
  share: number;
  refreshes: number;
}
const theHalf = (half: Half) => (half === "graphics" ? "graphics" : "the processor");
const loads = ({ processor, graphics }: Loads) =>
  `processor ${processor.toFixed(0)} %, graphics ${graphics.toFixed(0)} %`;
const cadence = ({ share: part, refreshes }: Cadence) =>
  `${share(part)} of frames last exactly ${refreshes === 1 ? "one refresh" : `${refreshes} refreshes`}`;

/** Signs, each a code of its own: evidence of one code is one sign, whatever its figures. */
const signSentences = {
  "sign.processorBusy": ({ processor, graphics }: { processor: number; graphics: number | null }) =>
    `The busiest core is ${processor.toFixed(0)} % busy${graphics === null ? "" : `, graphics ${graphics.toFixed(0)} %`}.`,
  "sign.graphicsBusy": ({ processor, graphics }: { processor: number | null; graphics: number }) =>
    `Graphics is ${graphics.toFixed(0)} % busy${processor === null ? "" : `, the busiest core ${processor.toFixed(0)} %`}.`,
  "sign.graphicsIdle": ({ graphics }: { graphics: number }) =>
    `Graphics is only ${graphics.toFixed(0)} % busy.`,
  "sign.processorIdle": ({ processor }: { processor: number }) =>
    `The busiest core is only ${processor.toFixed(0)} % busy.`,
  "sign.hot": ({ celsius, limitC }: { celsius: number; limitC: number }) =>
    `${celsius.toFixed(0)} °C, the limit is ${limitC.toFixed(0)} °C.`,
  "sign.clockAtLimit": ({ half, clock, celsius }: { half: Half; clock: number; celsius: number }) =>
    `The ${half} clock is down to ${share(clock)} at ${celsius.toFixed(0)} °C.`,
  "sign.budgetSplit": ({
    half,
    clock,
    other,
    watts,
  }: {
    half: Half;
    clock: number;
    other: number | null;
    watts: number;
  }) =>
    `At the mode's ${watts.toFixed(0)} W ${theHalf(half)} gets ${share(clock)} of its clock${other === null ? "" : ` while the other half has ${share(other)}`}.`,
  "sign.atBudget": ({ half, watts }: { half: Half; watts: number }) =>
    `It draws what the mode allows, ${watts.toFixed(0)} W, and how far the ${half} clock is from full isn't known.`,
  "sign.otherKeepsClock": ({ half, clock, other }: { half: Half; clock: number; other: number }) =>
    `${capital(theHalf(half))} is busy at ${share(clock)} of its clock while the other half keeps ${share(other)}; watts weren't logged.`,
  "sign.clockRests": ({ clock, whole }: { clock: number; whole: number }) =>
    `The processor as a whole is ${whole.toFixed(0)} % busy at ${share(clock)} of its full clock; its busiest core wasn't logged.`,
  "sign.wholeLoad": ({ whole, graphics }: { whole: number; graphics: number }) =>
    `The processor as a whole is ${whole.toFixed(0)} % busy, which can hide a full core, and graphics ${graphics.toFixed(0)} %.`,
  "sign.wholeRoom": ({ whole, graphics }: { whole: number; graphics: number }) =>
    `The processor as a whole is only ${whole.toFixed(0)} % busy, graphics ${graphics.toFixed(0)} %, and no cap shows.`,
  "sign.coreAlone": ({ processor }: { processor: number }) =>
    `The busiest core is ${processor.toFixed(0)} % busy; the graphics load wasn't logged.`,
  "sign.coreRoom": ({ processor, clock }: { processor: number; clock: number | null }) =>
    `The busiest core is only ${processor.toFixed(0)} % busy; the graphics load wasn't logged${clock === null ? "" : `, its clock is at ${share(clock)}`}.`,
  "sign.clockLow": ({
    half,
    clock,
    celsius,
    watts,
    modeWatts,
  }: {
    half: Half;
    clock: number;
    celsius: number | null;
    watts: number | null;
    modeWatts: number | null;
  }) => {
    const known = [
      celsius !== null && `${celsius.toFixed(0)} °C`,
      watts !== null &&
        (modeWatts === null ? `${watts.toFixed(1)} W` : `${watts.toFixed(1)} of ${modeWatts.toFixed(0)} W`),
    ].filter(Boolean);
    return `${capital(theHalf(half))} is busy at ${share(clock)} of its full clock, ${known.length > 0 ? `with room left: ${known.join(", ")}` : "and neither heat nor watts were logged to explain it"}.`;
  },
  "sign.clockNotWork": () => "Its clock, not its work, is short.",
  "sign.neitherBusy": (both: Loads) => `Neither half is busy: ${loads(both)}.`,
  "sign.cadenceIdle": (figures: Cadence & Loads) =>
    `${cadence(figures)}, and neither half is busy (${loads(figures)}).`,
  "sign.noCap": (both: Loads) => `Neither half is busy (${loads(both)}) and no cap shows.`,
  "sign.overAllowed": ({ half, ms, allowedMs }: { half: Half; ms: number; allowedMs: number }) =>
    `${capital(half)} works ${ms.toFixed(1)} ms on every frame, and ${allowedMs.toFixed(1)} are allowed.`,
  "sign.setPace": ({ fps, spread: part, idle }: { fps: number; spread: number; idle: boolean }) =>
    `It runs at ${fps.toFixed(1)} fps and hardly varies (${(100 * part).toFixed(1)} %)${idle ? ", with room in both halves" : ""}: something sets the pace.`,
  "sign.wanders": ({ processor, graphics }: Loads) =>
    `The busiest core is ${processor.toFixed(0)} % busy and graphics ${graphics.toFixed(0)} %: work that wanders from core to core fills none.`,
  "sign.clockTakenBack": ({
    half,
    clock,
    earlier,
    celsius,
    warmedC,
  }: {
    half: Half;
    clock: number;
    earlier: number;
    celsius: number | null;
    warmedC: number | null;
  }) =>
    `The ${half} clock is down to ${share(clock)} from ${share(earlier)} earlier in the run${celsius === null ? "; heat wasn't logged" : `, ${(warmedC ?? 0).toFixed(0)} °C warmer since, at ${celsius.toFixed(0)} °C`}.`,
  "sign.cadence": (figures: Cadence) => `${cadence(figures)}.`,
  "sign.firstVisits": ({ firstMs, laterMs }: { firstMs: number; laterMs: number }) =>
    `First visits lost ${firstMs.toFixed(0)} ms to hitches, later ones ${laterMs.toFixed(0)} ms.`,
  "sign.entryEveryTime": ({ ms }: { ms: number }) =>
    `Entering a scene costs ${ms.toFixed(0)} ms on every visit, the first or not.`,
  "sign.coldHitches": ({ ms, onEntry }: { ms: number; onEntry: number }) =>
    `A cold cache, and ${ms.toFixed(0)} ms lost to hitches, ${share(onEntry)} of it on entering scenes.`,
  "sign.entryOnce": ({ entryMs, allMs, warm }: { entryMs: number; allMs: number; warm: boolean }) =>
    `${entryMs.toFixed(0)} of ${allMs.toFixed(0)} ms are lost on entering scenes${warm ? ", with the cache warm" : ""}.`,
  "sign.nothingTwice": () => "Nothing was visited twice, so a first sight can't be told from slow storage.",
  "sign.diedFull": ({ megabytes, ofMb }: { megabytes: number; ofMb: number }) =>
    `It died with ${megabytes.toFixed(0)} of ${ofMb.toFixed(0)} MB taken.`,
  "sign.memoryGrows": ({ mbPerMinute, minutes }: { mbPerMinute: number; minutes: number }) =>
    `Memory grows by ${mbPerMinute.toFixed(0)} MB a minute: the wall is ${minutes.toFixed(0)} minutes away.`,
  "sign.memoryShort": ({ neededMb, leftMb }: { neededMb: number; leftMb: number }) =>
    `The title is said to need ${(neededMb / 1024).toFixed(1)} GB, and the rig leaves about ${(leftMb / 1024).toFixed(1)}: a larger swap, fewer programs beside it, or another rig.`,
  "sign.memoryFull": ({ full }: { full: number }) => `${share(full)} of memory is taken.`,
  "sign.clockSags": ({
    half,
    fromMhz,
    toMhz,
    celsius,
  }: {
    half: Half;
    fromMhz: number;
    toMhz: number;
    celsius: number | null;
  }) =>
    `The ${half} clock fell from ${fromMhz.toFixed(0)} to ${toMhz.toFixed(0)} MHz ${celsius === null ? "in the course of the run; heat wasn't logged" : `as it reached ${celsius.toFixed(0)} °C`}.`,
  "sign.nativeStillSlow": ({ ms, allowedMs }: { ms: number; allowedMs: number }) =>
    `Even at native resolution a frame takes ${ms.toFixed(1)} ms of the ${allowedMs.toFixed(1)} allowed: not the pixels.`,
  "sign.pixelsHardly": (across: Across) => `Pixels hardly matter: ${spread(across)}.`,
  "sign.pixels": ({ part, ...across }: Across & { part: number }) =>
    `About ${share(part)} of the frame goes with pixels: ${spread(across)}.`,
  "sign.moreSlower": ({ ratio, mode }: { ratio: number; mode: string }) =>
    `More power made it slower: ${signed(ratio, 0)} in ${mode}.`,
  "sign.lessFaster": ({ ratio, mode }: { ratio: number; mode: string }) =>
    `Less power makes it faster: ${signed(ratio, 0)} in ${mode}.`,
  "sign.forcedClocks": ({ ratio, option }: { ratio: number; option: string }) =>
    `Clocks set to ${option} give ${signed(ratio, 0)}.`,
  "sign.cooler": ({ ratio }: { ratio: number }) => `A cooler gives ${signed(ratio, 0)}.`,
  "sign.capLifted": ({ ratio }: { ratio: number }) => `With the cap lifted it runs ${signed(ratio, 0)}.`,
};
export type EvidenceCode = keyof typeof signSentences;

const clockColumnWords = {
  cpuClock: "the processor's clock",
  gpuClock: "the graphics clock",
  watts: "watts",
  temperature: "the temperature",
};

interface Across {
  leastMs: number;
  leastPixels: number;
  mostMs: number;
  mostPixels: number;
}
const spread = ({ leastMs, leastPixels, mostMs, mostPixels }: Across) =>
  `${leastMs.toFixed(1)} ms at ${(leastPixels / 1e6).toFixed(2)} Mpx, ${mostMs.toFixed(1)} ms at ${(mostPixels / 1e6).toFixed(2)} Mpx`;

export const diagnosingSentences = {
  ...signSentences,
  "diagnosis.found": (
    {
      first,
      chance,
      because,
      second,
      secondBecause,
    }: {
      first: Cause;
      /** Absent from what was kept before chances were reckoned. */
      chance?: number;
      because: AnySaid;
      second: Cause | null;
      secondBecause: AnySaid | null;
    },
    words: InWords,
  ) =>
    `${capital(causeWords[first].name)} ${first === "shaders" ? "hold" : "holds"} it back${chance !== undefined && chance < 0.95 ? `, ${Math.round(10 * chance)} in 10` : ""}. ${words(because)}${second && secondBecause ? ` ${capital(causeWords[second].name)} too: ${words(secondBecause)}` : ""}`,
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
  "settle.logColumns": ({ columns }: { columns: (keyof typeof clockColumnWords)[] }) =>
    `Log ${listed(columns.map((each) => clockColumnWords[each]))} as well: together the clocks, watts and temperature tell heat, the power split and the governor apart.`,
  "settle.runCool": () =>
    "Start one run cool and one warm: a clock that sags only when warm is heat's, one that is low from the start the governor's.",
  "settle.halfScale": () =>
    "Run the same scene at half the internal scale: if nothing changes, it isn't the pixels.",
};
