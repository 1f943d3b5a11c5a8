import { simulate, type SimDevice, type SimWorkload } from "@/core/simulator";
import { summarise } from "@/core/metrics";
import { seeded, type Random } from "@/core/stats";
import type { Floats } from "@/core/trace";
import { causes, type Cause } from "@/core/diagnose/causes";
import { diagnose, type DiagnoseInput } from "@/core/diagnose/diagnose";

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

/** Ways in which devices differ from the ones above. */
const varieties: Partial<Record<Cause | "none", ((made: Varied, random: Random) => void)[]>> = {
  processor: [
    // Work that wanders from core to core.
    ({ device, reading }, random) => {
      reading.busiestShare = 0.64 + 0.22 * random.uniform();
      device.coreShare = 0.14 + 0.2 * random.uniform();
    },
    ({ workload }) => void (workload.strictSync = true),
    ({ workload }) => void (workload.capFps = null),
  ],
  graphics: [
    ({ workload }) => void (workload.strictSync = true),
    ({ workload }) => void (workload.capFps = null),
  ],
  heat: [
    ({ reading }) => void (reading.limit = "unknown"),
    ({ reading }, random) => void (reading.limit = 8 + 14 * random.uniform()),
  ],
  "cap or sync": [
    // 40 on a display of 60 Hz, and 48 on one that follows the engine.
    ({ device, workload, reading }) => {
      Object.assign(workload, { strictSync: false, capFps: 40 });
      device.refreshHz = 120;
      reading.shownOnHz = 60;
    },
    ({ device, workload, reading }) => {
      Object.assign(workload, { strictSync: false, capFps: 48 });
      device.refreshHz = 48;
      reading.refreshHz = 120;
    },
  ],
};

interface Varied extends Drawn {
  reading: {
    /** What the busiest core shows of the work. */
    busiestShare: number;
    /** The limit as known, or degrees above the one that acts. */
    limit: "known" | "unknown" | number;
    /** Refresh that the rig is said to have, and one that frames are shown on afterwards, Hz. */
    refreshHz: number | null;
    shownOnHz: number | null;
  };
}

/** Frames of a faster display as a slower one shows them: ends move up to its refreshes. */
function shownOn(frameTimes: Floats, hz: number): Float64Array {
  const tick = 1000 / hz;
  const ends = new Set<number>();
  let now = 0;
  for (const ms of frameTimes) ends.add(Math.ceil((now += ms) / tick - 0.02) * tick);
  let before = 0;
  return Float64Array.from([...ends], (end) => {
    const ms = end - before;
    before = end;
    return ms;
  }).filter((ms) => ms > 0);
}

/** Columns that a logger may leave out. */
const columns = ["cpu", "cpuBusiest", "gpu", "cpuClock", "gpuClock", "watts", "temperature"] as const;

/**
 * One labelled case on a device unlike those that the signs were set on: other target rates, work that wanders
 * over cores, displays that pace, odd caps, limits that nobody wrote down, another program's hitches, columns
 * missing.
 *
 * @param cause null: another program's hitches, which no cause of ours explains
 * @param missing chance of every column to be missing
 * @param also    a second cause, built in on top
 */
export function unseenCase(
  cause: Cause | null,
  seed: number,
  missing: number,
  also: Cause | null = null,
): { cause: Cause | null; input: DiagnoseInput } {
  for (let turn = 0; ; turn++) {
    const random = seeded(seed * 1613 + turn * 104_729 + (cause ? causes.indexOf(cause) : 11) * 6151);
    const drawn = atEase(random);
    if (cause) spoil[cause](drawn, random);
    if (also) spoil[also](drawn, random);
    const made: Varied = {
      ...drawn,
      reading: { busiestShare: 1, limit: "known", refreshHz: null, shownOnHz: null },
    };
    const ways = varieties[cause ?? "none"] ?? [];
    if (ways.length > 0 && random.uniform() < 0.7) ways[random.whole(ways.length)]?.(made, random);
    const { device, workload, reading } = made;
    const isOdd = reading.shownOnHz !== null || reading.refreshHz !== null;
    const target = isOdd ? 60 : ([30, 50, 60, 60][random.whole(4)] ?? 60);
    const slower = 60 / target;
    for (const key of ["processorMs", "graphicsMs", "graphicsMsPerMegapixel", "waitMs"] as const)
      workload[key] *= slower;
    workload.nativeFps = target;
    if (workload.capFps !== null && !isOdd) workload.capFps /= slower;
    if (target === 50) device.refreshHz = 100;
    const cold = cause === null ? random.uniform() < 0.6 : made.cold;
    const run = simulate(device, workload, random.whole(2 ** 30), made.cold);
    let frameTimes = reading.shownOnHz
      ? shownOn(run.trace.frameTimes, reading.shownOnHz)
      : run.trace.frameTimes;
    if (cause === null)
      frameTimes = frameTimes.map((ms) => (random.uniform() < 1 / 400 ? ms + 40 + 90 * random.uniform() : ms));
    const channels = run.trace.channels
      .filter(({ role }) => !columns.some((each) => each === role) || random.uniform() >= missing)
      .map((channel) =>
        channel.role === "cpuBusiest"
          ? { ...channel, values: channel.values.map((load) => load * reading.busiestShare) }
          : channel,
      );
    const refreshHz = reading.refreshHz ?? reading.shownOnHz ?? device.refreshHz;
    const summary = summarise(
      { ...run.trace, frameTimes, channels },
      { nativeFps: target, tied: true, targetFps: target, refreshHz },
    );
    const troubled =
      cause === null ||
      cause === "memory" ||
      cause === "shaders" ||
      cause === "storage" ||
      summary.averageFps < 0.965 * target;
    if (!troubled && turn < 40) continue;
    const limits = {
      temperatureC:
        reading.limit === "unknown" ? null : device.limitC + (reading.limit === "known" ? 0 : reading.limit),
      memoryMb: device.memoryMb,
      modeWatts: device.budgetWatts,
      processorMhz: device.processorMhz,
      graphicsMhz: device.graphicsMhz,
      refreshHz,
    };
    return { cause, input: { summary, cacheState: cold ? "cold" : "warm", crashed: run.crashed, limits } };
  }
}

