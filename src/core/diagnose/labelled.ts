import { simulate, type SimDevice, type SimWorkload } from "@/core/bench";
import { summarise } from "@/core/metrics";
import { seeded, type Random } from "@/core/stats";
import { causes, type Cause } from "./causes";
import { diagnose, type DiagnoseInput } from "./diagnose";

/** A simulated run whose cause is known, since it was built in. */
export interface LabelledCase {
  cause: Cause;
  input: DiagnoseInput;
}

interface Drawn {
  device: SimDevice;
  workload: SimWorkload & { scale: number };
  cold: boolean;
}

const targetFps = 60;

/** A device and a title at ease with one another, varied; every case spoils one thing of it. */
function atEase(random: Random): Drawn {
  const between = (low: number, high: number) => low + (high - low) * random.uniform();
  const scenes = Array.from({ length: 2 + random.whole(2) }, (_, k) => ({
    label: `scene ${k + 1}`,
    seconds: between(12, 18),
    processor: between(0.93, 1.07),
    graphics: between(0.93, 1.07),
    newShaders: 0,
  }));
  return {
    cold: false,
    device: {
      refreshHz: random.uniform() < 0.7 ? 60 : 120,
      processorSpeed: 1,
      graphicsSpeed: 1,
      processorMhz: between(2200, 4600),
      graphicsMhz: between(700, 2300),
      processorMaxWatts: between(5, 15),
      graphicsMaxWatts: between(4, 14),
      idleWatts: between(1, 4),
      budgetWatts: 45,
      processorFirstWatts: 20,
      spin: between(0.2, 0.6),
      coreShare: between(0.2, 0.6),
      governor: random.uniform() < 0.5 ? { floor: 1, sees: 1 } : { floor: 0.35, sees: 1 },
      roomC: between(18, 28),
      degreesPerWatt: between(0.8, 1.6),
      settleSeconds: between(60, 240),
      limitC: between(80, 97),
      startC: between(34, 44),
      memoryMb: between(6000, 16_000),
    },
    workload: {
      nativeFps: targetFps,
      capFps: 60,
      processorMs: between(5, 9),
      graphicsMs: between(1, 2),
      graphicsMsPerMegapixel: between(2, 3.5),
      waitMs: 0,
      megapixels: between(0.1, 0.3),
      scale: 2 + random.whole(2),
      scenes,
      passes: 2,
      compileMs: between(120, 350),
      storageMs: 0,
      memoryStartMb: between(1200, 2600),
      memoryMbPerMinute: between(0, 3),
      repeatsFrames: false,
      unevenPacing: false,
      strictSync: false,
    },
  };
}

