import { defaultsOf, plainSetting, type Setting, type Settings } from "@/core/kit";
import type { SimEffect, SimEffects, SimProfile, SimWorkload } from "@/core/simulator";
import { seeded, type Random } from "@/core/stats";

/** A made-up problem: a device, a title and an engine's settings, and whether full speed can be had at all. */
export interface BenchProblem {
  name: string;
  profile: SimProfile;
  workload: SimWorkload;
  effects: SimEffects;
  catalogue: Setting[];
  begin: Settings;
  clocks: string | null;
  powerMode: string;
  reachable: boolean;
  /** What settings do that act only together. */
  together?: { keys: Settings; effect: SimEffect };
  /** SD of log rate from run to run; the title's own noise beside the simulator's. */
  spread?: number;
}

const free = { picture: 0, feel: 0, heat: 0, risk: 0 };
const setting = (key: string, more: Partial<Setting>) => plainSetting(key, { fastest: null, ...more });

/**
 * The settings of a usual engine: a scale, a back end, five of the picture, three of the machine, two of the
 * pace, two of sound and effects.
 */
function usualCatalogue(): Setting[] {
  const picture = (key: string, cost: number) =>
    setting(key, {
      type: "switch",
      default: true,
      fastest: false,
      relieves: ["graphics"],
      costs: { ...free, picture: cost },
    });
  return [
    setting("scale", {
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
    setting("back_end", {
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
    setting("light_model", {
      type: "switch",
      default: false,
      fastest: true,
      relieves: ["processor"],
      costs: { ...free, picture: 1, risk: 1 },
      restart: true,
    }),
    setting("cycle_skip", {
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
    setting("machine_clock", {
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
    setting("limit", {
      purpose: "limiter",
      type: "number",
      default: 0,
      min: 0,
      max: 240,
      step: 1,
      relieves: ["sync"],
    }),
    setting("hold", {
      purpose: "hold rate",
      type: "switch",
      default: true,
      relieves: ["sync"],
      costs: { ...free, feel: 1 },
    }),
    setting("own_sound", {
      purpose: "sound sync",
      type: "switch",
      default: false,
      fastest: true,
      relieves: ["sound", "processor"],
      costs: { ...free, risk: 1 },
    }),
    setting("compile_ahead", {
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

/** What is wrong, by problem. */
export const problemNames = [
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
  "two settings that help only together",
  "a fastest value that is the slower one",
  "a setting that helps cold and hurts hot",
  "a title that needs a cap",
  "a driver good for one back end only",
  "a noisy rig",
  "many small helps",
] as const;

/** One of the problems on a device of its own. @param at its place among the names */
export function problemOf(at: number, seed: number): BenchProblem {
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
  const made: BenchProblem = {
    name: problemNames[at] ?? "",
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
    case 12:
      // Each alone does nothing; the half that waits for the other gains nothing either.
      workload.processorMs = between(19, 21);
      made.together = {
        keys: { light_model: true, own_sound: true },
        effect: { processor: between(0.6, 0.7) },
      };
      effects.light_model = { true: { processor: 1 } };
      break;
    case 13:
      workload.processorMs = between(19, 21);
      begin.light_model = true;
      effects.light_model = { true: { processor: 1 }, false: { processor: between(0.6, 0.7) } };
      break;
    case 14:
      // What lifts the rate while cold draws watts that a hot device hasn't got.
      workload.graphicsMsPerMegapixel = perPixel(between(19, 21));
      effects.compile_ahead = { true: { graphics: between(1.02, 1.06) } };
      Object.assign(profile.device, { startC: 90, degreesPerWatt: 3, limitC: 94 });
      break;
    case 15:
      workload.capFps = null;
      workload.strictSync = true;
      workload.processorMs = between(8, 11);
      workload.graphicsMs = between(11, 13);
      Object.assign(profile.device, {
        startC: 80,
        degreesPerWatt: between(4, 5),
        limitC: 92,
        settleSeconds: 20,
      });
      effects.limit = { "0": { capFps: null }, "60": { capFps: 60 }, "30": { capFps: 30 } };
      break;
    case 16:
      workload.graphicsMs = between(19, 22);
      catalogue.push(
        setting("driver", {
          type: "choice",
          choices: ["older", "newer"],
          default: "older",
          relieves: ["graphics"],
          costs: { ...free, risk: 1 },
          restart: true,
        }),
      );
      begin.driver = "older";
      effects.back_end = { second: { graphics: 1.04 } };
      made.together = {
        keys: { back_end: "second", driver: "newer" },
        effect: { graphics: between(0.55, 0.65) },
      };
      break;
    case 17:
      workload.processorMs = between(19, 21);
      effects.light_model = { true: { processor: between(0.62, 0.7) } };
      made.spread = 0.04;
      break;
    case 18:
      workload.graphicsMs = between(17.6, 18.2);
      for (const key of ["smoothing", "shadows", "depth", "haze", "edges"])
        effects[key] = { false: { graphics: between(0.955, 0.975) } };
      effects.scale = Object.fromEntries([1, 2, 3, 4, 5, 6].map((scale) => [String(scale), { scale }]));
      workload.graphicsMsPerMegapixel = 0.05;
      break;
    default:
      workload.processorMs = between(30, 36);
      made.reachable = false;
  }
  return made;
}
