import {
  deviceUnder,
  simulate,
  underSettings,
  type SimEffects,
  type SimProfile,
  type SimWorkload,
} from "@/core/simulator";
import { compareArms } from "@/core/compare";
import { diagnose, type Diagnosis } from "@/core/diagnose";
import { defaultsOf, settingSchema, type Setting, type Settings } from "@/core/kit";
import { summarise, type Summary } from "@/core/metrics";
import { seeded, type Random } from "@/core/stats";
import { grades, judge } from "@/core/verdict";
import type { Tried } from "./history";
import { leversFor, type Lever } from "./levers";
import { outOfReach, suggest, type SuggestInput } from "./suggest";

/** A made-up problem: a device, a title and an engine's settings, and whether full speed can be had at all. */
export interface Problem {
  name: string;
  profile: SimProfile;
  workload: SimWorkload;
  effects: SimEffects;
  catalogue: Setting[];
  begin: Settings;
  clocks: string | null;
  powerMode: string;
  reachable: boolean;
}

const free = { picture: 0, feel: 0, heat: 0, risk: 0 };
const settingOf = (key: string, more: Record<string, unknown>): Setting =>
  settingSchema.parse({
    purpose: null,
    key,
    label: key,
    choices: [],
    min: null,
    max: null,
    step: null,
    fastest: null,
    relieves: [],
    costs: free,
    restart: false,
    section: "engine",
    linked: [],
    countsDouble: false,
    configKey: key,
    ...more,
  });

/** The settings of a usual engine: a scale, a back end, five of the picture, three of the machine, two of the pace, two of sound and effects. */
function usualCatalogue(): Setting[] {
  const picture = (key: string, cost: number) =>
    settingOf(key, {
      type: "switch",
      default: true,
      fastest: false,
      relieves: ["graphics"],
      costs: { ...free, picture: cost },
    });
  return [
    settingOf("scale", {
      purpose: "scale",
      type: "number",
      default: 4,
      min: 1,
      max: 6,
      step: 1,
      fastest: 1,
      relieves: ["graphics"],
      costs: { ...free, picture: 2 },
    }),
    settingOf("back_end", {
      purpose: "back end",
      type: "choice",
      choices: ["first", "second"],
      default: "first",
      relieves: ["graphics", "processor"],
      costs: { ...free, risk: 1 },
      restart: true,
    }),
    ...(["smoothing", "shadows", "depth", "haze", "edges"] as const).map((key, at) =>
      picture(key, 1 + (at % 2)),
    ),
    settingOf("light_model", {
      type: "switch",
      default: false,
      fastest: true,
      relieves: ["processor"],
      costs: { ...free, picture: 1, risk: 1 },
      restart: true,
    }),
    settingOf("cycle_skip", {
      purpose: "cycle skip",
      type: "number",
      default: 0,
      min: 0,
      max: 3,
      step: 1,
      fastest: 3,
      relieves: ["processor"],
      costs: { ...free, feel: 2, risk: 1 },
    }),
    settingOf("machine_clock", {
      purpose: "emulated clock",
      type: "number",
      default: 100,
      min: 60,
      max: 160,
      step: 10,
      fastest: 60,
      relieves: ["processor"],
      costs: { ...free, feel: 2, risk: 1 },
    }),
    settingOf("limit", {
      purpose: "limiter",
      type: "number",
      default: 0,
      min: 0,
      max: 240,
      step: 1,
      relieves: ["sync"],
    }),
    settingOf("hold", {
      purpose: "hold rate",
      type: "switch",
      default: true,
      relieves: ["sync"],
      costs: { ...free, feel: 1 },
    }),
    settingOf("own_sound", {
      purpose: "sound sync",
      type: "switch",
      default: false,
      fastest: true,
      relieves: ["sound", "processor"],
      costs: { ...free, risk: 1 },
    }),
    settingOf("compile_ahead", {
      purpose: "shader cache",
      type: "switch",
      default: false,
      fastest: true,
      relieves: ["shaders"],
      costs: { ...free, feel: 1 },
      restart: true,
    }),
  ];
}