/** A chance from which an answer counts as sure. */
const sure = 0.8;

/** Causes that can act at once, each pair in ways that leave both at work. */
export const causePairs: [Cause, Cause][] = [
  ["processor", "graphics"],
  ["processor", "shaders"],
  ["graphics", "storage"],
  ["power split", "storage"],
  ["governor", "shaders"],
  ["heat", "storage"],
  ["cap or sync", "shaders"],
  ["engine or driver", "storage"],
  ["memory", "graphics"],
  ["governor", "graphics"],
  ["heat", "cap or sync"],
  ["engine or driver", "heat"],
  ["processor", "engine or driver"],
];

/**
 * Runs with two causes at once: how often the likeliest is one of them, and how often something else is said
 * with 8 in 10 and more.
 * @param each cases of every pair
 */
export function scorePairs(each: number, seed: number, missing: number) {
  const made = { cases: 0, oneOfBoth: 0, sureOfAThird: 0 };
  for (const pair of causePairs)
    for (let k = 0; k < each; k++) {
      const [first] = diagnose(unseenCase(pair[0], seed + k, missing, pair[1]).input).likely;
      const isOne = first !== undefined && pair.includes(first.cause);
      made.cases++;
      if (isOne) made.oneOfBoth++;
      else if (first && first.chance >= sure) made.sureOfAThird++;
    }
  return made;
}

/** Chances said, in tenths, with how often they were right. */
export interface Reliability {
  /**
   * Cases whose likeliest cause had a chance in this tenth, their mean chance, and how many of those were
   * right.
   */
  tenths: { cases: number; said: number; right: number }[];
  /**
   * Of the cases with a cause of ours: likeliest cause right; named with 0.8 and more, and wrong; not named.
   */
  cases: number;
  firstRight: number;
  sureAndWrong: number;
  notNamed: number;
}

/** How often the likeliest cause is right, and whether a chance said is a chance kept. */
export function reliability(each: number, seed: number, missing: number): Reliability {
  const made: Reliability = {
    tenths: Array.from({ length: 10 }, () => ({ cases: 0, said: 0, right: 0 })),
    cases: 0,
    firstRight: 0,
    sureAndWrong: 0,
    notNamed: 0,
  };
  for (const cause of [...causes, null])
    for (let k = 0; k < each; k++) {
      const { likely, causes: named } = diagnose(unseenCase(cause, seed + k, missing).input);
      const [first] = likely;
      const isRight = first !== undefined && first.cause === cause;
      if (first) {
        const tenth = made.tenths[Math.min(9, Math.floor(10 * first.chance))];
        if (tenth) {
          tenth.cases++;
          tenth.said += first.chance;
          if (isRight) tenth.right++;
        }
      }
      made.cases++;
      if (first && first.chance >= sure && !isRight) made.sureAndWrong++;
      if (cause === null) {
        if (!first || first.chance < sure) made.firstRight++;
        continue;
      }
      if (isRight) made.firstRight++;
      if (named.length === 0) made.notNamed++;
    }
  return made;
}

/**
 * How often each cause was named first: rows are what was built in, columns what was said; the last column is
 * "not enough evidence" or nothing.
 */
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
