import { appendFileSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { fileURLToPath } from "node:url";
import { parseArgs } from "node:util";
import { readConfig } from "@/core/config";
import type { Settings } from "@/core/kit";
import { seedOf, standInPlay } from "@/core/simulator";
import type { ChannelRole } from "@/core/trace";
import { places, readJson, temperatureIn, writeKernel, type StandInDevice, type Trouble } from "./folder";

/*
 * An engine that isn't there: reads its config file, plays a title's scene in real time, and writes a frame log. What the
 * device does meanwhile stands in its kernel-like files.
 */

const { values } = parseArgs({
  options: { title: { type: "string" }, scene: { type: "string" }, seconds: { type: "string" } },
});
const folder = join(dirname(fileURLToPath(import.meta.url)), "..");
const at = places(folder);
const device = readJson<StandInDevice>(at.device);
if (!device) throw new Error(`${at.device} can't be read.`);
const { title = "", seconds = "60" } = values;

/** Settings as the config file says them. */
const entries = readConfig(readFileSync(at.config, "utf8"), "toml");
const settings: Settings = Object.fromEntries(
  device.catalogue.flatMap(({ key, section, configKey }) => {
    const entry = entries.find((each) => each.section === section && each.key === configKey);
    return entry && entry.value !== null ? [[key, entry.value]] : [];
  }),
);
const trouble = readJson<Trouble>(at.trouble);
rmSync(at.trouble, { force: true });

const startC = temperatureIn(at.root) ?? 42;
const { trace } = standInPlay({
  ...device,
  title,
  settings,
  startC,
  seconds: Number(seconds) + 2,
  seed: seedOf(`${device.seed} ${title} ${Date.now()}`),
});
const readings = new Map(trace.channels.map(({ role, times, values: of }) => [role, { times, of }]));
/** What a channel says at a moment of the run, ms. */
function said(role: ChannelRole, ms: number, otherwise: number): number {
  const channel = readings.get(role);
  if (!channel) return otherwise;
  let k = 0;
  while (k + 1 < channel.times.length && (channel.times[k + 1] ?? Infinity) <= ms) k++;
  return channel.of[k] ?? otherwise;
}

mkdirSync(at.logs, { recursive: true });
const log = join(at.logs, `run-${Date.now()}.csv`);
writeFileSync(log, "frame time ms\n");
writeFileSync(at.playing, String(process.pid));
process.once("exit", () => rmSync(at.playing, { force: true }));
for (const signal of ["SIGTERM", "SIGINT"] as const) process.once(signal, () => process.exit(0));

const begun = performance.now();
let [frame, played, kernelAt] = [0, 0, 0];
while (frame < trace.frameTimes.length && played < 1000 * Number(seconds) + 500) {
  const now = performance.now() - begun;
  const rows: string[] = [];
  while (frame < trace.frameTimes.length && played + (trace.frameTimes[frame] ?? 0) <= now) {
    const ms = trace.frameTimes[frame++] ?? 0;
    played += ms;
    rows.push(ms.toFixed(3));
  }
  if (trouble && now >= 1000 * trouble.atS) {
    if (trouble.what === "crash") process.exit(139);
    // Hangs: it lives, and draws no more.
    rows.length = 0;
    for (;;) await wait(1000);
  }
  if (rows.length > 0) appendFileSync(log, `${rows.join("\n")}\n`);
  if (now - kernelAt >= 250 || kernelAt === 0) {
    writeKernel(
      at.root,
      device.spec,
      {
        temperature: said("temperature", played, startC),
        watts: said("watts", played, 5),
        cpu: said("cpu", played, 40),
        gpu: said("gpu", played, 60),
        mhz: said("cpuClock", played, 2000),
      },
      Math.max(250, now - kernelAt),
    );
    kernelAt = now;
  }
  await wait(50);
}
process.exit(0);
