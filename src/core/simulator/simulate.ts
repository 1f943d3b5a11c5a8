import { seeded, type Random } from "@/core/stats";
import type { ChannelRole, FrameTrace, Mark } from "@/core/trace";
import { settledPower, type SimDevice, type SimPower } from "./device";
import type { SimWorkload } from "./workload";

export interface SimRun {
  trace: FrameTrace;
  /** The engine ran out of memory and died; the trace ends there. */
  crashed: boolean;
}

/** Spread of frame cost from frame to frame, how much of it lasts, and the spread from run to run. */
const frameSpread = 0.045;
const frameMemory = 0.85;
const runSpread = 0.012;
/** A stray hitch (another program, storage) about so often. */
const strayPerMinute = 0.1;
/** Share of the smaller half's work that the larger one can't hide. */
const unhidden = 0.08;
/** Loads are seen as means over about so long. */
const loadSeconds = 0.4;

/**
 * One run of a workload on a simulated device.
 *
 * A frame costs the larger of processor and graphics time, a part of the smaller, and what waits on neither.
 * Governor, a shared power budget and heat settle the clocks; heat follows the watts with a time constant;
 * first visits compile effects, entries wait for storage, memory may only grow. A capped engine works one frame
 * ahead of the display.
 *
 * @param seed equal seeds give equal runs
 * @param cold whether effects must be compiled on a first visit
 */
export function simulate(
  device: SimDevice,
  workload: SimWorkload & { scale: number },
  seed: number,
  cold: boolean,
): SimRun {
  const random = seeded(seed);
  const thisRun = Math.exp(runSpread * random.normal());
  const pixels = workload.megapixels * workload.scale ** 2;
  const frameTimes: number[] = [];
  const marks: Mark[] = [];
  const log = new TelemetryLog();
  const display = new Display(workload, 1000 / device.refreshHz, random);
  const busy = { processor: 0.5, graphics: 0.5 };
  let now = 0,
    celsius = device.startC,
    memory = workload.memoryStartMb,
    drift = 0,
    crashed = false;
  let power: SimPower = settledPower(device, busy.processor, busy.graphics, celsius);

  for (let pass = 0; pass < workload.passes && !crashed; pass++) {
    for (const scene of workload.scenes) {
      const sceneStart = now;
      const compileAt = cold && pass === 0 ? compileTimes(scene.newShaders, scene.seconds, random) : [];
      const stalls = storageStalls(workload.storageMs, random);
      while (now - sceneStart < scene.seconds * 1000 && !crashed) {
        drift = frameMemory * drift + Math.sqrt(1 - frameMemory ** 2) * random.normal();
        const wobble = thisRun * Math.exp(frameSpread * drift);
        const processorMs =
          (workload.processorMs * scene.processor * wobble) / (device.processorSpeed * power.processor);
        const graphicsMs =
          ((workload.graphicsMs + workload.graphicsMsPerMegapixel * pixels) * scene.graphics * wobble) /
          (device.graphicsSpeed * power.graphics);
        let work =
          Math.max(processorMs, graphicsMs) +
          unhidden * Math.min(processorMs, graphicsMs) +
          workload.waitMs * Math.exp(frameSpread * drift);
        const speed = Math.min(1, 1000 / workload.nativeFps / work);
        if (compileAt.length > 0 && now - sceneStart >= compileAt[0]) {
          compileAt.shift();
          work += workload.compileMs * (0.6 + 0.8 * random.uniform());
        }
        if (stalls.length > 0 && now - sceneStart >= stalls[0].at) work += stalls.shift()?.ms ?? 0;
        if (random.uniform() < (strayPerMinute * work) / 60_000) work += 25 + 30 * random.uniform();
        const { frameMs, periodMs } = display.show(work);
        now += frameMs;
        frameTimes.push(frameMs);

        const share = 1 - Math.exp(-periodMs / 1000 / loadSeconds);
        busy.processor += (Math.min(1, processorMs / periodMs) - busy.processor) * share;
        busy.graphics += (Math.min(1, graphicsMs / periodMs) - busy.graphics) * share;
        power = settledPower(device, busy.processor, busy.graphics, celsius);
        const settled = device.roomC + device.degreesPerWatt * power.watts;
        celsius += (settled - celsius) * (1 - Math.exp(-frameMs / 1000 / device.settleSeconds));
        memory += (workload.memoryMbPerMinute * frameMs) / 60_000;
        crashed = memory >= device.memoryMb;
        log.add(
          now,
          frameMs,
          {
            cpu: 100 * (busy.processor * device.coreShare + 0.03),
            cpuBusiest: 98 * busy.processor,
            gpu: 98 * busy.graphics,
            cpuClock: device.processorMhz * power.processor,
            gpuClock: device.graphicsMhz * power.graphics,
            watts: power.watts,
            temperature: celsius,
            memory,
            ...(workload.repeatsFrames ? { speed: 100 * speed } : {}),
          },
          random,
        );
      }
      marks.push({ label: scene.label, startMs: sceneStart, endMs: now });
    }
  }
  return {
    trace: { form: "frames", frameTimes: Float64Array.from(frameTimes), channels: log.channels(), marks },
    crashed,
  };
}