/** What the settings do on a device at ease; every problem changes some of it. */
const usualEffects = (random: Random): SimEffects => {
  const about = (factor: number) => factor * (1 + 0.05 * random.normal());
  const small = () => ({ false: { graphics: 0.965 + 0.03 * random.uniform() } });
  return {
    scale: Object.fromEntries([1, 2, 3, 4, 5, 6].map((scale) => [String(scale), { scale }])),
    back_end: { second: { graphics: about(1.02), processor: about(1.02) } },
    smoothing: small(),
    shadows: small(),
    depth: small(),
    haze: small(),
    edges: small(),
    light_model: { true: { processor: about(0.9) } },
    cycle_skip: {
      "1": { processor: about(0.94) },
      "2": { processor: about(0.89) },
      "3": { processor: about(0.85) },
    },
    machine_clock: Object.fromEntries(
      [60, 70, 80, 90, 110, 120, 130, 140, 150, 160].map((percent) => [
        String(percent),
        { processor: 0.5 + percent / 200 },
      ]),
    ),
    limit: { "0": {}, "30": { capFps: 30 } },
    own_sound: { true: { processor: about(0.99) } },
  };
};

const names = [
  "pixels",
  "pixels and a costly shadow",
  "a back end that graphics likes",
  "a lighter machine model",
  "cycles to skip, step by step",
  "a limit left at 30",
  "a governor that sleeps",
  "power that starves graphics",
  "a driver that waits",
  "both halves, one after the other",
  "a back end behind five picture settings",
  "out of reach",
] as const;

/** One of the problems on a device of its own. @param at its place among the names */
export function problemOf(at: number, seed: number): Problem {
  const random = seeded(seed * 331 + at * 7919 + 17);
  const between = (low: number, high: number) => low + (high - low) * random.uniform();
  const catalogue = usualCatalogue();
  const effects = usualEffects(random);
  const profile: SimProfile = {
    device: {
      refreshHz: 60,
      processorSpeed: 1,
      graphicsSpeed: 1,
      processorMhz: between(2000, 4800),
      graphicsMhz: between(600, 2400),
      processorMaxWatts: between(5, 15),
      graphicsMaxWatts: between(4, 14),
      idleWatts: between(1, 4),
      budgetWatts: 50,
      processorFirstWatts: 25,
      spin: between(0.2, 0.6),
      coreShare: between(0.15, 0.5),
      governor: { floor: 1, sees: 1 },
      roomC: 22,
      degreesPerWatt: 0.8,
      settleSeconds: 120,
      limitC: 95,
      startC: 38,
      memoryMb: 12_000,
    },
    modes: {
      Low: { budgetWatts: 12, processorFirstWatts: 8 },
      High: { budgetWatts: 50, processorFirstWatts: 25 },
    },
    governors: { quiet: { floor: 1, sees: 1 }, forced: { floor: 1, sees: 1 } },
    coolerFactor: 0.7,
    pluggedFactor: 1,
    displays: {},
  };
  const workload: SimWorkload = {
    nativeFps: 60,
    capFps: 60,
    processorMs: between(6, 9),
    graphicsMs: between(1, 2),
    graphicsMsPerMegapixel: between(1.5, 2.5),
    waitMs: 0,
    megapixels: between(0.15, 0.25),
    scenes: [{ label: "worst", seconds: 14, processor: 1, graphics: 1, newShaders: 0 }],
    passes: 1,
    compileMs: 0,
    storageMs: 0,
    memoryStartMb: 2000,
    memoryMbPerMinute: 0,
    repeatsFrames: false,
    unevenPacing: false,
    strictSync: false,
  };
  const begin = defaultsOf(catalogue);
  const made: Problem = {
    name: names[at] ?? "",
    profile,
    workload,
    effects,
    catalogue,
    begin,
    clocks: "forced",
    powerMode: "High",
    reachable: true,
  };
  const perPixel = (ms: number) => (ms - workload.graphicsMs) / (workload.megapixels * 16);
  switch (at) {
    case 0:
      workload.graphicsMsPerMegapixel = perPixel(between(19, 24));
      break;
    case 1:
      workload.graphicsMsPerMegapixel = perPixel(between(23, 26));
      effects.shadows = { false: { graphics: between(0.78, 0.86) } };
      break;
    case 2:
      workload.graphicsMs = between(18, 24);
      effects.back_end = { second: { graphics: between(0.5, 0.62) } };
      break;
    case 3:
      workload.processorMs = between(19, 21);
      effects.light_model = { true: { processor: between(0.6, 0.7) } };
      break;
    case 4:
      workload.processorMs = between(18, 19.5);
      effects.cycle_skip = { "1": { processor: 0.9 }, "2": { processor: 0.81 }, "3": { processor: 0.74 } };
      break;
    case 5:
      begin.limit = 30;
      break;
    case 6:
      workload.processorMs = between(10, 13);
      profile.governors = {
        quiet: { floor: between(0.3, 0.4), sees: between(0.35, 0.45) },
        forced: { floor: 1, sees: 1 },
      };
      made.clocks = "quiet";
      break;
    case 7: {
      const { device } = profile;
      Object.assign(device, {
        processorMaxWatts: between(20, 23),
        graphicsMaxWatts: between(14, 17),
        spin: between(0.88, 0.95),
      });
      workload.graphicsMs = between(11, 13);
      const starving =
        device.idleWatts + device.processorMaxWatts * device.spin + device.graphicsMaxWatts * 0.3;
      profile.modes = {
        Low: { budgetWatts: starving * 0.9, processorFirstWatts: 6 },
        High: { budgetWatts: starving, processorFirstWatts: device.processorMaxWatts },
      };
      break;
    }
    case 8:
      workload.waitMs = between(11, 16);
      effects.back_end = { second: { wait: 0.1 } };
      break;
    case 9:
      workload.processorMs = between(18.5, 20);
      workload.graphicsMsPerMegapixel = perPixel(between(19, 22));
      effects.light_model = { true: { processor: between(0.66, 0.72) } };
      break;
    case 10:
      workload.graphicsMs = between(24, 27);
      effects.back_end = { second: { graphics: between(0.42, 0.5) } };
      break;
    default:
      workload.processorMs = between(30, 36);
      made.reachable = false;
  }
  return made;
}

