import { csvCell } from "@/core/document";
import { channelUnits, type Channel, type ChannelRole, type Trace } from "./types";

/** Column names that the reader knows again, with their unit. */
const names: Record<ChannelRole, string> = {
  rate: "rate",
  speed: "engine speed",
  cpu: "cpu load",
  cpuBusiest: "cpu busiest core",
  gpu: "gpu load",
  cpuClock: "cpu clock",
  gpuClock: "gpu clock",
  watts: "power",
  temperature: "temperature",
  gpuTemperature: "gpu temperature",
  memory: "memory used",
  videoMemory: "video memory used",
  battery: "battery level",
  dropouts: "dropouts",
};

/** Digits after the point: a microsecond of a frame, and what a sensor tells. */
const timeDigits = 4,
  valueDigits = 3;

/** Walks a channel along with the frames: the newest reading at or before a moment. */
function walker({ times, values }: Channel): (ms: number) => string {
  let at = -1;
  return (ms) => {
    while (at + 1 < times.length && times[at + 1] <= ms) at++;
    return at < 0 ? "" : String(Number(values[at].toFixed(valueDigits)));
  };
}

/**
 * A run as a log that can be read again: a row a frame (or a reading), every channel's newest reading beside
 * it, and the name of the stretch it lies in.
 * @returns CSV (RFC 4180), newline ended
 */
export function traceCsv(trace: Trace): string {
  const { channels, marks } = trace;
  const heads = [
    ...(trace.form === "frames" ? ["frame time (ms)"] : ["time (ms)", "fps"]),
    ...channels.map(({ role }) => `${names[role]} (${channelUnits[role]})`),
    ...(marks.length > 0 ? ["scene"] : []),
  ];
  const walk = channels.map(walker);
  const steps = trace.form === "frames" ? trace.frameTimes : trace.durations;
  const lines = [heads.join(",")];
  let ms = 0,
    mark = 0;
  for (let i = 0; i < steps.length; i++) {
    const middle = ms + steps[i] / 2;
    ms += steps[i];
    while (mark + 1 < marks.length && marks[mark].endMs <= middle) mark++;
    const stretch = marks[mark];
    const label = stretch && stretch.startMs <= middle && middle < stretch.endMs ? stretch.label : "";
    const own =
      trace.form === "frames"
        ? [String(Number(steps[i].toFixed(timeDigits)))]
        : [ms.toFixed(1), String(Number(trace.rates[i].toFixed(valueDigits)))];
    const cells = [...own, ...walk.map((reading) => reading(ms))].join(",");
    lines.push(marks.length > 0 ? `${cells},${csvCell(label)}` : cells);
  }
  return `${lines.join("\n")}\n`;
}
