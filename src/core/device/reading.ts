import {
  busyOf,
  cpuTimes,
  driveRange,
  linesOf,
  memoryOf,
  numbersIn,
  pressureOf,
  swapOf,
  type CpuTimes,
} from "./kernel";
import { looking, ownBatteries, type KernelTree } from "./tree";

/** What the next reading needs of this one: counters that only differences say something of. */
export interface Kept {
  atMs: number;
  cpu: CpuTimes[];
  energy: Map<string, number>;
}

/** What a device did at a moment: channels by their names and units of the core, all there is beside, and what is lacking. */
export interface DeviceReading {
  /** Channels of a trace; what can't be known isn't there. */
  channels: {
    cpu?: number;
    cpuBusiest?: number;
    gpu?: number;
    cpuClock?: number;
    gpuClock?: number;
    watts?: number;
    temperature?: number;
    gpuTemperature?: number;
    memory?: number;
    battery?: number;
  };
  /** Every sensor by its own name: temperatures in °C, clocks in MHz, watts, fans in turns a minute, the rest as named. */
  all: Record<string, number>;
  /** Whether it runs on its battery; absent where it has none or doesn't say. */
  onBattery?: boolean;
  /** What the device has and doesn't let this user read, with why. */
  refused: Record<string, string>;
}

/** No processor or shell is colder or hotter while it runs, °C: anything else is a sensor that isn't connected. */
const coldest = -40,
  hottest = 150;
/** No device here draws more, W. */
const mostWatts = 3000;
const mostMhz = 20_000;

const within = (value: number | null, low: number, high: number): number | null =>
  value !== null && value >= low && value <= high ? value : null;

/**
 * Reads a device once.
 * @param before the reading before this one; null for the first, which says no loads
 * @param atMs a clock that only goes on, ms
 */
