import { cpuList, figureIn, linesOf, memoryOf, modeOf, osName } from "./kernel";
import type { KernelTree } from "./tree";

/** What a device is, as far as its kernel says: a rig's form in parts, each with the path that it was read from. */
export interface DeviceFacts {
  clusters?: { cores: number; leastGhz: number | null; mostGhz: number }[];
  memoryGb?: number;
  governors?: string[];
  displays?: { name: string; width: number; height: number; builtIn: boolean }[];
  system?: string;
  kernel?: string;
  batteryWh?: number;
  /** What cools it by itself, and fans that turn. */
  cooling?: string[];
  /** Where each fact was read. */
  from: Record<string, string>;
  /** What isn't there, or may not be read. */
  lacking: string[];
}

const round = (value: number, digits: number) => Number(value.toFixed(digits));

/** Reads what a device is; what its kernel doesn't say is named as lacking. */
export function deviceOf(tree: KernelTree): DeviceFacts {
  const facts: DeviceFacts = { from: {}, lacking: [] };
  const text = (path: string): string | null => {
    const looked = tree.read(path);
    return "text" in looked ? looked.text : null;
  };
  const figure = (path: string) => {
    const held = text(path);
    return held === null ? null : figureIn(held);
  };
  const word = (path: string) => (text(path) ?? "").trim().slice(0, 80);
  const folders = (folder: string, like: RegExp) => tree.list(folder).filter((name) => like.test(name));
  const put = <Key extends Exclude<keyof DeviceFacts, "from" | "lacking">>(
    key: Key,
    value: DeviceFacts[Key] | null | undefined,
    path: string,
  ) => {
    if (value === null || value === undefined || value === "" || (Array.isArray(value) && value.length === 0))
      return void facts.lacking.push(`${key}: ${path}`);
    facts[key] = value;
    facts.from[key] = path;
  };

  // Processors that share a clock are a cluster (admin-guide/pm/cpufreq.rst); kHz.
  const cpufreq = "/sys/devices/system/cpu/cpufreq";
  const policies = folders(cpufreq, /^policy\d+$/);
  const clusters = policies.flatMap((name) => {
    const cpus = cpuList(word(`${cpufreq}/${name}/related_cpus`));
    const most = figure(`${cpufreq}/${name}/cpuinfo_max_freq`),
      least = figure(`${cpufreq}/${name}/cpuinfo_min_freq`);
    return cpus && cpus.length > 0 && most !== null && most > 0
      ? [
          {
            cores: cpus.length,
            leastGhz: least !== null && least > 0 ? round(least / 1e6, 2) : null,
            mostGhz: round(most / 1e6, 2),
          },
        ]
      : [];
  });
  // Cores of one kind that are clocked singly are one cluster.
  const joined: NonNullable<DeviceFacts["clusters"]> = [];
  for (const cluster of clusters) {
    const same = joined.find((each) => each.mostGhz === cluster.mostGhz && each.leastGhz === cluster.leastGhz);
    if (same) same.cores += cluster.cores;
    else joined.push({ ...cluster });
  }
  put("clusters", joined, `${cpufreq}/policy*/cpuinfo_max_freq`);
  const governors = [
    ...new Set(
      policies.flatMap((name) =>
        word(`${cpufreq}/${name}/scaling_available_governors`).split(/\s+/).filter(Boolean),
      ),
    ),
  ];
  put("governors", governors, `${cpufreq}/policy*/scaling_available_governors`);

  const { total } = memoryOf(text("/proc/meminfo") ?? "");
  put("memoryGb", total === null ? null : round((total * 1e6) / 1024 ** 3, 2), "/proc/meminfo");
  put("system", osName(text("/etc/os-release") ?? ""), "/etc/os-release");
  const [version = ""] = linesOf(text("/proc/version") ?? "");
  put("kernel", /^Linux version (\S+)/.exec(version)?.[1] ?? null, "/proc/version");

  // Connectors of the display driver (gpu/drm-kms.rst, sysfs): the first mode of one that is connected is its own.
  const drm = "/sys/class/drm";
  put(
    "displays",
    folders(drm, /^card\d+-/).flatMap((name) => {
      if (word(`${drm}/${name}/status`) !== "connected") return [];
      const mode = modeOf(linesOf(text(`${drm}/${name}/modes`) ?? "")[0] ?? "");
      const own = name.replace(/^card\d+-/, "");
      return mode ? [{ name: own, ...mode, builtIn: /^(eDP|LVDS|DSI)/i.test(own) }] : [];
    }),
    `${drm}/card*-*/modes`,
  );

  // Batteries of the device itself (ABI/testing/sysfs-class-power): µWh, or µAh at the least voltage it is built for.
  const supplies = "/sys/class/power_supply";
  const watthours = folders(supplies, /./).flatMap((name) => {
    const at = `${supplies}/${name}`;
    if (word(`${at}/type`) !== "Battery" || word(`${at}/scope`) === "Device") return [];
    const energy = figure(`${at}/energy_full_design`) ?? figure(`${at}/energy_full`);
    if (energy !== null && energy > 0) return [energy / 1e6];
    const charge = figure(`${at}/charge_full_design`) ?? figure(`${at}/charge_full`),
      volts = figure(`${at}/voltage_min_design`) ?? figure(`${at}/voltage_now`);
    return charge !== null && volts !== null && charge > 0 && volts > 0 ? [(charge / 1e6) * (volts / 1e6)] : [];
  });
  put(
    "batteryWh",
    watthours.length > 0
      ? round(
          watthours.reduce((sum, each) => sum + each, 0),
          1,
        )
      : null,
    `${supplies}/*/energy_full_design`,
  );

  const thermal = "/sys/class/thermal",
    hwmon = "/sys/class/hwmon";
  put(
    "cooling",
    [
      ...new Set([
        ...folders(thermal, /^cooling_device\d+$/).map((name) => word(`${thermal}/${name}/type`)),
        ...folders(hwmon, /^hwmon\d+$/).flatMap((name) =>
          tree.list(`${hwmon}/${name}`).some((file) => /^fan\d+_input$/.test(file))
            ? [`fan of ${word(`${hwmon}/${name}/name`) || name}`]
            : [],
        ),
      ]),
    ].filter(Boolean),
    `${thermal}/cooling_device*/type`,
  );
  return facts;
}
