/*
 * Files of the Linux kernel, a parser each. Meaning and unit of every file are the kernel's own documentation's, named
 * beside its parser (Documentation/ of the kernel sources, from memory). What a file doesn't say is null, never zero.
 */

/** Lines that hold something. */
export const linesOf = (text: string): string[] =>
  text
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "");

/** The one number that a file holds; null for anything else, and for a number that no such file can hold. */
export function figureIn(text: string): number | null {
  const found = /^\s*(-?\d{1,19})\s*$/.exec(text);
  const value = found ? Number(found[1]) : NaN;
  return Number.isFinite(value) && Math.abs(value) <= Number.MAX_SAFE_INTEGER ? value : null;
}

/** Numbers parted by blanks; null where one of them is none. */
export function numbersIn(text: string): number[] | null {
  const parts = text.trim().split(/\s+/);
  const numbers = parts.map((part) => (/^\d{1,19}$/.test(part) ? Number(part) : NaN));
  return text.trim() !== "" && numbers.every((value) => Number.isFinite(value)) ? numbers : null;
}

/** Time that a processor was busy and in all, in ticks since the start. */
export interface CpuTimes {
  name: string;
  busy: number;
  all: number;
}

/**
 * /proc/stat: "cpu" is all of them, "cpuN" one (filesystems/proc.rst, 1.7). user, nice, system, idle, iowait, irq,
 * softirq, steal; guest times are in user and nice already. Idle and iowait aren't busy.
 */
export function cpuTimes(text: string): CpuTimes[] {
  return linesOf(text).flatMap((line) => {
    const found = /^(cpu\d*)\s+(.+)$/.exec(line);
    const ticks = found && numbersIn(found[2] ?? "");
    if (!found || !ticks || ticks.length < 4) return [];
    const counted = ticks.slice(0, 8);
    const all = counted.reduce((sum, value) => sum + value, 0);
    return [{ name: found[1] ?? "", busy: all - (ticks[3] ?? 0) - (ticks[4] ?? 0), all }];
  });
}

/**
 * How busy the processors were between two readings, %: all together, and the busiest one. Null where nothing went by,
 * or a count went backwards (a processor that was switched off and on again).
 */
export function busyOf(before: CpuTimes[], now: CpuTimes[]): { whole: number | null; busiest: number | null } {
  const share = ({ name, busy, all }: CpuTimes): number | null => {
    const then = before.find((each) => each.name === name);
    if (!then || all <= then.all || busy < then.busy) return null;
    return Math.min(100, (100 * (busy - then.busy)) / (all - then.all));
  };
  const whole = now.find(({ name }) => name === "cpu");
  const each = now.filter(({ name }) => name !== "cpu").flatMap((one) => share(one) ?? []);
  return { whole: whole ? share(whole) : null, busiest: each.length > 0 ? Math.max(...each) : null };
}

/** A field of /proc/meminfo in MB; its "kB" are kibibytes (filesystems/proc.rst, 1.2.10). */
function meminfo(text: string, field: string): number | null {
  const found = new RegExp(`^${field}:\\s+(\\d{1,15}) kB$`, "m").exec(text);
  return found ? (Number(found[1]) * 1024) / 1e6 : null;
}

/** Memory of /proc/meminfo, MB: in all, and in use, which is what isn't available to a new program. */
export function memoryOf(text: string): { total: number | null; used: number | null } {
  const total = meminfo(text, "MemTotal"),
    available = meminfo(text, "MemAvailable");
  const used = total !== null && available !== null && available <= total ? total - available : null;
  return { total, used };
}

/** Swap of /proc/meminfo, MB; null where there is none. */
export function swapOf(text: string): { total: number; used: number } | null {
  const total = meminfo(text, "SwapTotal"),
    free = meminfo(text, "SwapFree");
  return total !== null && free !== null && total > 0 && free <= total ? { total, used: total - free } : null;
}

/** /proc/pressure/*: share of the last ten seconds in which somebody waited, % (accounting/psi.rst). */
export function pressureOf(text: string): number | null {
  const found = /^some avg10=(\d{1,3}\.\d{1,2}) /m.exec(text);
  const value = found ? Number(found[1]) : NaN;
  return value >= 0 && value <= 100 ? value : null;
}

/** Processors of a list as the kernel writes it (admin-guide/cputopology.rst). @example cpuList("0-3,6") // → [0, 1, 2, 3, 6] */
export function cpuList(text: string): number[] | null {
  const made: number[] = [];
  for (const part of text.trim().split(/[\s,]+/)) {
    const found = /^(\d{1,4})(?:-(\d{1,4}))?$/.exec(part);
    const first = Number(found?.[1]),
      last = Number(found?.[2] ?? found?.[1]);
    if (!found || last < first) return null;
    for (let cpu = first; cpu <= last; cpu++) made.push(cpu);
  }
  return made;
}

/** Energy between two readings of a counter that begins anew at its range (power/powercap/powercap.rst), µJ. */
export function driveRange(before: number, now: number, range: number | null): number | null {
  if (now >= before) return now - before;
  return range !== null && range > before ? range - before + now : null;
}

/** A mode of /sys/class/drm/…/modes. @example modeOf("1280x800") // → { width: 1280, height: 800 } */
export function modeOf(line: string): { width: number; height: number } | null {
  const found = /^(\d{2,5})x(\d{2,5})i?$/.exec(line);
  return found ? { width: Number(found[1]), height: Number(found[2]) } : null;
}

/** What a system is called, by os-release (freedesktop.org's os-release(5)). */
export function osName(text: string): string | null {
  const found = /^PRETTY_NAME="?([^"\n]{1,120})"?$/m.exec(text);
  return found?.[1]?.trim() || null;
}
