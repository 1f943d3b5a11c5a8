import type { RigSpec, Setting, Settings } from "@/core/kit";
import { seeded } from "@/core/stats";
import { simulate, type SimRun } from "./simulate";
import type { SimDevice } from "./device";
import { underSettings, type SimEffects, type SimWorkload } from "./workload";

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

/** A title as an engine's build that isn't there runs it: its own hardness, and the build's own haste, by their names. */
function standInWorkload({
  title,
  engine,
  build,
  seconds,
}: Pick<StandInAsked, "title" | "engine" | "build" | "seconds">): SimWorkload {
  const work = seeded(seedOf(title)),
    haste = Math.exp(0.12 * seeded(seedOf(`${engine} ${build}`)).normal());
  return {
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
  };
}

/**
 * A run as a device that isn't there would make it: a stand-in for a real one, so that what takes runs by
 * itself can be tried. A title has its own hardness and an engine's build its own haste, by their names alone.
 */
export const standInRun = ({ spec, powerMode, scale, seed, ...asked }: StandInAsked): SimRun =>
  simulate(deviceLike(spec, powerMode), { ...standInWorkload(asked), scale }, seed, false);

/** What a device that isn't there plays: a title with an engine's settings in force, from a temperature. */
export interface StandInPlay extends Omit<StandInAsked, "scale"> {
  settings: Settings;
  catalogue: Pick<Setting, "key" | "default" | "fastest" | "relieves" | "purpose">[];
  /** °C that it begins with. */
  startC: number;
}

/** What the fastest value of a setting leaves of the time of a half that it relieves. */
const fastestLeaves = 0.88;

/** What settings do to a title that isn't there: a scale its picture, the fastest value of others the halves they relieve. */
function effectsOf(settings: Settings, catalogue: StandInPlay["catalogue"]): SimEffects {
  return Object.fromEntries(
    Object.entries(settings).map(([key, value]) => {
      const known = catalogue.find((setting) => setting.key === key);
      const isFastest = known?.fastest != null && value === known.fastest && value !== known.default;
      const of = (half: "processor" | "graphics") =>
        isFastest && known.relieves.includes(half) ? { [half]: fastestLeaves } : {};
      const effect =
        known?.purpose === "scale" ? { scale: Number(value) || 1 } : { ...of("processor"), ...of("graphics") };
      return [key, { [String(value)]: effect }];
    }),
  );
}

/** A run as a device that isn't there plays it, with what its settings do. */
export function standInPlay({ settings, catalogue, startC, ...asked }: StandInPlay): SimRun {
  const { scale, ...workload } = underSettings(
    standInWorkload(asked),
    settings,
    effectsOf(settings, catalogue),
  );
  const device = { ...deviceLike(asked.spec, asked.powerMode), startC };
  return simulate(device, { ...workload, scale }, asked.seed, false);
}

/** How a device that isn't there cools: °C after so many seconds of rest. */
export function standInCooled(spec: RigSpec, celsius: number, seconds: number): number {
  const { roomC, idleWatts, degreesPerWatt, settleSeconds } = deviceLike(spec, null);
  const rest = roomC + idleWatts * degreesPerWatt;
  return rest + (celsius - rest) * Math.exp(-seconds / settleSeconds);
}
