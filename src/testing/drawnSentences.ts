import { said, sentences, type Code, type Said } from "@/core/words";

type FiguresOf<C extends Code> = Parameters<(typeof sentences)[C]>[0];
/** Sentences without figures are drawn once as they are; every other with figures at both ends and between. */
type Drawn = { [C in Code as FiguresOf<C> extends undefined ? never : C]: FiguresOf<C>[] };

const small = { ratio: 1.021, low: 1.004, high: 1.038 },
  large = { ratio: 0.62, low: 0.55, high: 0.7 },
  level = { ratio: 1, low: 1, high: 1 };
const change = { label: "Internal scale", from: 3, to: 2, pixelRatio: 4 / 9, tried: 0, helped: 0 };
const modeOf = { mode: "Even", targetFps: 60, fps: 60.4, watts: 13.7 };
const across = { leastMs: 9.1, leastPixels: 76_800, mostMs: 18.4, mostPixels: 1_228_800 };
const failed = { step: "2.9 GHz", fault: { why: "limit", celsius: 96, limitC: 95 } } as const;

const atLines = [
  { lines: [9], count: 1 },
  { lines: [2, 5, 9, 14, 15, 16, 20, 21, 40], count: 31 },
];

/** Figures for every sentence, for reading it and for testing what it says. */
export const drawnSentences: Drawn = {
  "kept.verbatim": [{ text: "+4.2 % (95 %: +1.0 % to +7.4 %)" }],
  "verdict.counterDisagrees": [{ fps: 60, speedPercent: 84.5 }],
  "verdict.tooFast": [{ speedPercent: 117 }],
  "capture.measured": [
    { captureFps: 60, low: 41.77, high: 41.88 },
    { captureFps: 59.94, low: 29.9, high: 30.1 },
  ],
  "capture.ceiling": [{ averageFps: 59.8 }],
  "capture.unsure": [
    { unsure: 31, of: 1200 },
    { unsure: 1, of: 20 },
  ],
  "capture.clock": [{ speed: 0.921, low: 0.905, high: 0.938 }],
  "capture.counter": [{ shown: 60, averageFps: 41.8 }],
  "trial.contradicting": [{ arm: "scale 2", low: 14.2, lowRun: 3, high: 59.9, highRun: 5 }],
  "incoming.packed": [{ as: "zip" }],
  "incoming.spoilt": [
    { what: "recipe", where: "title.name", message: "Invalid input: expected string" },
    { what: "job", where: "", message: "Something is missing." },
  ],
  "incoming.spoiltConfig": [{ message: "Line 4: a value is missing" }],
  "verdict.tooShort": [
    { seconds: 0.4, wanted: 10 },
    { seconds: 8.25, wanted: 10 },
  ],
  "verdict.tooFewReadings": [
    { readings: 1, wanted: 5 },
    { readings: 4, wanted: 5 },
  ],
  "verdict.justUnder": [{ slowestFps: 59.39, wantedFps: 59.4 }],
  "diagnosis.hardly": [
    { speedPercent: 98.6, fullSpeedTimePercent: 81.2 },
    { speedPercent: 98.6, fullSpeedTimePercent: null },
  ],
  "resolution.passedOver": [
    { scale: 4, ms: 31.2, allowedMs: 25.3, keptMs: 17.1 },
    { scale: 4, ms: 31.2, allowedMs: 25.3, keptMs: null },
  ],
  "resolution.eye": [
    { holds: 7, kept: 7, fails: { scale: 9, fps: 52 }, next: 8, targetFps: 60, byRates: false },
    { holds: 2, kept: 2, fails: { scale: 6, fps: 31 }, next: 3, targetFps: 59.94, byRates: true },
    { holds: 3, kept: 3, fails: { scale: 4, fps: 48 }, next: null, targetFps: 60, byRates: false },
    { holds: 6, kept: 4, fails: null, next: null, targetFps: 60, byRates: false },
  ],
  "resolution.eyeNone": [
    { smallest: 2, fps: 41, next: 1, targetFps: 60 },
    { smallest: 1, fps: 41, next: null, targetFps: 60 },
  ],
  "resolution.contradicts": [
    { scale: 3, other: null },
    { scale: 2, other: 3 },
  ],
  "resolution.tryNext": [{ scale: 8 }],
  "verdict.spikes": [
    { periodMs: 1000, extraMs: 16.2, count: 59 },
    { periodMs: 480, extraMs: 3.4, count: 120 },
  ],
  "verdict.straddles": [{ worse: "gutters", better: "dims", low: 79, high: 83 }],
  "holds.otherwise": [
    { differing: [{ what: "powerMode", label: "", is: "Hush", holds: "Brisk" }] },
    {
      differing: [
        { what: "setting", label: "Internal scale", is: 2, holds: 3 },
        { what: "setUp", label: "", is: null, holds: "Card" },
        { what: "clocks", label: "", is: "even", holds: "performance" },
        { what: "cooler", label: "", is: false, holds: true },
        { what: "pluggedIn", label: "", is: true, holds: false },
        { what: "docked", label: "", is: true, holds: false },
        { what: "display", label: "", is: "Screen", holds: "Television" },
        { what: "build", label: "", is: "a", holds: "b" },
        { what: "driver", label: "", is: "24.1", holds: "24.2" },
        { what: "targetFps", label: "", is: 59.94, holds: 30 },
      ],
    },
  ],
  "holds.bench": [
    { set: [{ what: "powerMode", label: "", is: "Hush", holds: "Brisk" }] },
    {
      set: [
        { what: "powerMode", label: "", is: "Hush", holds: "Brisk" },
        { what: "cooler", label: "", is: false, holds: true },
      ],
    },
  ],
  "conditions.against": [
    { condition: "pluggedIn", is: true },
    { condition: "docked", is: false },
    { condition: "cooler", is: true },
  ],
  "effect.pair": [{ pair: small }, { pair: large }, { pair: level }],
  "compare.faultsOutweigh": [{ pair: small, lights: ["dims", "gutters"] }],
  "compare.faultGone": [{ arm: "Newest driver", pair: small, lights: null }],
  "compare.better": [{ arm: "Internal scale 2", pair: small, lights: ["dims", "steady"] }],
  "compare.atACost": [
    {
      arm: "Turbo",
      pair: large,
      lights: null,
      losses: { lights: null, low: 0.4, hitches: 22 },
    },
  ],
  "compare.tooDear": [
    {
      pair: large,
      lights: ["steady", "flickers"],
      losses: { lights: ["steady", "flickers"], low: null, hitches: 22.3 },
      aim: "speed",
    },
    {
      pair: large,
      lights: null,
      losses: { lights: null, low: 0.4, hitches: 3.4 },
      aim: "picture",
    },
  ],
  "compare.worse": [{ pair: large, lights: ["steady", "dims"] }],
  "compare.brighter": [
    { arm: "Hold the rate", pair: level, lights: ["flickers", "steady"], same: true },
    { arm: "Hold the rate", pair: small, lights: ["flickers", "steady"], same: false },
  ],
  "compare.noDifference": [{ pair: { ratio: 1.002, low: 0.991, high: 1.013 }, lights: null }],
  "compare.undecided": [
    { pair: small, lights: null, why: null, steps: [{ more: 1, chance: 0.95 }] },
    {
      pair: small,
      lights: null,
      why: said("compare.orderMixed"),
      steps: [
        { more: 1, chance: 0.02 },
        { more: 2, chance: 0.4 },
        { more: 4, chance: 0.62 },
        { more: 8, chance: 0.81 },
      ],
    },
    { pair: small, lights: null, why: said("compare.ceiling"), steps: [] },
  ],
  "compare.whichever": [
    {
      pair: { ratio: 1.005, low: 0.98, high: 1.03 },
      lights: null,
      arm: "Internal scale 2",
      steps: [{ more: 8, chance: 0.3 }],
    },
  ],
  "compare.further": [
    { steps: [{ more: 1, chance: 0.97 }] },
    {
      steps: [
        { more: 4, chance: 0.5 },
        { more: 8, chance: 0.7 },
      ],
    },
    { steps: [] },
  ],
  "compare.heldByFaults": [
    { fastest: ["Newest driver"], stay: "as it is" },
    { fastest: ["Vulkan", "Newest driver"], stay: "as it is" },
  ],
  "compare.stay": [{ stay: "as it is" }],
  "compare.tieStay": [{ tied: ["Vulkan", "OpenGL"], stay: "as it is" }],
  "compare.keepOf": [
    { arm: "Vulkan", over: "as it is", pair: small, lights: null, ties: [] },
    {
      arm: "Vulkan",
      over: "as it is",
      pair: small,
      lights: ["dims", "steady"],
      ties: ["OpenGL", "Newest driver"],
    },
  ],
  "compare.borrowedSpread": [{ sd: 0.012 }],
  "compare.assumedSpread": [{ sd: 0.035 }],
  "compare.byOrder": [{ drift: -0.024, spread: 0.004, alone: 0.011 }],
  "compare.stepped": [{ after: 4, size: -0.1 }],
  "compare.seen": [{ bound: 0.004 }],
  "compare.manyPairs": [{ pairs: 3 }],
  "screen.effects": [
    { helping: [], hurting: [] },
    { helping: [{ label: "Fast memory", pair: small }], hurting: ["Accurate clocks"] },
    {
      helping: [
        { label: "Fast memory", pair: small },
        { label: "Skip drawing", pair: small },
      ],
      hurting: ["Accurate clocks", "Deep shadows"],
    },
  ],
  "screen.leads": [{ mixed: true }, { mixed: false }],
  "missing.half": [{ run: 3, rows: 8 }],
  "missing.arm": [
    { arm: "Vulkan", warm: true },
    { arm: "Vulkan", warm: false },
  ],
  "drift.revision": [{ rig: "Pipit", revision: 3 }],
  "drift.caches": [{ warmOverCold: true }, { warmOverCold: false }],
  "drift.room": [{ low: 19, high: 26 }],
  "drift.condition": [{ condition: "pluggedIn" }, { condition: "docked" }, { condition: "cooler" }],
  "drift.days": [{ days: 1 }, { days: 12 }],
  "resolution.next": [{ scale: 3, targetFps: 59.94, low: 2, high: 4 }],
  "resolution.fewLevels": [{ only: null }, { only: 2 }],
  "resolution.elsewhere": [{ targetFps: 60 }],
  "resolution.free": [
    { largest: 4, kept: 4 },
    { largest: 6, kept: 4 },
  ],
  "resolution.none": [
    { targetFps: 60, floorMs: 19.2, failing: null },
    { targetFps: 60, floorMs: 15.4, failing: { scale: 1, what: "99th percentile", ms: 21.3, allowedMs: 16.8 } },
  ],
  "resolution.keep": [
    { kept: 3, largest: 3, steady: 3, targetFps: 60, interval: [3, 3] },
    { kept: 3, largest: 5, steady: 4, targetFps: 59.94, interval: [0, 5] },
  ],
  "resolution.beyond": [{ found: 5, most: 4 }],
  "power.noRun": [{ mode: "Full" }],
  "power.slower": [{ mode: "Full", fps: 51.2, than: "Even", thanFps: 58.9 }],
  "power.holds": [modeOf, { ...modeOf, watts: null }, { ...modeOf, flickers: true }],
  "power.fastest": [{ ...modeOf, fps: 48.2 }],
  "power.mayBeAsFast": [
    { ...modeOf, fps: 55, other: { mode: "15 W", fps: 50, watts: 14.8 }, runs: 1 },
    { ...modeOf, fps: 55, watts: null, other: { mode: "15 W", fps: 50, watts: null }, runs: 2 },
  ],
  "power.asFast": [{ ...modeOf, fps: 48.2, watts: null }],
  "power.spot": [
    { spot: said("power.holds", modeOf), slower: null, hours: null },
    {
      spot: said("power.holds", modeOf),
      slower: said("power.slower", { mode: "Full", fps: 51.2, than: "Even", thanFps: 58.9 }),
      hours: 3.5,
    },
  ],
  "heat.noTemperature": [{ run: 4 }],
  "heat.found": [
    {
      arm: null,
      settlesC: 81.4,
      interval: { low: 79.8, high: 83.6 },
      hottestC: 80,
      limitC: 95,
      throttled: null,
      outlook: { state: "never" },
      burst: 60,
      sustained: 59.9,
      coolDownMinutes: 6.2,
      others: [],
    },
    {
      arm: "cooler off",
      settlesC: null,
      interval: null,
      hottestC: 92,
      limitC: 95,
      throttled: null,
      outlook: { state: "open", runMinutes: 14 },
      burst: null,
      sustained: null,
      coolDownMinutes: null,
      others: [{ arm: "cooler on", afterMs: 372_000, deepest: 0.81 }],
    },
    {
      arm: null,
      settlesC: 97.1,
      interval: { low: 95.2, high: 99 },
      hottestC: 95,
      limitC: 95,
      throttled: { half: "processor", afterMs: 240_000 },
      burst: 60,
      sustained: 47.5,
      coolDownMinutes: 9,
      others: [],
    },
  ],
  "clocks.soak": [
    { step: "2.6 GHz", minutes: 10, more: false, failed: null, limitC: 95 },
    { step: "2.6 GHz", minutes: 4.5, more: true, failed, limitC: null },
  ],
  "clocks.notClean": [{ step: "2.4 GHz", failed: { step: "2.4 GHz", fault: { why: "artefacts" } } }],
  "clocks.confirm": [{ step: "2.6 GHz", minutes: 10, failed: { step: "2.8 GHz", fault: { why: "crashed" } } }],
  "clocks.confirmed": [
    { step: "2.6 GHz", minutes: 20, perHour: 9, failed: { step: "2.8 GHz", fault: { why: "throttled" } } },
  ],
  "clocks.found": [
    {
      next: said("clocks.soak", { step: "2.6 GHz", minutes: 10, more: false, failed: null, limitC: 95 }),
      school: null,
    },
  ],
  "school.holds": [
    { name: "Quiet", fps: 60, celsius: 71, alone: true },
    { name: "Quiet", fps: 60, celsius: null, alone: false },
  ],
  "school.none": [
    { name: "Loud", fps: 52.4, cool: true },
    { name: "Loud", fps: 52.4, cool: false },
  ],
  "memory.noReadings": [{ run: 2 }],
  "memory.steady": [
    { mbPerMinute: 0.4, low: -1.1, high: 1.9, step: null },
    { mbPerMinute: 0.4, low: -1.1, high: 1.9, step: { megabytes: 310, minutes: 4.2 } },
  ],
  "memory.early": [{ megabytes: 220, minutes: 2.9, longer: 15 }],
  "memory.levelled": [{ megabytes: 600, minutes: 9.7, mbPerMinute: 0.4, low: -3.1, high: 3.9 }],
  "memory.grows": [
    { mbPerMinute: 42, wall: null, diedAfterMinutes: null, more: null },
    {
      mbPerMinute: 42,
      wall: { minutes: 31.2, low: 27.5, high: 36 },
      diedAfterMinutes: 29.8,
      more: { gigabytes: 12, minutes: 118 },
    },
  ],
  "rate.native": [
    { fps: 60, held: 1 },
    { fps: 59.94, held: 0.994, heldLow: 0.988, chance: 0.96 },
    { fps: 60, held: 0.9996, strict: 0.81, hitches: { perMinute: 2, held: 0.966, quietMinute: 0.2 } },
  ],
  "rate.lock": [
    {
      fps: 30,
      held: 0.997,
      refreshes: 2,
      average: 47.3,
      freeHeld: 0.02,
      nativeFps: 60,
      heldLow: 0.991,
      chance: 0.93,
    },
    { fps: 40, held: 1, refreshes: null, average: 47.3, freeHeld: 0.02, nativeFps: 60 },
  ],
  "rate.tied": [{ nativeFps: 50, held: 0.31 }],
  "rate.free": [{ leastFps: 20, average: 27.4 }],
  "suggest.speed": [
    {
      ...change,
      logGain: 0.31,
      chance: 0.72,
      because: said("sign.graphicsBusy", { processor: 55, graphics: 97 }),
    },
    {
      ...change,
      label: "Back end",
      from: "OpenGL",
      to: "Vulkan",
      pixelRatio: null,
      tried: 1,
      helped: 1,
      logGain: 0.05,
      chance: 0.3,
      because: null,
      since: "Internal scale 2",
    },
  ],
  "suggest.room": [
    { ...change, from: 2, to: 3, pixelRatio: 2.25, speedPercent: 100, aim: "picture" },
    {
      ...change,
      label: "Power mode",
      from: "Full",
      to: "Even",
      pixelRatio: null,
      tried: 3,
      helped: 2,
      speedPercent: 100,
      aim: "battery",
    },
  ],
  "caution.cool": [{ celsius: 94 }],
  "opening.weak": [{ speedPercent: 38 }],
  "next.decide": [{ trial: "Internal scale 2" }],
  "next.trial": [
    { trial: "Internal scale 2", first: "as it is", then: [], left: 1 },
    { trial: "Internal scale 2", first: "as it is", then: ["Internal scale 2", "Internal scale 2"], left: 8 },
  ],
  "next.outOfReach": [
    { missing: 0.4, trials: 0, tied: true },
    { missing: 0.4, trials: 14, tied: false },
  ],
  "suggest.several": [
    { parts: ["Internal scale", "Shadows", "Light model"], chance: 0.4, tried: 1, helped: 0 },
  ],
  "next.unlikely": [
    {
      missing: 0.4,
      chance: 0.18,
      levers: 5,
      suggestion: said("suggest.several", {
        parts: ["Internal scale", "Shadows"],
        chance: 0.1,
        tried: 0,
        helped: 0,
      }),
    },
    { missing: 0.4, chance: 0.02, levers: 1, suggestion: null },
  ],
  "next.steady": [
    { runs: 1, suggestion: null },
    {
      runs: 3,
      suggestion: said("suggest.room", {
        ...change,
        from: 2,
        to: 3,
        pixelRatio: 2.25,
        speedPercent: 100,
        aim: "picture",
      }),
    },
  ],
  "next.try": [
    {
      suggestion: said("suggest.speed", {
        ...change,
        logGain: 0.31,
        chance: 0.72,
        because: said("sign.graphicsBusy", { processor: null, graphics: 97 }),
      }),
    },
  ],
  "sign.processorBusy": [
    { processor: 98, graphics: null },
    { processor: 98, graphics: 41 },
  ],
  "sign.graphicsBusy": [
    { processor: null, graphics: 97 },
    { processor: 41, graphics: 97 },
  ],
  "sign.graphicsIdle": [{ graphics: 22 }],
  "sign.processorIdle": [{ processor: 35 }],
  "sign.hot": [{ celsius: 94.6, limitC: 95 }],
  "sign.clockAtLimit": [{ half: "processor", clock: 0.71, celsius: 95 }],
  "sign.budgetSplit": [
    { half: "graphics", clock: 0.62, other: 0.97, watts: 14 },
    { half: "graphics", clock: 0.62, other: null, watts: 14 },
  ],
  "log.part": [{ part: 2, parts: 3 }],
  "log.clockDisagrees": [
    { clockS: 64.2, framesS: 60 },
    { clockS: 6, framesS: 60 },
  ],
  "log.unitJudged": [{ column: "frame time", unit: "ms" }],
  "log.repeats": [{ rows: 1 }, { rows: 12 }],
  "log.scenesLeftOut": [{ column: "room" }],
  "log.cutShort": [{ line: 3002 }],
  "log.badLeftOut": atLines,
  "log.openQuotes": atLines,
  "log.joined": atLines,
  "log.tooLong": atLines.map((found) => ({ ...found, most: 1_048_576 })),
  "log.zeros": atLines,
  "log.encoding": [{ encoding: "windows-1252" }],
  "refused.tooLarge": [{ bytes: 645_922_816, most: 536_870_912 }],
  "refused.columns": [{ columns: 2001, most: 2000 }],
  "refused.unread": [{ why: "it was moved." }],
  "refused.noColumn": [{ column: "ft" }],
  "refused.noNumbers": [{ rows: 1 }, { rows: 40 }],
  "refused.noFigures": [{ lines: 50 }],
  "refused.badTimes": atLines,
  "refused.backwards": atLines,
  "refused.glued": [{ line: 3601, logs: 2 }],
  "refused.decimalCommas": [
    { columns: 1, cells: 3 },
    { columns: 2, cells: 3 },
  ],
  "refused.frame": [
    { what: "Frame", number: 1, ms: 3e38 },
    { what: "Interval", number: 812, ms: 7.2e6 },
  ],
  "refused.reading": [{ role: "watts" }],
  "remedy.itsColumns": [{ columns: ["time", "frame time (ms)"] }],
  "remedy.choosePart": [{ logs: 2 }],
  "scale.underAll": [{ scale: 10, width: 2560, height: 1440, cost: 100, lines: 2160 }],
  "scale.exact": [
    { scale: 1, width: 1280, height: 720, cost: 1, lines: 720, next: 2 },
    { scale: 10, width: 2560, height: 1440, cost: 100, lines: 1440, next: null },
  ],
  "scale.fills": [{ scale: 3, width: 960, height: 720, cost: 9, lines: 700, next: 4 }],
  "scale.within": [{ scale: 2, width: 640, height: 480, cost: 4, lines: 700, useful: 3, usefulCost: 2.25 }],
  "settle.logColumns": [{ columns: ["gpuClock", "watts"] }, { columns: ["temperature"] }],
  "sign.atBudget": [{ half: "graphics", watts: 14 }],
  "sign.otherKeepsClock": [{ half: "graphics", clock: 0.48, other: 0.99 }],
  "sign.clockRests": [{ clock: 0.41, whole: 44 }],
  "sign.wholeLoad": [{ whole: 31, graphics: 42 }],
  "sign.wholeRoom": [{ whole: 9, graphics: 38 }],
  "sign.coreAlone": [{ processor: 71 }],
  "sign.coreRoom": [
    { processor: 24, clock: 0.98 },
    { processor: 24, clock: null },
  ],
  "sign.clockLow": [
    { half: "processor", clock: 0.55, celsius: null, watts: null, modeWatts: null },
    { half: "processor", clock: 0.55, celsius: 61, watts: 7.4, modeWatts: 14 },
    { half: "graphics", clock: 0.55, celsius: 61, watts: 7.4, modeWatts: null },
  ],
  "sign.neitherBusy": [{ processor: 40, graphics: 52 }],
  "sign.cadenceIdle": [{ share: 0.98, refreshes: 2, processor: 40, graphics: 52 }],
  "sign.noCap": [{ processor: 40, graphics: 52 }],
  "sign.overAllowed": [{ half: "graphics", ms: 19.4, allowedMs: 16.7 }],
  "sign.setPace": [
    { fps: 40, spread: 0.004, idle: true },
    { fps: 40, spread: 0.004, idle: false },
  ],
  "sign.wanders": [{ processor: 72, graphics: 44 }],
  "sign.clockTakenBack": [
    { half: "graphics", clock: 0.7, earlier: 0.98, celsius: 88, warmedC: 21 },
    { half: "graphics", clock: 0.7, earlier: 0.98, celsius: null, warmedC: null },
  ],
  "sign.cadence": [
    { share: 0.98, refreshes: 1 },
    { share: 0.98, refreshes: 2 },
  ],
  "sign.firstVisits": [{ firstMs: 2140, laterMs: 36 }],
  "sign.entryEveryTime": [{ ms: 480 }],
  "sign.coldHitches": [{ ms: 1840, onEntry: 0.82 }],
  "sign.entryOnce": [
    { entryMs: 800, allMs: 910, warm: true },
    { entryMs: 800, allMs: 910, warm: false },
  ],
  "sign.diedFull": [{ megabytes: 7410, ofMb: 7618 }],
  "sign.memoryGrows": [{ mbPerMinute: 42, minutes: 31 }],
  "sign.memoryShort": [{ neededMb: 12_288, leftMb: 7619 }],
  "sign.memoryFull": [{ full: 0.97 }],
  "sign.clockSags": [
    { half: "processor", fromMhz: 2990, toMhz: 2210, celsius: 94 },
    { half: "processor", fromMhz: 2990, toMhz: 2210, celsius: null },
  ],
  "sign.nativeStillSlow": [{ ms: 21.3, allowedMs: 16.7 }],
  "sign.pixelsHardly": [{ ...across, mostMs: 9.4 }],
  "sign.pixels": [{ ...across, part: 0.51 }],
  "sign.moreSlower": [{ ratio: 0.87, mode: "Full" }],
  "sign.lessFaster": [{ ratio: 1.14, mode: "Even" }],
  "sign.forcedClocks": [{ ratio: 1.22, option: "Loud" }],
  "sign.cooler": [{ ratio: 1.18 }],
  "sign.capLifted": [{ ratio: 1.31 }],
  "diagnosis.found": [
    {
      first: "graphics",
      chance: 0.97,
      because: said("sign.graphicsBusy", { processor: 41, graphics: 97 }),
      second: null,
      secondBecause: null,
    },
    {
      first: "shaders",
      chance: 0.7,
      because: said("sign.firstVisits", { firstMs: 2140, laterMs: 36 }),
      second: "cap or sync",
      secondBecause: said("sign.cadence", { share: 0.98, refreshes: 2 }),
    },
  ],
};

/** Every sentence with every draw of its figures. */
export const everySentence = (): { code: Code; said: Said }[] =>
  (Object.keys(sentences) as Code[]).flatMap((code) => {
    const figures: unknown[] = (drawnSentences as Partial<Record<Code, unknown[]>>)[code] ?? [{}];
    return figures.map((each) => ({ code, said: { code, figures: each } }));
  });