export function readingOf(
  tree: KernelTree,
  before: Kept | null,
  atMs: number,
): { reading: DeviceReading; kept: Kept } {
  const all: Record<string, number> = {},
    refused: Record<string, string> = {};
  const channels: DeviceReading["channels"] = {};
  const look = looking(tree, (path, why) => {
    refused[path] = why;
  });
  const { text, figure, word, names, folders } = look;
  const put = (name: string, value: number | null): number | null => {
    if (value === null) return null;
    let own = name;
    for (let k = 2; own in all; k++) own = `${name} ${k}`;
    all[own] = Number(value.toFixed(3));
    return value;
  };
  const set = (channel: keyof DeviceReading["channels"], value: number | null) => {
    if (value !== null) channels[channel] = Number(value.toFixed(3));
  };

  // Loads, by differences of /proc/stat.
  const cpu = cpuTimes(text("/proc/stat") ?? "");
  const busy = before ? busyOf(before.cpu, cpu) : { whole: null, busiest: null };
  set("cpu", busy.whole);
  set("cpuBusiest", busy.busiest);

  // Clocks: cpufreq's in kHz (admin-guide/pm/cpufreq.rst), devfreq's in Hz (ABI/testing/sysfs-class-devfreq).
  const clocks = folders("/sys/devices/system/cpu/cpufreq", /^policy\d+$/).flatMap(({ name, path }) => {
    const khz = figure(`${path}/scaling_cur_freq`);
    return put(`clock ${name}`, within(khz === null ? null : khz / 1000, 1, mostMhz)) ?? [];
  });
  if (clocks.length > 0) set("cpuClock", Math.max(...clocks));
  for (const { name, path } of folders("/sys/class/devfreq", /./)) {
    const hz = figure(`${path}/cur_freq`);
    const mhz = put(`clock ${name}`, within(hz === null ? null : hz / 1e6, 1, mostMhz));
    if (mhz !== null && /gpu/i.test(name) && channels.gpuClock === undefined) set("gpuClock", mhz);
  }

  // The graphics' own busy per cent, where its driver gives one (gpu_busy_percent, by the documentation of the driver).
  for (const { name, path } of folders("/sys/class/drm", /^card\d+$/)) {
    const percent = put(`${name} busy`, within(figure(`${path}/device/gpu_busy_percent`), 0, 100));
    if (percent !== null) set("gpu", Math.max(percent, channels.gpu ?? 0));
  }

  // Temperatures: thermal zones and hwmon in thousandths of a degree (driver-api/thermal/sysfs-api.rst, hwmon/sysfs-interface.rst).
  const warm: number[] = [],
    ofGraphics: number[] = [];
  const heat = (name: string, milli: number | null) => {
    const celsius = put(name, within(milli === null ? null : milli / 1000, coldest, hottest));
    // A shell, a battery or a charger is no processor.
    if (celsius === null || /batt|charg|skin|shell|usb|ambient|nvme|ssd|wifi|wlan|modem/i.test(name)) return;
    warm.push(celsius);
    if (/gpu|graphics/i.test(name)) ofGraphics.push(celsius);
  };
  for (const { name, path } of folders("/sys/class/thermal", /^thermal_zone\d+$/))
    heat(`temperature ${word(`${path}/type`) || name}`, figure(`${path}/temp`));
  for (const { name, path } of folders("/sys/class/hwmon", /^hwmon\d+$/)) {
    const chip = word(`${path}/name`) || name;
    const inputs = names(path);
    for (const input of inputs.filter((each) => /^temp\d+_input$/.test(each))) {
      const label = word(`${path}/${input.replace("_input", "_label")}`) || input.replace("_input", "");
      heat(`temperature ${chip} ${label}`, figure(`${path}/${input}`));
    }
    for (const input of inputs.filter((each) => /^fan\d+_input$/.test(each)))
      put(`fan ${chip} ${input.replace("_input", "")}`, within(figure(`${path}/${input}`), 0, 30_000));
    // Microwatts (hwmon/sysfs-interface.rst): the mean where there is one.
    for (const input of inputs.filter((each) => /^power\d+_(average|input)$/.test(each))) {
      if (input.endsWith("_input") && inputs.includes(input.replace("_input", "_average"))) continue;
      const micro = figure(`${path}/${input}`);
      put(`watts ${chip} ${input}`, within(micro === null ? null : micro / 1e6, 0, mostWatts));
    }
  }
  if (warm.length > 0) set("temperature", Math.max(...warm));
  if (ofGraphics.length > 0) set("gpuTemperature", Math.max(...ofGraphics));

  // Micro-units (ABI/testing/sysfs-class-power); what it gives is only told while it discharges.
  let drawn: number | null = null;
  let onBattery: boolean | undefined;
  const levels: number[] = [];
  for (const { name, path } of ownBatteries(look)) {
    const level = put(`battery ${name}`, within(figure(`${path}/capacity`), 0, 100));
    if (level !== null) levels.push(level);
    const status = word(`${path}/status`);
    if (status !== "") onBattery = (onBattery ?? false) || status === "Discharging";
    const microwatts = figure(`${path}/power_now`),
      amperes = figure(`${path}/current_now`),
      volts = figure(`${path}/voltage_now`);
    const watts = within(
      microwatts !== null
        ? Math.abs(microwatts) / 1e6
        : amperes !== null && volts !== null
          ? (Math.abs(amperes) / 1e6) * (volts / 1e6)
          : null,
      0,
      mostWatts,
    );
    put(`watts ${name}`, watts);
    if (watts !== null && status === "Discharging") drawn = (drawn ?? 0) + watts;
  }
  if (levels.length > 0) set("battery", levels.reduce((sum, level) => sum + level, 0) / levels.length);

  // Energy counters (power/powercap/powercap.rst), microjoules: packages alone, whose parts are in them.
  const energy = new Map<string, number>();
  let ofPackages: number | null = null;
  for (const { name, path } of folders("/sys/class/powercap", /^[a-z-]+:\d+$/)) {
    const now = figure(`${path}/energy_uj`);
    if (now === null || now < 0) continue;
    energy.set(path, now);
    const then = before?.energy.get(path);
    if (then === undefined || !before || atMs <= before.atMs) continue;
    const micro = driveRange(then, now, figure(`${path}/max_energy_range_uj`));
    const watts = within(micro === null ? null : micro / 1e3 / (atMs - before.atMs), 0, mostWatts);
    put(`watts ${word(`${path}/name`) || name}`, watts);
    if (watts !== null && /^package/.test(word(`${path}/name`))) ofPackages = (ofPackages ?? 0) + watts;
  }
  set("watts", drawn ?? ofPackages);

  // Memory, swap, packed memory and pressure.
  const meminfo = text("/proc/meminfo") ?? "";
  set("memory", memoryOf(meminfo).used);
  put("swap used, MB", swapOf(meminfo)?.used ?? null);
  for (const { name, path } of folders("/sys/block", /^zram\d+$/)) {
    // mm_stat: bytes held, bytes packed, bytes of memory taken … (admin-guide/blockdev/zram.rst).
    const stat = numbersIn(text(`${path}/mm_stat`) ?? "");
    put(`${name} holds, MB`, stat && stat.length >= 3 ? (stat[0] ?? 0) / 1e6 : null);
    put(`${name} takes, MB`, stat && stat.length >= 3 ? (stat[2] ?? 0) / 1e6 : null);
  }
  for (const what of ["cpu", "memory", "io"])
    put(`waiting for ${what}, %`, pressureOf(text(`/proc/pressure/${what}`) ?? ""));
  const [load = ""] = linesOf(text("/proc/loadavg") ?? "");
  const waiting = /^(\d{1,6}\.\d{2}) /.exec(load);
  put("load of one minute", waiting ? Number(waiting[1]) : null);

  return {
    reading: { channels, all, ...(onBattery === undefined ? {} : { onBattery }), refused },
    kept: { atMs, cpu, energy },
  };
}
