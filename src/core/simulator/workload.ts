import type { Settings } from "@/core/kit";

/**
 * A stretch of the test route: how much harder than usual it is, and how many effects it shows for the first
 * time.
 */
export interface SimScene {
  label: string;
  seconds: number;
  processor: number;
  graphics: number;
  newShaders: number;
}

/** A title as the simulated engine runs it. */
export interface SimWorkload {
  nativeFps: number;
  /** Rate the engine holds it to; null when it runs free. */
  capFps: number | null;
  /** Processor time of a frame on the reference machine, ms. */
  processorMs: number;
  /** Graphics time of a frame: a fixed part and a part for every million pixels, ms. */
  graphicsMs: number;
  graphicsMsPerMegapixel: number;
  /** Time of a frame in which neither half works: locks, copies, a driver's fault; ms. */
  waitMs: number;
  /** Native picture, millions of pixels. */
  megapixels: number;
  scenes: SimScene[];
  /** How often the route is walked. */
  passes: number;
  /** Time to compile one effect, ms. */
  compileMs: number;
  /** Time that storage keeps the engine waiting on every entry to a scene, ms in all. */
  storageMs: number;
  memoryStartMb: number;
  memoryMbPerMinute: number;
  /** The engine shows old frames at the display's pace while the title crawls. */
  repeatsFrames: boolean;
  /** Long and short frames take turns although the average holds. */
  unevenPacing: boolean;
  /** The engine waits for the display after every frame instead of working ahead. */
  strictSync: boolean;
}

/**
 * What a setting's value does: factors on the two halves' time and on compiling, and a scale for the picture.
 */
export interface SimEffect {
  processor?: number;
  graphics?: number;
  wait?: number;
  compile?: number;
  scale?: number;
  capFps?: number | null;
  evenPacing?: boolean;
}

/** Setting key → value (as text) → effect; a value not named does nothing. */
export type SimEffects = Record<string, Record<string, SimEffect>>;

/** A workload under settings in force. */
export function underSettings(
  workload: SimWorkload,
  settings: Settings,
  effects: SimEffects,
): SimWorkload & { scale: number } {
  const made = { ...workload, scale: 1 };
  for (const [key, value] of Object.entries(settings)) {
    const effect = effects[key]?.[String(value)];
    if (!effect) continue;
    made.processorMs *= effect.processor ?? 1;
    made.graphicsMs *= effect.graphics ?? 1;
    made.graphicsMsPerMegapixel *= effect.graphics ?? 1;
    made.waitMs *= effect.wait ?? 1;
    made.compileMs *= effect.compile ?? 1;
    made.scale *= effect.scale ?? 1;
    if (effect.capFps !== undefined) made.capFps = effect.capFps;
    if (effect.evenPacing) made.unevenPacing = false;
  }
  return made;
}
