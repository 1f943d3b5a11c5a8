/** A fact of a device, read from what its system prints. */
export interface RigFact {
  path: RigPath;
  /** What it is called on the form. */
  label: string;
  value: number | string | Cluster[] | Display[];
  /** The line or lines that it was read from. */
  from: string;
}
export type RigPath = "processor.clusters" | "memoryGb" | "displays" | "system.version" | "driver.version";
interface Cluster {
  cores: number;
  baseGhz: number;
  boostGhz: number;
}
interface Display {
  name: string;
  width: number;
  height: number;
  refreshHz: number[];
  connection: "built in" | "cable";
}

const lastNumber = (text: string) => Number(/([\d.]+)\s*$/.exec(text.trim())?.[1] ?? NaN);
const round = (value: number, digits: number) => Number(value.toFixed(digits));

/** Clusters of cores by `lscpu`: every "Model name" begins one. */
function clustersOfLscpu(text: string): { clusters: Cluster[]; from: string } | null {
  const used: string[] = [];
  const parts = text.split(/^(?=\s*Model name:)/m).filter((part) => /^\s*Model name:/.test(part));
  const clusters = parts.flatMap((part): Cluster[] => {
    const line = (name: string) => new RegExp(`^\\s*${name}:.*$`, "m").exec(part)?.[0] ?? "";
    const per = line("Core\\(s\\) per (?:socket|cluster)");
    const sockets = line("(?:Socket|Cluster)\\(s\\)");
    const top = line("CPU max MHz");
    const cores = lastNumber(per) * (lastNumber(sockets) || 1);
    const boost = lastNumber(top.replace(/[.,]\d+\s*$/, "")) / 1000;
    if (!(cores > 0) || !(boost > 0)) return [];
    used.push(per.trim(), top.trim());
    // What isn't printed isn't guessed: its usual clock is put down as its highest until somebody says.
    return [{ cores, baseGhz: round(boost, 2), boostGhz: round(boost, 2) }];
  });
  return clusters.length > 0 ? { clusters, from: used.join("; ") } : null;
}

/** Cores by `/proc/cpuinfo`: processors of one part and clock are a cluster; it names no highest clock, only one now. */
function clustersOfCpuinfo(text: string): { clusters: Cluster[]; from: string } | null {
  const blocks = text.split(/^(?=processor\s*:)/m).filter((block) => /^processor\s*:/.test(block));
  const counted = new Map<string, { cores: number; ghz: number }>();
  for (const block of blocks) {
    const mhz = lastNumber(/^cpu MHz\s*:.*$/m.exec(block)?.[0] ?? "");
    const part = /^(?:CPU part|model name)\s*:\s*(.*)$/m.exec(block)?.[1] ?? "";
    if (!(mhz > 0)) continue;
    const held = counted.get(part) ?? { cores: 0, ghz: 0 };
    counted.set(part, { cores: held.cores + 1, ghz: Math.max(held.ghz, mhz / 1000) });
  }
  const clusters = [...counted.values()].map(({ cores, ghz }) => ({
    cores,
    baseGhz: round(ghz, 2),
    boostGhz: round(ghz, 2),
  }));
  return clusters.length > 0 ? { clusters, from: `${blocks.length} × processor, cpu MHz` } : null;
}

/** Memory by `free` (kibibytes, or with a unit) or `/proc/meminfo` (kB, which are kibibytes there), GiB. */
function memoryOf(text: string): { gb: number; from: string } | null {
  const found = /^\s*(?:Mem:|MemTotal:)\s*([\d.,]+)\s*([KMGT])?i?B?.*$/im.exec(text);
  if (!found) return null;
  const amount = Number(found[1]?.replace(",", "."));
  const powers: Record<string, number> = { K: 1, M: 2, G: 3, T: 4 };
  const bytes = amount * 1024 ** (powers[(found[2] ?? "K").toUpperCase()] ?? 1);
  return { gb: round(bytes / 1024 ** 3, 2), from: found[0].trim() };
}

/** Screens by a list of modes as `xrandr` prints it: the one marked with * is in use. */
function displaysOf(text: string): { displays: Display[]; from: string } | null {
  const lines = text.split(/\r?\n/);
  const displays: Display[] = [],
    used: string[] = [];
  for (const [at, line] of lines.entries()) {
    const head = /^(\S+) connected/.exec(line);
    if (!head) continue;
    const modes = lines.slice(at + 1);
    const end = modes.findIndex((mode) => !/^\s+\d+x\d+/.test(mode));
    const own = end < 0 ? modes : modes.slice(0, end);
    const now = own.find((mode) => mode.includes("*")) ?? own[0];
    const size = /^\s+(\d+)x(\d+)i?\s+(.*)$/.exec(now ?? "");
    if (!size || !now) continue;
    const rates = [...(size[3] ?? "").matchAll(/(\d+(?:\.\d+)?)(\*?)/g)]
      .map(([, hz, mark]) => ({ hz: Number(hz), isNow: mark === "*" }))
      .filter(({ hz }) => hz >= 10 && hz <= 1000)
      .sort((a, b) => Number(b.isNow) - Number(a.isNow));
    if (rates.length === 0) continue;
    const name = head[1] ?? "";
    displays.push({
      name,
      width: Number(size[1]),
      height: Number(size[2]),
      refreshHz: rates.map(({ hz }) => hz),
      connection: /^(eDP|LVDS|DSI)/i.test(name) ? "built in" : "cable",
    });
    used.push(line.trim(), now.trim());
  }
  return displays.length > 0 ? { displays, from: used.join("; ") } : null;
}

/** A line that names something, and what stands behind its name. */
function named(text: string, words: RegExp): { value: string; from: string } | null {
  const found = words.exec(text);
  const value = found?.[1]?.trim().replace(/^"|"$/g, "").slice(0, 400) ?? "";
  return found && value !== "" ? { value, from: found[0].trim() } : null;
}

/**
 * Facts of a device in what common commands print: lscpu or /proc/cpuinfo, free or /proc/meminfo, a list of display
 * modes, uname or os-release, a graphics driver's version. What isn't there isn't said.
 */
export function rigIn(text: string): RigFact[] {
  const clusters = clustersOfLscpu(text) ?? clustersOfCpuinfo(text);
  const memory = memoryOf(text);
  const displays = displaysOf(text);
  const system = named(text, /^PRETTY_NAME=(.*)$/m) ?? named(text, /^Linux \S+ (\S+) .*$/m);
  const driver =
    named(text, /^.*OpenGL (?:core profile )?version string:\s*(.*)$/m) ??
    named(text, /^\s*driverInfo\s*=\s*(.*)$/m);
  const facts: (RigFact | null)[] = [
    clusters && { path: "processor.clusters", label: "Cores", value: clusters.clusters, from: clusters.from },
    memory && { path: "memoryGb", label: "Memory, GB", value: memory.gb, from: memory.from },
    displays && { path: "displays", label: "Displays", value: displays.displays, from: displays.from },
    system && { path: "system.version", label: "System version", ...system },
    driver && { path: "driver.version", label: "Driver version", ...driver },
  ];
  return facts.filter((fact) => fact !== null);
}
