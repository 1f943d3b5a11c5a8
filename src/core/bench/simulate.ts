import { seeded, type Random } from "@/core/stats";
import type { ChannelRole, FrameTrace, Mark } from "@/core/trace";
import { heatFactor, speedAt, type SimDevice } from "./device";
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
const strayPerMinute = 0.25;
/** Shares of the smaller half's work that the larger one can't hide. */
const unhidden = 0.12;

/**
 * One run of a workload on a simulated device.
 *
 * A frame costs the larger of processor and graphics time plus a part of the smaller; the display shows it at
 * the next refresh when the rate is capped. Power splits between the halves, heat follows the watts with a time
 * constant and takes clocks back at the limit, first visits compile effects, memory may only grow.
 *
 * @param seed equal seeds give equal runs
 * @param cold whether effects must be compiled on a first visit
 */
export function simulate(device: SimDevice, workload: SimWorkload & { scale: number }, seed: number, cold: boolean): SimRun {
  const random = seeded(seed);
  const tick = 1000 / device.refreshHz;
  const thisRun = Math.exp(runSpread * random.normal());
  const pixels = workload.megapixels * workload.scale ** 2;
  const frameTimes: number[] = [];
  const marks: Mark[] = [];
  const log = new TelemetryLog();
  let now = 0, celsius = device.startC, memory = workload.memoryStartMb, drift = 0, turn = false, crashed = false;

  for (let pass = 0; pass < workload.passes && !crashed; pass++) {
    for (const scene of workload.scenes) {
      const sceneStart = now;
      const compileAt = cold && pass === 0 ? compileTimes(scene.newShaders, scene.seconds, random) : [];
      while (now - sceneStart < scene.seconds * 1000 && !crashed) {
        drift = frameMemory * drift + Math.sqrt(1 - frameMemory ** 2) * random.normal();
        const wobble = thisRun * Math.exp(frameSpread * drift);
        const clocks = device.governor * heatFactor(celsius, device.limitC);
        const processorMs = (workload.processorMs * scene.processor * wobble) / (device.processorSpeed * speedAt(device.processorWatts) * clocks);
        const graphicsMs = ((workload.graphicsMs + workload.graphicsMsPerMegapixel * pixels) * scene.graphics * wobble) / (device.graphicsSpeed * speedAt(device.graphicsWatts) * clocks);
        let work = Math.max(processorMs, graphicsMs) + unhidden * Math.min(processorMs, graphicsMs);
        const speed = Math.min(1, 1000 / workload.nativeFps / work);
        if (compileAt.length > 0 && now - sceneStart >= compileAt[0]) {
          compileAt.shift();
          work += workload.compileMs * (0.6 + 0.8 * random.uniform());
        }
        if (random.uniform() < (strayPerMinute * work) / 60_000) work += 25 + 30 * random.uniform();
        const frameMs = shown(work, workload, tick, turn, random);
        turn = !turn;
        now += frameMs;
        frameTimes.push(frameMs);

        const busyProcessor = Math.min(1, processorMs / frameMs), busyGraphics = Math.min(1, graphicsMs / frameMs);
        const watts = device.idleWatts + clocks * (device.processorWatts * busyProcessor + device.graphicsWatts * busyGraphics);
        const settled = device.roomC + device.degreesPerWatt * watts;
        celsius += (settled - celsius) * (1 - Math.exp(-frameMs / 1000 / device.settleSeconds));
        memory += (workload.memoryMbPerMinute * frameMs) / 60_000;
        crashed = memory >= device.memoryMb;
        log.add(now, {
          cpu: 100 * busyProcessor * 0.97, gpu: 100 * busyGraphics * 0.98, cpuClock: device.processorMhz * clocks, gpuClock: device.graphicsMhz * clocks,
          watts, temperature: celsius, memory, ...(workload.repeatsFrames ? { speed: 100 * speed } : {}),
        }, random);
      }
      marks.push({ label: scene.label, startMs: sceneStart, endMs: now });
    }
  }
  return { trace: { form: "frames", frameTimes: Float64Array.from(frameTimes), channels: log.channels(), marks }, crashed };
}

/** When in a scene its new effects are first seen, ms: mostly on entering. */
function compileTimes(count: number, seconds: number, random: Random): number[] {
  return Array.from({ length: count }, () => 300 + random.uniform() ** 2 * seconds * 700).sort((a, b) => a - b);
}

/** How long the display shows a frame whose work took `work` ms. */
function shown(work: number, workload: SimWorkload, tick: number, turn: boolean, random: Random): number {
  const jitter = 0.06 * random.normal();
  if (workload.capFps === null) return work;
  const wanted = Math.max(1, Math.round(1000 / workload.capFps / tick));
  if (workload.repeatsFrames) return wanted * tick + jitter;
  const needed = Math.max(wanted, Math.ceil(work / tick - 0.02));
  if (workload.unevenPacing && needed === wanted) return (wanted + (turn ? 1 : -1)) * tick + jitter;
  return needed * tick + jitter;
}

type Readings = Partial<Record<ChannelRole, number>>;

/** Telemetry as a logger keeps it: means over half a second, rounded as sensors round. */
class TelemetryLog {
  private readonly kept = new Map<ChannelRole, { times: number[]; values: number[] }>();
  private sums: Readings = {};
  private count = 0;
  private due = 500;

  add(now: number, readings: Readings, random: Random): void {
    this.count++;
    for (const [role, value] of Object.entries(readings) as [ChannelRole, number][]) this.sums[role] = (this.sums[role] ?? 0) + value;
    if (now < this.due) return;
    for (const [role, sum] of Object.entries(this.sums) as [ChannelRole, number][]) {
      const noise = role === "cpu" || role === "gpu" ? random.normal() : 0;
      const digits = role === "watts" || role === "temperature" || role === "speed" ? 10 : 1;
      const value = sum / this.count + noise;
      const channel = this.kept.get(role) ?? { times: [], values: [] };
      channel.times.push(now);
      channel.values.push(Math.round((role === "cpu" || role === "gpu" ? Math.min(100, Math.max(0, value)) : value) * digits) / digits);
      this.kept.set(role, channel);
    }
    this.sums = {};
    this.count = 0;
    this.due = now + 500;
  }

  channels() {
    return [...this.kept].map(([role, { times, values }]) => ({ role, times: Float64Array.from(times), values: Float64Array.from(values) }));
  }
}
