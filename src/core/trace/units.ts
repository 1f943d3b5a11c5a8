import type { Role, Unit } from "./types";

const spellings: Record<string, Unit> = {
  s: "s",
  sec: "s",
  secs: "s",
  second: "s",
  seconds: "s",
  ms: "ms",
  msec: "ms",
  millisecond: "ms",
  milliseconds: "ms",
  us: "us",
  µs: "us",
  μs: "us",
  usec: "us",
  microsecond: "us",
  microseconds: "us",
  ns: "ns",
  nsec: "ns",
  nanosecond: "ns",
  nanoseconds: "ns",
  fps: "fps",
  "%": "%",
  percent: "%",
  pct: "%",
  hz: "Hz",
  khz: "kHz",
  mhz: "MHz",
  ghz: "GHz",
  w: "W",
  watt: "W",
  watts: "W",
  mw: "mW",
  milliwatts: "mW",
  "°c": "C",
  c: "C",
  celsius: "C",
  degc: "C",
  "°f": "F",
  fahrenheit: "F",
  b: "B",
  bytes: "B",
  kb: "KB",
  kib: "KB",
  mb: "MB",
  mib: "MB",
  gb: "GB",
  gib: "GB",
};

/** The unit a word stands for, or null. */
export function unitNamed(word: string): Unit | null {
  return Object.hasOwn(spellings, word.toLowerCase()) ? spellings[word.toLowerCase()] : null;
}

const toMs: Partial<Record<Unit, number>> = { s: 1000, ms: 1, us: 1e-3, ns: 1e-6, clock: 1 };
const toMhz: Partial<Record<Unit, number>> = { Hz: 1e-6, kHz: 1e-3, MHz: 1, GHz: 1000 };
const toMb: Partial<Record<Unit, number>> = { B: 1e-6, KB: 1e-3, MB: 1, GB: 1000 };

/** Units a role can be written in; empty when the role has none. */
export function unitsFor(role: Role): Unit[] {
  switch (role) {
    case "frameTime":
      return ["s", "ms", "us", "ns"];
    case "presentTime":
      return ["s", "ms", "us", "ns", "clock"];
    case "rate":
      return ["fps"];
    case "speed":
    case "cpu":
    case "cpuBusiest":
    case "gpu":
    case "battery":
      return ["%"];
    case "cpuClock":
    case "gpuClock":
      return ["Hz", "kHz", "MHz", "GHz"];
    case "watts":
      return ["W", "mW"];
    case "temperature":
    case "gpuTemperature":
      return ["C", "F"];
    case "memory":
    case "videoMemory":
      return ["B", "KB", "MB", "GB"];
    case "dropouts":
    case "scene":
    case "pass":
    case "ignore":
      return [];
  }
}

/**
 * Factor and offset that turn a reading into the unit its role is kept in
 * (ms, fps, %, MHz, W, °C, MB): kept = reading · factor + offset.
 */
export function conversion(role: Role, unit: Unit | null): { factor: number; offset: number } {
  if (unit === null) return { factor: 1, offset: 0 };
  if (role === "frameTime" || role === "presentTime") return { factor: toMs[unit] ?? 1, offset: 0 };
  if (role === "cpuClock" || role === "gpuClock") return { factor: toMhz[unit] ?? 1, offset: 0 };
  if (role === "memory" || role === "videoMemory") return { factor: toMb[unit] ?? 1, offset: 0 };
  if (role === "watts") return { factor: unit === "mW" ? 1e-3 : 1, offset: 0 };
  if (unit === "F") return { factor: 5 / 9, offset: -160 / 9 };
  return { factor: 1, offset: 0 };
}

/** The unit of frame times by their typical size: from 1 frame a second to 5,000. */
export function plausibleFrameTimeUnit(median: number): Unit {
  if (median < 0.2) return "s";
  if (median < 1000) return "ms";
  return median < 1e6 ? "us" : "ns";
}

/**
 * The unit of clock readings by their typical step. Beside a rate the step is first held against
 * the frame that the rate implies; failing that, the readings are a counter's, a fraction of a
 * second to a minute and a half apart.
 *
 * @param medianStep typical difference of successive readings, unit unknown
 * @param rate       typical reading of a rate column in fps, or null without one
 */
export function plausibleClockUnit(medianStep: number, rate: number | null): Unit {
  if (rate === null) return plausibleFrameTimeUnit(medianStep);
  const frames = (["s", "ms", "us", "ns"] as const).find(
    (unit) => Math.abs((medianStep * (toMs[unit] ?? NaN) * rate) / 1000 - 1) < 0.4,
  );
  if (frames) return frames;
  if (medianStep < 90) return "s";
  if (medianStep < 9e4) return "ms";
  return medianStep < 9e7 ? "us" : "ns";
}
