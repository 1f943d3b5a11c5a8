// What the agent costs on the device that it measures: processor time and memory while it samples, against this
// machine's own kernel files and a recorded tree of a device with 8 cores, 12 zones and 2 batteries.
import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { phoneTree, writeTree, type RecordedTree } from "@/testing/kernelTrees";
import { bundleAgent } from "../lib/agent.mjs";
import { line } from "./timing";

const seconds = Number(process.argv[2] ?? 40);
/** Starting is over by then, s. */
const begun = 3;
/** Of the clock that the kernel counts processor time by, a second (proc(5), sysconf(_SC_CLK_TCK) on Linux). */
const ticksPerSecond = 100;

/** The recorded phone with twelve zones and a second battery. */
const large: RecordedTree = { ...phoneTree };
for (let zone = 6; zone < 12; zone++) {
  large[`/sys/class/thermal/thermal_zone${zone}/type`] = `cpu-2-${zone}\n`;
  large[`/sys/class/thermal/thermal_zone${zone}/temp`] = `${60_000 + 100 * zone}\n`;
}
for (const [path, text] of Object.entries(phoneTree))
  if (path.startsWith("/sys/class/power_supply/battery/"))
    large[path.replace("/battery/", "/keyboard-battery/")] = text;

const folder = mkdtempSync(join(tmpdir(), "lamp-bench-agent-"));
try {
  const root = join(folder, "tree");
  writeTree(root, large);
  const file = join(folder, "lamp-agent.mjs");
  const { bytes } = await bundleAgent(file);
  line("the agent's file", `${(bytes / 1000).toFixed(1)} kB`);
  for (const [name, at] of [
    ["this machine", "/"],
    ["8 cores, 12 zones, 2 batteries", root],
  ] as const) {
    const agent = spawn(process.execPath, [file, "sample", "--root", at, "--seconds", String(seconds + 5)], {
      stdio: ["ignore", "pipe", "ignore"],
    });
    let samples = 0;
    agent.stdout.on("data", (part: Buffer) => (samples += part.toString().split("\n").length - 1));
    /** Processor time so far, s. */
    const used = () => {
      const fields = readFileSync(`/proc/${agent.pid}/stat`, "utf8").split(") ")[1]?.split(" ") ?? [];
      return (Number(fields[11]) + Number(fields[12])) / ticksPerSecond;
    };
    await wait(begun * 1000);
    const [before, first, from] = [used(), samples, performance.now()];
    await wait((seconds - begun) * 1000);
    const took = (performance.now() - from) / 1000;
    const cost = used() - before;
    const resident = Number(
      /^VmHWM:\s+(\d+) kB$/m.exec(readFileSync(`/proc/${agent.pid}/status`, "utf8"))?.[1],
    );
    line(
      `${name}: ${((samples - first) / took).toFixed(2)} samples a second`,
      `${((100 * cost) / took).toFixed(2)} % of one core, ${(resident / 1024).toFixed(0)} MB at most`,
    );
    agent.kill();
  }
} finally {
  rmSync(folder, { recursive: true, force: true });
}