/** How an afternoon ended. */
export interface Afternoon {
  /** Full speed; or, where it can't be had, said to be out of reach. */
  right: boolean;
  /** Runs made for trials. */
  runs: number;
  trials: string[];
}

const mostTrials = 24;
const rules = {
  mayChange: { clocks: true, powerMode: true, picture: true },
  requires: { pluggedIn: null, docked: null, cooler: null },
};
const fullSpeed = 99;

/** Which lever an afternoon takes next; null ends it. */
export type Choosing = (input: SuggestInput, random: Random) => { lever: Lever | null; outOfReach: boolean };

export const bySuggestion: Choosing = (input) => ({
  lever: suggest(input, 1)[0]?.lever ?? null,
  outOfReach: outOfReach(input, true) !== null,
});

/** Any lever towards speed that wasn't tried yet, in no order. */
export const atRandom: Choosing = ({ levers, history }, random) => {
  const left = levers.filter(
    ({ key, to, towards }) =>
      towards !== "picture" && !history.some((tried) => tried.key === key && tried.to === to),
  );
  return { lever: left[random.whole(Math.max(1, left.length))] ?? null, outOfReach: left.length === 0 };
};

/** One afternoon: a baseline, then a change at a time by two rounds, kept where it is better, until full speed or nothing is left. */
export function afternoon(problem: Problem, choosing: Choosing, seed: number): Afternoon {
  const random = seeded(seed);
  const { profile, workload, effects, catalogue } = problem;
  let settings = problem.begin;
  const conditions = { powerMode: problem.powerMode, clocks: problem.clocks };
  const history: Tried[] = [];
  const made: Afternoon = { right: false, runs: 0, trials: [] };
  const traceUnder = (chosen: Settings, under: { powerMode: string | null; clocks: string | null }) => {
    const device = deviceUnder(profile, {
      ...under,
      display: null,
      pluggedIn: false,
      cooler: false,
      roomC: null,
    });
    return simulate(device, underSettings(workload, chosen, effects), random.whole(2 ** 30), false).trace;
  };
  const yardstick = { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 };
  for (let trial = 0; trial < mostTrials; trial++) {
    const summary = summarise(traceUnder(settings, conditions), yardstick);
    const isThere = summary.speedPercent >= fullSpeed;
    if (isThere) return { ...made, right: problem.reachable };
    const input: SuggestInput = {
      levers: leversFor({
        catalogue,
        settings,
        rules,
        spec: {
          powerModes: Object.keys(profile.modes).map((name) => ({
            name,
            watts: profile.modes[name]?.budgetWatts ?? null,
            use: "any" as const,
          })),
          clockOptions: Object.keys(profile.governors),
          cooling: { kind: "fan", coolerToHand: false },
        },
        conditions: { ...conditions, cooler: false, docked: false, pluggedIn: false },
      }),
      diagnosis: diagnosed(summary, profile, conditions.powerMode),
      aim: "speed",
      speedPercent: summary.speedPercent,
      steady: false,
      history,
      sceneMinutes: 1,
    };
    const { lever, outOfReach: isOut } = choosing(input, random);
    if (isOut || !lever) return { ...made, right: !problem.reachable };
    const changed = { ...conditions, ...lever.conditions };
    const arms = [
      [traceUnder(settings, conditions)],
      [traceUnder(lever.settings, changed), traceUnder(lever.settings, changed)],
    ];
    arms[0]?.push(traceUnder(settings, conditions));
    made.runs += 4;
    made.trials.push(`${lever.key} ${String(lever.to)}`);
    const [pair] = compareArms(arms, {
      targetFps: 60,
      nativeFps: 60,
      places: [
        [0, 3],
        [1, 2],
      ],
      noise: { sd: 0.012, freedom: 10 },
      resamples: 10,
    }).pairs;
    // Near the rate a gain can't reach the margin; every run brighter counts, as on the trial's screen.
    const lights = arms.map((arm) =>
      arm.map((trace) => grades.indexOf(judge(summarise(trace, yardstick)).grade ?? "dark")),
    );
    const helped =
      pair?.decision === "better" || Math.max(...(lights[1] ?? [])) < Math.min(...(lights[0] ?? []));
    history.push({
      key: lever.key,
      from: lever.from,
      to: lever.to,
      relieves: lever.relieves,
      helped,
      logGain: Math.log(pair?.comparison.averageFps.ratio ?? 1),
    });
    if (helped) {
      settings = lever.settings;
      Object.assign(conditions, changed);
    }
  }
  return made;
}

function diagnosed(summary: Summary, { device, modes }: SimProfile, mode: string): Diagnosis {
  return diagnose({
    summary,
    cacheState: "warm",
    crashed: false,
    limits: {
      temperatureC: device.limitC,
      memoryMb: device.memoryMb,
      modeWatts: modes[mode]?.budgetWatts ?? null,
      processorMhz: device.processorMhz,
      graphicsMhz: device.graphicsMhz,
      refreshHz: 60,
    },
  });
}

/** Afternoons of every problem: how many ended right, and the runs those took. */
export interface Scored {
  name: string;
  right: number;
  /** Mean runs of the afternoons that ended right; null where none did. */
  runs: number | null;
}

export function scoreAdvice(choosing: Choosing, afternoons: number, seed: number): Scored[] {
  return names.map((name, at) => {
    const all = Array.from({ length: afternoons }, (_, k) =>
      afternoon(problemOf(at, seed + k), choosing, seed + 1000 * at + k),
    );
    const right = all.filter((each) => each.right);
    return {
      name,
      right: right.length,
      runs: right.length > 0 ? right.reduce((sum, { runs }) => sum + runs, 0) / right.length : null,
    };
  });
}