/** What spoils a run, one way a cause. */
const spoil: Record<Cause, (drawn: Drawn, random: Random) => void> = {
  processor({ workload, device }, random) {
    workload.processorMs = 18.5 + 12 * random.uniform();
    device.processorMaxWatts = 6 + 6 * random.uniform();
  },
  graphics({ workload }, random) {
    workload.graphicsMs = 19 + 14 * random.uniform();
    if (random.uniform() < 0.5) workload.capFps = null;
  },
  "power split"({ workload, device }, random) {
    Object.assign(device, {
      processorMaxWatts: 20 + 3 * random.uniform(),
      graphicsMaxWatts: 13 + 5 * random.uniform(),
      spin: 0.88 + 0.1 * random.uniform(),
      governor: { floor: 1, sees: 1 },
      processorFirstWatts: 21,
    });
    device.budgetWatts =
      device.idleWatts +
      device.processorMaxWatts * device.spin +
      device.graphicsMaxWatts * (0.25 + 0.1 * random.uniform());
    workload.graphicsMs = 11 + 3.5 * random.uniform();
  },
  governor({ workload, device }, random) {
    device.governor = { floor: 0.22 + 0.13 * random.uniform(), sees: 0.32 + 0.12 * random.uniform() };
    workload.processorMs = 9.5 + 4 * random.uniform();
  },
  heat({ workload, device }, random) {
    Object.assign(device, {
      governor: { floor: 1, sees: 1 },
      limitC: 72 + 12 * random.uniform(),
      settleSeconds: 20 + 25 * random.uniform(),
    });
    const heavy = random.uniform() < 0.5;
    workload[heavy ? "processorMs" : "graphicsMs"] = 14.2 + 1.5 * random.uniform();
    for (const scene of workload.scenes) scene.seconds = 40;
    // Hot enough that it would settle 12 to 35 degrees past the limit.
    const watts = device.idleWatts + (heavy ? device.processorMaxWatts : device.graphicsMaxWatts) * 0.95 + 2;
    device.degreesPerWatt = (device.limitC - device.roomC + 12 + 23 * random.uniform()) / watts;
  },
  memory({ workload, device }, random) {
    const minutes = 0.6 + 12 * random.uniform() ** 2;
    workload.memoryStartMb = device.memoryMb * (0.75 + 0.1 * random.uniform());
    workload.memoryMbPerMinute = (device.memoryMb - workload.memoryStartMb) / minutes;
  },
  shaders(drawn, random) {
    drawn.cold = true;
    for (const scene of drawn.workload.scenes) scene.newShaders = 3 + random.whole(7);
  },
  storage({ workload }, random) {
    workload.storageMs = 250 + 700 * random.uniform();
  },
  "cap or sync"({ workload, device }, random) {
    if (random.uniform() < 0.6) workload.capFps = random.uniform() < 0.7 ? 30 : 40;
    else
      Object.assign(workload, { strictSync: true, processorMs: 15.4 + 0.6 * random.uniform(), graphicsMs: 8 });
    if (workload.capFps === 40) device.refreshHz = 120;
    if (workload.strictSync) device.refreshHz = 60;
  },
  "engine or driver"({ workload }, random) {
    workload.waitMs = 13 + 12 * random.uniform();
    if (random.uniform() < 0.5) workload.capFps = null;
  },
};

/**
 * One labelled case. A draw that happens to run at full speed spoils nothing and is drawn again.
 * @param seed equal seeds give equal cases
 */
export function labelledCase(cause: Cause, seed: number): LabelledCase {
  for (let turn = 0; ; turn++) {
    const random = seeded(seed * 977 + turn * 131_071 + causes.indexOf(cause) * 7919);
    const drawn = atEase(random);
    spoil[cause](drawn, random);
    const { device, workload, cold } = drawn;
    const { trace, crashed } = simulate(device, workload, random.whole(2 ** 30), cold);
    const summary = summarise(trace, {
      nativeFps: targetFps,
      tied: true,
      targetFps,
      refreshHz: device.refreshHz,
    });
    const troubled =
      cause === "memory" ||
      cause === "shaders" ||
      cause === "storage" ||
      summary.averageFps < 0.965 * targetFps;
    if (!troubled && turn < 40) continue;
    const limits = {
      temperatureC: device.limitC,
      memoryMb: device.memoryMb,
      modeWatts: device.budgetWatts,
      processorMhz: device.processorMhz,
      graphicsMhz: device.graphicsMhz,
      refreshHz: device.refreshHz,
    };
    return { cause, input: { summary, cacheState: cold ? "cold" : "warm", crashed, limits } };
  }
}

/** How often each cause was named first: rows are what was built in, columns what was said; the last column is "not enough evidence" or nothing. */
export interface Confusion {
  counts: Record<Cause, Record<Cause | "none", number>>;
  right: number;
  cases: number;
}

/** Diagnoses `each` cases of every cause. */
export function scoreDiagnosis(each: number, seed: number): Confusion {
  const counts = Object.fromEntries(
    causes.map((cause) => [cause, Object.fromEntries([...causes, "none"].map((said) => [said, 0]))]),
  ) as Confusion["counts"];
  let right = 0;
  for (const cause of causes) {
    for (let k = 0; k < each; k++) {
      const said = diagnose(labelledCase(cause, seed + k).input).causes[0]?.cause ?? "none";
      counts[cause][said]++;
      if (said === cause) right++;
    }
  }
  return { counts, right, cases: each * causes.length };
}
