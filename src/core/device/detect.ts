import { cpuList, linesOf, memoryOf, modeOf, osName } from "./kernel";
import { looking, ownBatteries, type KernelTree } from "./tree";

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
  const look = looking(tree);
  const { text, figure, word, names, folders } = look;
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
  const clusters = policies.flatMap(({ path }) => {
    // Lists may be long: they are read whole.
    const cpus = cpuList(text(`${path}/related_cpus`) ?? "");
    const most = figure(`${path}/cpuinfo_max_freq`),
      least = figure(`${path}/cpuinfo_min_freq`);
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
      policies.flatMap(({ path }) =>
        (text(`${path}/scaling_available_governors`) ?? "").split(/\s+/).filter(Boolean),
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
    folders(drm, /^card\d+-/).flatMap(({ name, path }) => {
      if (word(`${path}/status`) !== "connected") return [];
      const mode = modeOf(linesOf(text(`${path}/modes`) ?? "")[0] ?? "");
      const own = name.replace(/^card\d+-/, "");
      return mode ? [{ name: own, ...mode, builtIn: /^(eDP|LVDS|DSI)/i.test(own) }] : [];
    }),
    `${drm}/card*-*/modes`,
  );

  // µWh, or µAh at the least voltage that it is built for.
  const watthours = ownBatteries(look).flatMap(({ path: at }) => {
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
    "/sys/class/power_supply/*/energy_full_design",
  );

  const thermal = "/sys/class/thermal";
  put(
    "cooling",
    [
      ...new Set([
        ...folders(thermal, /^cooling_device\d+$/).map(({ path }) => word(`${path}/type`)),
        ...folders("/sys/class/hwmon", /^hwmon\d+$/).flatMap(({ name, path }) =>
          names(path).some((file) => /^fan\d+_input$/.test(file))
            ? [`fan of ${word(`${path}/name`) || name}`]
            : [],
        ),
      ]),
    ].filter(Boolean),
    `${thermal}/cooling_device*/type`,
  );
  return facts;
}