/** When in a scene its new effects are first seen, ms: mostly on entering. */
function compileTimes(count: number, seconds: number, random: Random): number[] {
  return Array.from({ length: count }, () => 300 + random.uniform() ** 2 * seconds * 700).sort((a, b) => a - b);
}

/** A few waits for storage in the first seconds of a scene, at every visit. */
function storageStalls(total: number, random: Random): { at: number; ms: number }[] {
  if (total <= 0) return [];
  const count = 2 + random.whole(3);
  return Array.from({ length: count }, () => ({
    at: 100 + 2200 * random.uniform(),
    ms: (total / count) * (0.7 + 0.6 * random.uniform()),
  })).sort((a, b) => a.at - b.at);
}

/**
 * Shows finished frames at the display's refreshes; the engine works one frame ahead unless it waits strictly.
 */
class Display {
  private readonly wanted: number;
  private readonly uneven: number;
  private shownAt: number;
  private shownBefore: number;
  private finished = 0;
  private turn = false;

  constructor(
    private readonly workload: SimWorkload,
    private readonly tick: number,
    private readonly random: Random,
  ) {
    this.wanted = workload.capFps === null ? 1 : Math.max(1, Math.round(1000 / workload.capFps / tick));
    // About a sixtieth of a second too long and too short by turns.
    this.uneven = workload.unevenPacing
      ? Math.min(this.wanted - 1, Math.max(1, Math.round(1000 / 60 / tick)))
      : 0;
    this.shownAt = 0;
    this.shownBefore = -this.wanted * tick;
  }

  /** @returns how long the frame was shown for, and the engine's own time from finish to finish; ms */
  show(work: number): { frameMs: number; periodMs: number } {
    const { workload, tick } = this;
    if (workload.capFps === null) return { frameMs: work, periodMs: work };
    const jitter = 0.06 * this.random.normal();
    if (workload.repeatsFrames)
      return { frameMs: this.wanted * tick + jitter, periodMs: Math.max(work, 1000 / workload.nativeFps) };
    const start = Math.max(this.finished, workload.strictSync ? this.shownAt : this.shownBefore);
    const finish = start + work;
    this.turn = !this.turn;
    const least = this.shownAt + (this.wanted + (this.turn ? this.uneven : -this.uneven)) * tick;
    const shown = Math.max(Math.ceil(finish / tick - 0.02) * tick, least);
    const frameMs = shown - this.shownAt;
    const periodMs = Math.max(work, finish - this.finished, 1);
    this.finished = finish;
    this.shownBefore = this.shownAt;
    this.shownAt = shown;
    return { frameMs: Math.max(0.1, frameMs + jitter), periodMs };
  }
}

type Readings = Partial<Record<ChannelRole, number>>;

/** Telemetry as a logger keeps it: means over half a second, rounded as sensors round. */
class TelemetryLog {
  private readonly kept = new Map<ChannelRole, { times: number[]; values: number[] }>();
  private sums: Readings = {};
  private span = 0;
  private due = 500;

  add(now: number, frameMs: number, readings: Readings, random: Random): void {
    this.span += frameMs;
    for (const [role, value] of Object.entries(readings) as [ChannelRole, number][])
      this.sums[role] = (this.sums[role] ?? 0) + value * frameMs;
    if (now < this.due) return;
    for (const [role, sum] of Object.entries(this.sums) as [ChannelRole, number][]) {
      const isLoad = role === "cpu" || role === "cpuBusiest" || role === "gpu";
      const digits = role === "watts" || role === "temperature" || role === "speed" ? 10 : 1;
      const value = sum / this.span + (isLoad ? random.normal() : 0);
      const channel = this.kept.get(role) ?? { times: [], values: [] };
      channel.times.push(now);
      channel.values.push(Math.round((isLoad ? Math.min(100, Math.max(0, value)) : value) * digits) / digits);
      this.kept.set(role, channel);
    }
    this.sums = {};
    this.span = 0;
    this.due = now + 500;
  }

  channels() {
    return [...this.kept].map(([role, { times, values }]) => ({
      role,
      times: Float64Array.from(times),
      values: Float64Array.from(values),
    }));
  }
}
