import type { ChannelRole } from "@/core/trace";
import type { Read } from "./tally";

/** What a number read off a screen is, where it doesn't say. */
export const readingKinds = ["rate", "speed", "frame time"] as const;
export type ReadingKind = (typeof readingKinds)[number];

/** One reading as it was typed: what it was taken for, in fps, and what was read beside it. */
export interface Typed extends Pick<Read, "fps" | "channels"> {
  kind: ReadingKind;
  /** The number as typed, in its own unit. */
  value: number;
}

/** What was typed, read; or the part that can't be. */
export type TypedReading = { ok: true; readings: Typed[] } | { ok: false; part: string };

/** Names of what is read beside a rate, and the channel each is; a clock is told from a load by its unit. */
const names: Record<string, { role: ChannelRole; clock?: ChannelRole; heat?: ChannelRole }> = {
  cpu: { role: "cpu", clock: "cpuClock", heat: "temperature" },
  processor: { role: "cpu", clock: "cpuClock", heat: "temperature" },
  core: { role: "cpuBusiest", clock: "cpuClock" },
  busiest: { role: "cpuBusiest" },
  gpu: { role: "gpu", clock: "gpuClock", heat: "gpuTemperature" },
  graphics: { role: "gpu", clock: "gpuClock", heat: "gpuTemperature" },
  speed: { role: "speed" },
  power: { role: "watts" },
  watts: { role: "watts" },
  temp: { role: "temperature" },
  temperature: { role: "temperature" },
  battery: { role: "battery" },
  bat: { role: "battery" },
  ram: { role: "memory" },
  memory: { role: "memory" },
  vram: { role: "videoMemory" },
};

const token =
  /\s*(?:(?<name>[a-z]+)\s*[:=]?\s*)?(?<number>\d+(?:[.,]\d+)?)\s*(?<unit>%|ms|fps|w|°\s*c|c|mhz|ghz|gb|mb)?(?![\p{L}\d.])[\s,;]*/iuy;

/** What a number is that isn't the reading itself; null where nothing tells. */
function besideOf(name: string, value: number, unit: string): { role: ChannelRole; value: number } | null {
  const named = name === "" ? null : names[name];
  if (named === undefined) return null;
  switch (unit) {
    case "w":
      return { role: "watts", value };
    case "c":
      return { role: named?.heat ?? "temperature", value };
    case "mhz":
    case "ghz":
      return named?.clock ? { role: named.clock, value: unit === "ghz" ? 1000 * value : value } : null;
    case "mb":
    case "gb":
      return {
        role: named?.role === "videoMemory" ? "videoMemory" : "memory",
        value: unit === "gb" ? 1024 * value : value,
      };
    default:
      return named ? { role: named.role, value } : null;
  }
}

/** A number read off a screen as a rate, fps; null where it can't be one. */
function rateOf(value: number, kind: ReadingKind, nativeFps: number): number | null {
  const fps =
    kind === "rate"
      ? value
      : kind === "speed"
        ? (nativeFps * value) / 100
        : value > 0
          ? 1000 / value
          : Infinity;
  return fps >= 0 && fps <= 1000 ? fps : null;
}

const kindsByUnit: Partial<Record<string, ReadingKind>> = { "%": "speed", ms: "frame time", fps: "rate" };

/**
 * Readings as a person types them: "60", "85 %", "42 ms", several in a row, each with what was read beside it:
 * "60 gpu 97 cpu 88 15 W 71 C".
 *
 * @param kind what a bare number is
 * @param nativeFps the title's own rate, which a speed is a share of
 * @example readTyped("85 %", "rate", 60) // → one reading: a speed of 85 %, 51 fps
 */
export function readTyped(text: string, kind: ReadingKind, nativeFps: number): TypedReading {
  const readings: Typed[] = [];
  const pattern = new RegExp(token);
  for (let at = 0; at < text.length && text.slice(at).trim() !== ""; at = pattern.lastIndex) {
    pattern.lastIndex = at;
    const found = pattern.exec(text)?.groups;
    const rest = { ok: false as const, part: text.slice(at).trim().slice(0, 40) };
    if (!found) return rest;
    const name = (found.name ?? "").toLowerCase();
    const unit = (found.unit ?? "").toLowerCase().replace(/[°\s]/g, "");
    const value = Number((found.number ?? "").replace(",", "."));
    const own = name === "" || name === "fps" ? (kindsByUnit[unit] ?? (unit === "" ? kind : null)) : null;
    if (own) {
      const fps = rateOf(value, own, nativeFps);
      if (fps === null) return rest;
      readings.push({ kind: own, value, fps });
      continue;
    }
    const beside = besideOf(name, value, unit);
    const last = readings.at(-1);
    if (!beside || !last) return rest;
    last.channels = { ...last.channels, [beside.role]: beside.value };
  }
  return { ok: true, readings };
}
