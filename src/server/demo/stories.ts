import type { SimEffect, SimEffects, SimScene, SimWorkload } from "@/core/simulator";
import type { NewFault, NewJob, Settings } from "@/core/kit";
import type { ArmConditions, TrialKind, TrialPlan } from "@/core/trial";

/** An arm of a trial, as the difference from what is in force. */
export interface StoryArm {
  name: string;
  settings?: Settings;
  conditions?: ArmConditions;
  /** Another engine, by name. */
  engine?: string;
  level?: number | null;
}

/** What happened in a job, in order. Runs are simulated, decisions are what the application advises. */
export type StoryStep =
  | {
      do: "run";
      label: string;
      settings?: Settings;
      conditions?: ArmConditions;
      times: number;
      cold?: boolean;
      tillMinutes?: number;
    }
  | {
      do: "trial";
      kind: TrialKind;
      name: string;
      arms: StoryArm[];
      rounds: number;
      cold?: boolean;
      plan?: Partial<TrialPlan>;
      /** Arms in the order they were run; by turns unless given. */
      order?: number[];
      /** Minutes of every run, where the route is walked longer than usual. */
      minutes?: number;
      fault?: { arm: number } & Omit<NewFault, "runId">;
      decide: boolean;
    }
  | { do: "close"; note: string };

/** A job of the demo. */
export interface DemoStory {
  rig: string;
  title: string;
  engine: string;
  aim: NewJob["aim"];
  rules?: "Lending desk" | "As far as it goes";
  /** Whole days before the demo is first started. */
  daysAgo: number;
  powerMode: string;
  clocks?: string;
  workload: SimWorkload;
  effects: SimEffects;
  /** What another engine makes of the same title. */
  engines?: Record<string, SimEffect>;
  steps: StoryStep[];
}

export const scene = (
  label: string,
  seconds: number,
  processor: number,
  graphics: number,
  newShaders = 0,
): SimScene => ({ label, seconds, processor, graphics, newShaders });

export const workload = (
  given: Partial<SimWorkload> &
    Pick<
      SimWorkload,
      "nativeFps" | "capFps" | "processorMs" | "graphicsMs" | "graphicsMsPerMegapixel" | "megapixels" | "scenes"
    >,
): SimWorkload => ({
  passes: 1,
  compileMs: 180,
  storageMs: 0,
  waitMs: 0,
  memoryStartMb: 2100,
  memoryMbPerMinute: 4,
  repeatsFrames: false,
  unevenPacing: false,
  strictSync: false,
  ...given,
});

export const scales = (most: number) =>
  Object.fromEntries(Array.from({ length: most }, (_, index) => [String(index + 1), { scale: index + 1 }]));
const gallery = { megapixels: (640 * 448) / 1e6 },
  twofold = { megapixels: (384 * 240 + 320 * 240) / 1e6 };
const free = { hold_rate: { false: { capFps: null } } };

/** Arms of a resolution sweep, with the cap lifted where the engine can. */
const scaleArms = (levels: number[], more: Settings = {}): StoryArm[] =>
  levels.map((level) => ({ name: `×${level}`, level, settings: { scale: level, ...more } }));

