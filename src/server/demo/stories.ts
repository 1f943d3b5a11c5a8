import type { SimEffects, SimScene, SimWorkload } from "@/core/bench";
import type { NewJob, SettingValue } from "@/core/kit";

/** A job of the demo: which runs were made with which settings; what they measured is computed when it is added. */
export interface Story {
  rig: string;
  title: string;
  engine: string;
  aim: NewJob["aim"];
  /** Whole days before the demo is first started. */
  daysAgo: number;
  powerMode: string;
  workload: SimWorkload;
  effects: SimEffects;
  runs: { label: string; settings: Record<string, SettingValue>; times: number; cold?: boolean }[];
}

const scene = (label: string, seconds: number, processor: number, graphics: number, newShaders = 0): SimScene => ({ label, seconds, processor, graphics, newShaders });

const workload = (given: Partial<SimWorkload> & Pick<SimWorkload, "nativeFps" | "capFps" | "processorMs" | "graphicsMs" | "graphicsMsPerMegapixel" | "megapixels" | "scenes">): SimWorkload => ({
  passes: 1, compileMs: 180, memoryStartMb: 2100, memoryMbPerMinute: 4, repeatsFrames: false, unevenPacing: false, ...given,
});

const scales = (most: number) => Object.fromEntries(Array.from({ length: most }, (_, index) => [String(index + 1), { scale: index + 1 }]));
const gallery = { megapixels: (640 * 448) / 1e6 };

export const stories: Story[] = [
  {
    // An easy baseline: full speed at ×3, and ×4 is past the screen.
    rig: "Tansy", title: "Paper Lighthouse", engine: "Sallow", aim: "picture", daysAgo: 9, powerMode: "Even",
    workload: workload({ nativeFps: 59.94, capFps: 59.94, processorMs: 6, graphicsMs: 1, graphicsMsPerMegapixel: 2, ...gallery, scenes: [scene("opening", 20, 0.9, 0.9), scene("the lamp room", 25, 1, 1)] }),
    effects: { scale: scales(8), back_end: { Vulkan: { graphics: 0.9, processor: 0.9 } } },
    runs: [{ label: "baseline", settings: { scale: 3 }, times: 3 }, { label: "past the screen", settings: { scale: 4 }, times: 1 }],
  },
  {
    // Graphics-bound at ×4; the lower scale holds the rate.
    rig: "Tansy", title: "Basalt Choir", engine: "Sallow", aim: "speed", daysAgo: 6, powerMode: "Brisk",
    workload: workload({ nativeFps: 59.94, capFps: 59.94, processorMs: 7.5, graphicsMs: 1.6, graphicsMsPerMegapixel: 3.5, ...gallery, scenes: [scene("the nave", 15, 0.9, 0.85), scene("the bell hall", 30, 1.05, 1.1)] }),
    effects: { scale: scales(8), back_end: { Vulkan: { graphics: 0.93, processor: 0.9 } } },
    runs: [{ label: "baseline", settings: { scale: 4 }, times: 3 }, { label: "scale down", settings: { scale: 3 }, times: 3 }],
  },
  {
    // First visits compile: the first pass freezes on every new room, the second is smooth.
    rig: "Pipit", title: "The Drowned Gallery", engine: "Plait", aim: "speed", daysAgo: 4, powerMode: "usual",
    workload: workload({
      nativeFps: 20, capFps: 20, processorMs: 14, graphicsMs: 2, graphicsMsPerMegapixel: 6, megapixels: (384 * 240 + 320 * 240) / 1e6, compileMs: 330, passes: 2,
      scenes: [scene("tide stairs", 10, 1, 1, 5), scene("the vault", 10, 1, 1.1, 7), scene("eel room", 10, 1.05, 1, 6), scene("the long corridor", 15, 1.1, 1.15, 9)],
    }),
    effects: { scale: scales(6), compile_ahead: { true: { compile: 0.1 } } },
    runs: [{ label: "two rounds of the rooms, cache cleared", settings: {}, times: 1, cold: true }, { label: "the same, cache kept", settings: {}, times: 2 }],
  },
  {
    // The counter says 60 while the engine reports about 71 %: three settings tried one by one, one of them helps.
    rig: "Pipit", title: "Copper Regatta", engine: "Harrow", aim: "speed", daysAgo: 2, powerMode: "usual",
    workload: workload({ nativeFps: 59.94, capFps: 59.94, processorMs: 14.1, graphicsMs: 1, graphicsMsPerMegapixel: 3, megapixels: (320 * 240) / 1e6, repeatsFrames: true, scenes: [scene("harbour", 12, 0.98, 1), scene("the lock gates", 28, 1.02, 1)] }),
    effects: { scale: scales(8), back_end: { Vulkan: { graphics: 0.9 } }, async_sound: { true: { processor: 0.995 } }, light_model: { true: { processor: 0.66 } } },
    runs: [
      { label: "baseline", settings: {}, times: 3 },
      { label: "other back end", settings: { back_end: "Vulkan" }, times: 3 },
      { label: "sound on its own", settings: { async_sound: true }, times: 3 },
      { label: "lighter model", settings: { light_model: true }, times: 3 },
    ],
  },
  {
    // Full speed on average, long and short frames by turns: pacing.
    rig: "Pipit", title: "The Orchard Ledger", engine: "Plait", aim: "speed", daysAgo: 1, powerMode: "usual",
    workload: workload({ nativeFps: 30, capFps: 30, processorMs: 8, graphicsMs: 1, graphicsMsPerMegapixel: 4, megapixels: (384 * 240 + 320 * 240) / 1e6, unevenPacing: true, scenes: [scene("orchard", 15, 0.9, 0.9), scene("market day", 25, 1, 1)] }),
    effects: { scale: scales(6), even_pacing: { true: { evenPacing: true } } },
    runs: [{ label: "baseline", settings: {}, times: 3 }],
  },
];
