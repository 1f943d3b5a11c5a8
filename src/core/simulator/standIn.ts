import type { RigSpec } from "@/core/kit";
import { seeded } from "@/core/stats";
import { simulate, type SimRun } from "./simulate";
import type { SimDevice } from "./device";

/** What a device that isn't there is asked to run. */
export interface StandInAsked {
  spec: RigSpec;
  powerMode: string | null;
  title: string;
  engine: string;
  build: string;
  scale: number;
  /** Length of the scene, s. */
  seconds: number;
  /** Equal seeds give equal runs. */
  seed: number;
}

/** A seed of a text: FNV-1a, 32 bits (Fowler, Noll & Vo). */
export const seedOf = (text: string): number =>
  [...text].reduce((hash, sign) => Math.imul(hash ^ (sign.codePointAt(0) ?? 0), 0x01000193) >>> 0, 0x811c9dc5);

const usualGhz = 3,
  usualWatts = 12;

/** A made-up device of about the size that a rig is said to have. */
function deviceLike(spec: RigSpec, powerMode: string | null): SimDevice {
  const ghz = Math.max(...spec.processor.clusters.map(({ boostGhz }) => boostGhz ?? 0), 0) || usualGhz;
  const watts = spec.powerModes.find(({ name }) => name === powerMode)?.watts ?? usualWatts;
  return {
    refreshHz: spec.displays[0]?.refreshHz[0] ?? 60,
    processorSpeed: ghz / usualGhz,
    graphicsSpeed: 1,
    processorMhz: 1000 * ghz,
    graphicsMhz: 1000 * (spec.graphics.clockGhz ?? 1),
    processorMaxWatts: 10,
    graphicsMaxWatts: 7,
    idleWatts: 1.5,
    budgetWatts: watts,
    processorFirstWatts: watts / 2,
    spin: 0.5,
    coreShare: 0.4,
    governor: { floor: 0.4, sees: 1 },
    roomC: 21,
    degreesPerWatt: 3.5,
    settleSeconds: 150,
    limitC: spec.temperatureLimitC ?? 95,
    startC: 42,
    memoryMb: 1024 * (spec.memoryGb ?? 8),
  };
}

/**
 * A run as a device that isn't there would make it: a stand-in for a real one, so that what takes runs by
 * itself can be tried. A title has its own hardness and an engine's build its own haste, by their names alone.
 */
export function standInRun({
  spec,
  powerMode,
  title,
  engine,
  build,
  scale,
  seconds,
  seed,
}: StandInAsked): SimRun {
  const work = seeded(seedOf(title)),
    haste = Math.exp(0.12 * seeded(seedOf(`${engine} ${build}`)).normal());
  return simulate(
    deviceLike(spec, powerMode),
    {
      nativeFps: 60,
      capFps: 60,
      processorMs: haste * (9 + 9 * work.uniform()),
      graphicsMs: 2,
      graphicsMsPerMegapixel: 4 + 4 * work.uniform(),
      waitMs: 0.2,
      megapixels: 0.0768,
      scenes: [
        { label: "opening", seconds: 0.3 * seconds, processor: 0.94, graphics: 0.95, newShaders: 0 },
        { label: "the worst of it", seconds: 0.7 * seconds, processor: 1.03, graphics: 1.04, newShaders: 0 },
      ],
      passes: 1,
      compileMs: 20,
      storageMs: 0,
      memoryStartMb: 1500,
      memoryMbPerMinute: 0,
      repeatsFrames: false,
      unevenPacing: false,
      strictSync: false,
      scale,
    },
    seed,
    false,
  );
}
