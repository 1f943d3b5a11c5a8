import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import type { RigSpec, Setting } from "@/core/kit";

/** A simulated device's folder: what it is, its kernel-like files, its engine, and what is asked of it next. */
export interface StandInDevice {
  spec: RigSpec;
  powerMode: string | null;
  engine: string;
  build: string;
  catalogue: Pick<
    Setting,
    "key" | "default" | "fastest" | "relieves" | "purpose" | "section" | "configKey" | "type"
  >[];
  seed: number;
}

/** What goes wrong with the next run, and after how many seconds of it. */
export interface Trouble {
  what: "crash" | "hang";
  atS: number;
}

export const places = (folder: string) => ({
  device: join(folder, "device.json"),
  root: join(folder, "root"),
  config: join(folder, "engine", "settings.toml"),
  logs: join(folder, "engine", "logs"),
  program: join(folder, "engine", "engine.mjs"),
  bench: join(folder, "bench.toml"),
  trouble: join(folder, "trouble.json"),
  /** There while the engine plays: it warms the device itself then. */
  playing: join(folder, "playing"),
});

/** Writes a file below a folder so that whoever reads it finds it whole. */
export function put(path: string, text: string): void {
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(`${path}.new`, text);
  renameSync(`${path}.new`, path);
}

export const readJson = <Read>(path: string): Read | null => {
  try {
    return JSON.parse(readFileSync(path, "utf8")) as Read;
  } catch {
    return null;
  }
};

const zone = "/sys/class/thermal/thermal_zone0";
const battery = "/sys/class/power_supply/battery";
/** Volts of a made-up battery. */
const volts = 3.85;

/** What a device does at a moment, as far as its kernel's files say it. */
export interface Doing {
  temperature: number;
  watts: number;
  /** Busy share of all cores and of graphics, %. */
  cpu: number;
  gpu: number;
  /** Clock of the processor, MHz. */
  mhz: number;
}

/** The kernel's files of a simulated device, in the kernel's own units. */
export function writeKernel(root: string, spec: RigSpec, doing: Doing, passedMs: number): void {
  const file = (path: string, text: string | number) => put(join(root, path), `${text}\n`);
  const { clusters } = spec.processor;
  let first = 0;
  clusters.forEach(({ cores, boostGhz }, at) => {
    const policy = `/sys/devices/system/cpu/cpufreq/policy${at}`;
    const most = Math.round((boostGhz ?? 2) * 1e6);
    file(`${policy}/related_cpus`, Array.from({ length: cores }, (_, k) => first + k).join(" "));
    file(`${policy}/cpuinfo_min_freq`, 300_000);
    file(`${policy}/cpuinfo_max_freq`, most);
    file(`${policy}/scaling_cur_freq`, Math.min(most, Math.round(doing.mhz * 1000)));
    file(`${policy}/scaling_available_governors`, "schedutil performance powersave");
    first += cores;
  });
  file(`${zone}/type`, "cpu-0-0");
  file(`${zone}/temp`, Math.round(doing.temperature * 1000));
  file("/sys/class/drm/card0/device/gpu_busy_percent", Math.round(doing.gpu));
  if (spec.batteryWh !== null) {
    file(`${battery}/type`, "Battery");
    file(`${battery}/status`, "Discharging");
    file(`${battery}/capacity`, 80);
    file(`${battery}/voltage_now`, Math.round(volts * 1e6));
    file(`${battery}/current_now`, -Math.round((doing.watts / volts) * 1e6));
  }
  const kilobytes = Math.round((spec.memoryGb ?? 4) * 2 ** 20);
  file(
    "/proc/meminfo",
    `MemTotal: ${kilobytes} kB\nMemFree: ${kilobytes >> 1} kB\nMemAvailable: ${kilobytes >> 1} kB`,
  );
  file("/proc/stat", ticked(join(root, "/proc/stat"), doing.cpu, passedMs));
}

/** Ticks of the processor since the start: a hundred a second, so many of them busy. */
function ticked(path: string, cpu: number, passedMs: number): string {
  const before = existsSync(path) ? readFileSync(path, "utf8").trim().split(/\s+/).slice(1).map(Number) : [];
  const ticks = passedMs / 10;
  const [busy = 0, , , idle = 0] = before;
  return `cpu ${Math.round(busy + (ticks * cpu) / 100)} 0 0 ${Math.round(idle + ticks * (1 - cpu / 100))} 0 0 0 0 0 0`;
}

/** The temperature that the kernel's files say, °C; null where they say none. */
export function temperatureIn(root: string): number | null {
  try {
    return Number(readFileSync(join(root, zone, "temp"), "utf8")) / 1000;
  } catch {
    return null;
  }
}
