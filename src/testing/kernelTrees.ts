import { chmodSync, mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import type { KernelTree, Looked } from "@/core/device";

/** A recorded tree of kernel files: text by path; null where the user may not read it. */
export type RecordedTree = Record<string, string | null>;

/** Writes a recorded tree as files below a folder. */
export function writeTree(root: string, recorded: RecordedTree): void {
  for (const [path, text] of Object.entries(recorded)) {
    mkdirSync(dirname(join(root, path)), { recursive: true });
    writeFileSync(join(root, path), text ?? "");
    if (text === null) chmodSync(join(root, path), 0);
  }
}

/** A recorded tree as it is read. */
export function treeOf(recorded: RecordedTree): KernelTree {
  const paths = Object.keys(recorded);
  return {
    list: (folder) => [
      ...new Set(
        paths.flatMap((path) =>
          path.startsWith(`${folder}/`) ? [path.slice(folder.length + 1).split("/")[0] ?? ""] : [],
        ),
      ),
    ],
    read: (path): Looked => {
      const text = recorded[path];
      return text === undefined
        ? { why: "absent" }
        : text === null
          ? { why: "not allowed for this user" }
          : { text };
    },
  };
}

const policy = (n: number, cpus: string, least: number, most: number, now: number) => ({
  [`/sys/devices/system/cpu/cpufreq/policy${n}/related_cpus`]: `${cpus}\n`,
  [`/sys/devices/system/cpu/cpufreq/policy${n}/cpuinfo_min_freq`]: `${least}\n`,
  [`/sys/devices/system/cpu/cpufreq/policy${n}/cpuinfo_max_freq`]: `${most}\n`,
  [`/sys/devices/system/cpu/cpufreq/policy${n}/scaling_cur_freq`]: `${now}\n`,
  [`/sys/devices/system/cpu/cpufreq/policy${n}/scaling_available_governors`]:
    "schedutil performance powersave\n",
});
const zone = (n: number, type: string, milli: number) => ({
  [`/sys/class/thermal/thermal_zone${n}/type`]: `${type}\n`,
  [`/sys/class/thermal/thermal_zone${n}/temp`]: `${milli}\n`,
});
const meminfo = (total: number, available: number, swap = 0) =>
  `MemTotal:       ${total} kB\nMemFree:          200000 kB\nMemAvailable:   ${available} kB\nSwapTotal:      ${swap} kB\nSwapFree:       ${swap / 2} kB\n`;
const stat = (...cpus: number[][]) =>
  cpus.map((ticks, at) => `cpu${at === 0 ? "" : at - 1} ${ticks.join(" ")}`).join("\n");

/** Made-up devices: a phone of two clusters, a handheld PC, a board without battery, fan or telemetry. */
export const phoneTree: RecordedTree = {
  ...policy(0, "0 1 2 3", 300_000, 1_804_800, 1_209_600),
  ...policy(4, "4 5 6 7", 500_000, 2_841_600, 2_841_600),
  ...zone(0, "cpu-0-0", 61_200),
  ...zone(1, "cpu-1-0", 68_900),
  ...zone(2, "gpuss-0", 66_000),
  ...zone(3, "battery", 38_400),
  ...zone(4, "skin", 41_000),
  ...zone(5, "modem", -273_000),
  "/sys/class/thermal/cooling_device0/type": "thermal-cpufreq-0\n",
  "/sys/class/devfreq/3d00000.gpu/cur_freq": "587000000\n",
  "/sys/class/power_supply/battery/type": "Battery\n",
  "/sys/class/power_supply/battery/status": "Discharging\n",
  "/sys/class/power_supply/battery/capacity": "74\n",
  "/sys/class/power_supply/battery/current_now": "-812000\n",
  "/sys/class/power_supply/battery/voltage_now": "3914000\n",
  "/sys/class/power_supply/battery/charge_full_design": "4500000\n",
  "/sys/class/power_supply/battery/voltage_min_design": "3850000\n",
  "/sys/class/power_supply/usb/type": "USB\n",
  "/sys/class/power_supply/usb/online": "0\n",
  "/proc/meminfo": meminfo(7_629_394, 3_814_697, 2_097_152),
  "/proc/loadavg": "3.12 2.80 2.51 4/1201 22341\n",
  "/proc/stat": stat([800, 0, 200, 1000, 0, 0, 0, 0, 0, 0], [100, 0, 0, 100, 0, 0, 0, 0, 0, 0]),
  "/proc/pressure/cpu": null,
  "/sys/block/zram0/mm_stat": "524288000 131072000 140000000 0 150000000 100 0 0 0\n",
  "/etc/os-release": 'NAME="Made-up"\nPRETTY_NAME="Made-up Phone OS 12"\n',
};

export const handheldTree: RecordedTree = {
  ...policy(0, "0", 400_000, 3_500_000, 2_900_000),
  ...policy(1, "1", 400_000, 3_500_000, 3_100_000),
  ...policy(2, "2-3", 400_000, 3_500_000, 3_300_000),
  "/sys/class/hwmon/hwmon0/name": "nvme\n",
  "/sys/class/hwmon/hwmon0/temp1_input": "71850\n",
  "/sys/class/hwmon/hwmon1/name": "cpu-sensor\n",
  "/sys/class/hwmon/hwmon1/temp1_input": "63250\n",
  "/sys/class/hwmon/hwmon1/temp1_label": "core\n",
  "/sys/class/hwmon/hwmon2/name": "gpu\n",
  "/sys/class/hwmon/hwmon2/temp1_input": "59000\n",
  "/sys/class/hwmon/hwmon2/power1_average": "9140000\n",
  "/sys/class/hwmon/hwmon2/power1_input": "9999000\n",
  "/sys/class/hwmon/hwmon3/name": "fan-driver\n",
  "/sys/class/hwmon/hwmon3/fan1_input": "3411\n",
  "/sys/class/drm/card0/device/gpu_busy_percent": "93\n",
  "/sys/class/drm/card0-eDP-1/status": "connected\n",
  "/sys/class/drm/card0-eDP-1/modes": "1280x800\n1024x768\n",
  "/sys/class/drm/card0-DP-1/status": "disconnected\n",
  "/sys/class/drm/card0-DP-1/modes": "",
  "/sys/class/power_supply/BAT1/type": "Battery\n",
  "/sys/class/power_supply/BAT1/status": "Charging\n",
  "/sys/class/power_supply/BAT1/capacity": "81\n",
  "/sys/class/power_supply/BAT1/power_now": "12400000\n",
  "/sys/class/power_supply/BAT1/energy_full_design": "39900000\n",
  "/sys/class/power_supply/gamepad/type": "Battery\n",
  "/sys/class/power_supply/gamepad/scope": "Device\n",
  "/sys/class/power_supply/gamepad/capacity": "12\n",
  "/sys/class/powercap/made-up-rapl:0/name": "package-0\n",
  "/sys/class/powercap/made-up-rapl:0/energy_uj": "1000000\n",
  "/sys/class/powercap/made-up-rapl:0/max_energy_range_uj": "262143328850\n",
  "/sys/class/powercap/made-up-rapl:0:0/name": "core\n",
  "/sys/class/powercap/made-up-rapl:0:0/energy_uj": "500000\n",
  "/proc/meminfo": meminfo(16_000_000, 9_000_000),
  "/proc/stat": stat(
    [10, 0, 10, 80, 0, 0, 0, 0, 0, 0],
    [5, 0, 5, 40, 0, 0, 0, 0, 0, 0],
    [5, 0, 5, 40, 0, 0, 0, 0, 0, 0],
  ),
  "/proc/pressure/cpu": "some avg10=4.20 avg60=3.10 avg300=1.00 total=123456\n",
  "/proc/version": "Linux version 6.9.0-made-up (somebody@somewhere) #1 SMP\n",
};

export const boardTree: RecordedTree = {
  ...policy(0, "0-3", 600_000, 1_512_000, 1_512_000),
  ...zone(0, "soc", 84_500),
  "/proc/meminfo": meminfo(3_900_000, 3_000_000),
  "/proc/stat": stat([100, 0, 100, 800, 0, 0, 0, 0, 0, 0]),
};