export const stories: DemoStory[] = [
  {
    // An easy baseline: steady at ×3 on few watts; ×4 is past the screen.
    rig: "Tansy",
    title: "Paper Lighthouse",
    engine: "Sallow",
    aim: "picture",
    daysAgo: 12,
    powerMode: "Even",
    workload: workload({
      nativeFps: 59.94,
      capFps: 59.94,
      processorMs: 5.5,
      graphicsMs: 1,
      graphicsMsPerMegapixel: 1.3,
      ...gallery,
      scenes: [scene("opening", 20, 0.9, 0.9), scene("the lamp room", 25, 1, 1)],
    }),
    effects: { scale: scales(8), back_end: { Vulkan: { graphics: 0.9, processor: 0.9 } }, ...free },
    steps: [
      { do: "run", label: "baseline", settings: { scale: 3 }, times: 3 },
      {
        do: "trial",
        kind: "resolution",
        name: "Which scale",
        arms: scaleArms([2, 3, 4, 5], { hold_rate: false }),
        rounds: 1,
        plan: { keys: ["scale"] },
        decide: true,
      },
      { do: "run", label: "confirmation", times: 1 },
    ],
  },
  {
    // Graphics-bound at ×4; the law says ×3; kept, confirmed, closed with its profile.
    rig: "Tansy",
    title: "Basalt Choir",
    engine: "Sallow",
    aim: "speed",
    daysAgo: 9,
    powerMode: "Brisk",
    workload: workload({
      nativeFps: 59.94,
      capFps: 59.94,
      processorMs: 6.5,
      graphicsMs: 1.4,
      graphicsMsPerMegapixel: 4.7,
      ...gallery,
      scenes: [scene("the nave", 15, 0.95, 0.9), scene("the bell hall", 30, 1.05, 1.05)],
    }),
    effects: { scale: scales(8), back_end: { Vulkan: { graphics: 0.99, processor: 0.9 } }, ...free },
    steps: [
      { do: "run", label: "baseline", settings: { scale: 4 }, times: 3 },
      {
        do: "trial",
        kind: "resolution",
        name: "Which scale holds the bell hall",
        arms: scaleArms([1, 2, 3, 4, 5], { hold_rate: false }),
        rounds: 1,
        plan: { keys: ["scale"] },
        decide: true,
      },
      { do: "run", label: "confirmation", times: 3 },
      { do: "close", note: "For the lending desk: the bell hall holds." },
    ],
  },
  {
    // Full is slower than Brisk; Brisk is the sweet spot; free it averages about 43, so 30 is locked.
    rig: "Tansy",
    title: "Ninth Parallel",
    engine: "Longitude",
    aim: "speed",
    daysAgo: 8,
    powerMode: "Full",
    workload: workload({
      nativeFps: 60,
      capFps: null,
      processorMs: 18.5,
      graphicsMs: 3.2,
      graphicsMsPerMegapixel: 20,
      megapixels: (1280 * 720) / 1e6,
      memoryStartMb: 6200,
      memoryMbPerMinute: 110,
      scenes: [scene("the coast road", 20, 0.95, 0.88), scene("the open market", 30, 1.05, 1.1)],
    }),
    effects: {
      scale: { 1: { scale: 1 }, 2: { scale: 2 }, 3: { scale: 3 } },
      back_end: { Vulkan: { graphics: 0.97 } },
      rate_limit: { 60: { capFps: 30 }, 120: { capFps: 60 }, 40: { capFps: 20 } },
    },
    steps: [
      { do: "run", label: "baseline", times: 3 },
      {
        do: "trial",
        kind: "power",
        name: "Which power mode",
        arms: [
          ["Hush", 8],
          ["Even", 14],
          ["Brisk", 19],
          ["Full", 28],
        ].map(([name, watts]) => ({
          name: String(name),
          level: Number(watts),
          conditions: { powerMode: String(name) },
        })),
        rounds: 2,
        plan: { elsewhereWatts: 2.5 },
        decide: true,
      },
      {
        do: "trial",
        kind: "rate",
        name: "Which rate to lock",
        arms: [
          { name: "free", level: null, settings: { rate_limit: 0 } },
          { name: "60 fps", level: 60, settings: { rate_limit: 120 } },
          { name: "30 fps", level: 30, settings: { rate_limit: 60 } },
          { name: "20 fps", level: 20, settings: { rate_limit: 40 } },
        ],
        rounds: 1,
        order: [0, 2],
        plan: { keys: ["rate_limit"] },
        decide: true,
      },
      { do: "run", label: "confirmation", times: 1 },
    ],
  },
  {
    // The governor leaves half the rate; forcing clocks more than doubles it; heat settles under the limit with
    // the fan.
    rig: "Shale",
    title: "Marsh Rally 3",
    engine: "Sallow",
    aim: "speed",
    rules: "As far as it goes",
    daysAgo: 7,
    powerMode: "5 V 4 A",
    clocks: "balanced",
    workload: workload({
      nativeFps: 59.94,
      capFps: 59.94,
      processorMs: 11.6,
      graphicsMs: 2,
      graphicsMsPerMegapixel: 3.5,
      ...gallery,
      scenes: [scene("the start", 15, 0.97, 0.95), scene("the ford", 30, 1.02, 1.05)],
    }),
    effects: {
      scale: scales(8),
      back_end: { Vulkan: { graphics: 0.9 } },
      clock_percent: { 130: { processor: 1.12 } },
      ...free,
    },
    steps: [
      { do: "run", label: "baseline", settings: { scale: 1 }, times: 3 },
      {
        do: "trial",
        kind: "compare",
        name: "Clocks forced",
        arms: [
          { name: "balanced", conditions: { clocks: "balanced" } },
          { name: "forced", conditions: { clocks: "forced" } },
        ],
        rounds: 3,
        decide: true,
      },
      {
        do: "trial",
        kind: "clocks",
        name: "Does forced hold",
        arms: [
          { name: "quiet", level: 1, conditions: { clocks: "quiet" } },
          { name: "balanced", level: 2, conditions: { clocks: "balanced" } },
          { name: "forced", level: 3, conditions: { clocks: "forced" } },
        ],
        rounds: 1,
        order: [0, 1, 2, 2],
        minutes: 10,
        plan: { soakMinutes: 10 },
        decide: true,
      },
      {
        do: "trial",
        kind: "heat",
        name: "Where heat settles",
        arms: [{ name: "forced, fan on" }],
        rounds: 1,
        minutes: 14,
        plan: { minutes: 14 },
        decide: true,
      },
      { do: "run", label: "confirmation", times: 1 },
    ],
  },
  {
    // Three engines: one wins, two tie inside the noise; one has a missing control.
    rig: "Pipit",
    title: "Glasshouse Duel",
    engine: "Plait",
    aim: "speed",
    daysAgo: 6,
    powerMode: "usual",
    workload: workload({
      nativeFps: 60,
      capFps: 60,
      processorMs: 20.5,
      graphicsMs: 1.5,
      graphicsMsPerMegapixel: 4,
      ...twofold,
      scenes: [scene("the stair", 12, 0.98, 0.95), scene("four on the roof", 28, 1.04, 1.05)],
    }),
    effects: { scale: scales(6), back_end: { Vulkan: { graphics: 0.9 } } },
    engines: { "Plait Swift": { processor: 0.7 }, "Plait Weave": { processor: 0.996 } },
    steps: [
      { do: "run", label: "baseline", times: 3 },
      {
        do: "trial",
        kind: "compare",
        name: "Three engines",
        arms: [
          { name: "Plait" },
          { name: "Plait Swift", engine: "Plait Swift" },
          { name: "Plait Weave", engine: "Plait Weave" },
        ],
        rounds: 4,
        decide: true,
        fault: {
          arm: 2,
          kind: "control",
          severity: "severe",
          scene: "four on the roof",
          atMs: 21_000,
          note: "The second stick does nothing: the fourth player can't turn.",
          workaround: "",
        },
      },
      { do: "run", label: "confirmation", times: 1 },
    ],
  },
  {
    // First visits compile: the first pass freezes on every new room, the second is smooth.
    rig: "Pipit",
    title: "The Drowned Gallery",
    engine: "Plait",
    aim: "speed",
    daysAgo: 5,
    powerMode: "usual",
    workload: workload({
      nativeFps: 20,
      capFps: 20,
      processorMs: 13,
      graphicsMs: 2,
      graphicsMsPerMegapixel: 6,
      ...twofold,
      compileMs: 330,
      passes: 2,
      scenes: [
        scene("tide stairs", 10, 1, 1, 5),
        scene("the vault", 10, 1, 1.1, 7),
        scene("eel room", 10, 1.05, 1, 6),
        scene("the long corridor", 15, 1.1, 1.15, 9),
      ],
    }),
    effects: { scale: scales(6), compile_ahead: { true: { compile: 0.1 } } },
    steps: [
      { do: "run", label: "two rounds of the rooms, cache cleared", times: 1, cold: true },
      { do: "run", label: "the same, cache kept", times: 3 },
      {
        do: "trial",
        kind: "compare",
        name: "Compile effects ahead",
        arms: [{ name: "as it was" }, { name: "compiled ahead", settings: { compile_ahead: true } }],
        rounds: 2,
        cold: true,
        decide: true,
      },
      { do: "run", label: "confirmation", times: 1 },
    ],
  },
  {
    // The counter says 60 while the engine reports about 71 %: three settings tried one by one, one of them
    // helps.
    rig: "Pipit",
    title: "Copper Regatta",
    engine: "Harrow",
    aim: "speed",
    daysAgo: 4,
    powerMode: "usual",
    workload: workload({
      nativeFps: 59.94,
      capFps: 59.94,
      processorMs: 23,
      graphicsMs: 1,
      graphicsMsPerMegapixel: 3,
      megapixels: (320 * 240) / 1e6,
      repeatsFrames: true,
      scenes: [scene("harbour", 12, 0.98, 1), scene("the lock gates", 28, 1.02, 1)],
    }),
    effects: {
      scale: scales(8),
      back_end: { Vulkan: { graphics: 0.9 } },
      async_sound: { true: { processor: 0.996 } },
      light_model: { true: { processor: 0.64 } },
    },
    steps: [
      { do: "run", label: "baseline", times: 3 },
      {
        do: "trial",
        kind: "compare",
        name: "Other back end",
        arms: [{ name: "OpenGL" }, { name: "Vulkan", settings: { back_end: "Vulkan" } }],
        rounds: 3,
        decide: true,
      },
      {
        do: "trial",
        kind: "compare",
        name: "Sound on its own",
        arms: [{ name: "mixed in" }, { name: "on its own", settings: { async_sound: true } }],
        rounds: 3,
        decide: true,
      },
      {
        do: "trial",
        kind: "compare",
        name: "Lighter machine model",
        arms: [{ name: "as the title asks" }, { name: "lighter", settings: { light_model: true } }],
        rounds: 3,
        decide: true,
      },
      { do: "run", label: "confirmation", times: 1 },
      { do: "close", note: "The two settings that did nothing were put back." },
    ],
  },
  {
    // Memory climbs to the limit and the engine dies; without a cooler heat comes first.
    rig: "Pipit",
    title: "Ninth Parallel",
    engine: "Longitude",
    aim: "speed",
    daysAgo: 3,
    powerMode: "usual",
    workload: workload({
      nativeFps: 60,
      capFps: null,
      processorMs: 14,
      graphicsMs: 4,
      graphicsMsPerMegapixel: 22,
      megapixels: (1280 * 720) / 1e6,
      memoryStartMb: 2900,
      memoryMbPerMinute: 290,
      scenes: [scene("the coast road", 20, 0.95, 0.92), scene("the open market", 30, 1.05, 1.06)],
    }),
    effects: { scale: { 1: { scale: 1 }, 2: { scale: 2 }, 3: { scale: 3 } } },
    steps: [
      { do: "run", label: "baseline", times: 3 },
      {
        do: "trial",
        kind: "heat",
        name: "With and without the cooler",
        arms: [
          { name: "bare", conditions: { cooler: false } },
          { name: "cooler on", conditions: { cooler: true } },
        ],
        rounds: 1,
        minutes: 12,
        plan: { minutes: 12 },
        decide: true,
      },
      {
        do: "trial",
        kind: "memory",
        name: "How long memory lasts",
        arms: [{ name: "open world, cooler on" }],
        rounds: 1,
        minutes: 25,
        plan: { minutes: 25 },
        decide: true,
      },
    ],
  },
  {
    // ×8 for the television; ×9 costs full speed.
    rig: "Dovecote",
    title: "Kite Weather",
    engine: "Tender",
    aim: "picture",
    rules: "As far as it goes",
    daysAgo: 2,
    powerMode: "mains",
    workload: workload({
      nativeFps: 60,
      capFps: 60,
      processorMs: 8,
      graphicsMs: 1.2,
      graphicsMsPerMegapixel: 3.15,
      megapixels: (480 * 270) / 1e6,
      scenes: [scene("the harbour", 15, 0.95, 0.95), scene("the squall", 30, 1.03, 1.03)],
    }),
    effects: { scale: scales(10), back_end: { Vulkan: { graphics: 0.97 } }, ...free },
    steps: [
      { do: "run", label: "baseline", settings: { scale: 4 }, times: 3 },
      {
        do: "trial",
        kind: "resolution",
        name: "Scales for the television",
        arms: scaleArms([2, 4, 6, 8, 9], { hold_rate: false }),
        rounds: 1,
        plan: { keys: ["scale"] },
        decide: true,
      },
      { do: "run", label: "confirmation", times: 1 },
    ],
  },
  {
    // Full speed on average, long and short frames by turns: pacing.
    rig: "Pipit",
    title: "The Orchard Ledger",
    engine: "Plait",
    aim: "speed",
    daysAgo: 1,
    powerMode: "usual",
    workload: workload({
      nativeFps: 30,
      capFps: 30,
      processorMs: 8,
      graphicsMs: 1,
      graphicsMsPerMegapixel: 4,
      ...twofold,
      unevenPacing: true,
      scenes: [scene("orchard", 15, 0.9, 0.9), scene("market day", 25, 1, 1)],
    }),
    effects: { scale: scales(6), even_pacing: { true: { evenPacing: true } } },
    steps: [
      { do: "run", label: "baseline", times: 3 },
      {
        do: "trial",
        kind: "compare",
        name: "Frames held to the display",
        arms: [{ name: "as it was" }, { name: "held", settings: { even_pacing: true } }],
        rounds: 2,
        decide: true,
      },
      { do: "run", label: "confirmation", times: 1 },
    ],
  },
  {
    // Left on the bench: a trial half run.
    rig: "Tansy",
    title: "Quiet Machines",
    engine: "Longitude",
    aim: "speed",
    daysAgo: 0.2,
    powerMode: "Brisk",
    workload: workload({
      nativeFps: 60,
      capFps: 60,
      processorMs: 10,
      graphicsMs: 2.2,
      graphicsMsPerMegapixel: 16.4,
      megapixels: (1280 * 720) / 1e6,
      scenes: [scene("the lift", 15, 0.95, 0.95), scene("the weaving floor", 30, 1.04, 1.05)],
    }),
    effects: { scale: { 1: { scale: 1 }, 2: { scale: 2 } }, back_end: { Vulkan: { graphics: 0.9 } } },
    steps: [
      { do: "run", label: "baseline", times: 3 },
      {
        do: "trial",
        kind: "compare",
        name: "Other back end",
        arms: [{ name: "OpenGL" }, { name: "Vulkan", settings: { back_end: "Vulkan" } }],
        rounds: 3,
        order: [0, 1, 1],
        decide: false,
      },
    ],
  },
];
