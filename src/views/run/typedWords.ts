import type { Read, ReadingKind, Typed } from "@/core/metrics";
import { channelUnits, type ChannelRole } from "@/core/trace";
import { say } from "@/ui";

export const kindNames: Record<ReadingKind, { label: string; unit: string }> = {
  rate: { label: "a rate, fps", unit: "fps" },
  speed: { label: "a speed, %", unit: "%" },
  "frame time": { label: "a frame time, ms", unit: "ms" },
};

/** What stands beside a rate, by the name that it is typed with. */
const channelNames: Record<ChannelRole, string> = {
  rate: "rate",
  speed: "speed",
  cpu: "cpu",
  cpuBusiest: "core",
  gpu: "gpu",
  cpuClock: "cpu",
  gpuClock: "gpu",
  watts: "power",
  temperature: "temperature",
  gpuTemperature: "gpu",
  memory: "ram",
  videoMemory: "vram",
  battery: "battery",
  dropouts: "dropouts",
};

/** What was read beside a rate, in words. @example typedWords({ channels: { gpu: 97, watts: 15 } }) // → "gpu 97 %, power 15 W" */
export const typedWords = ({ channels = {} }: Pick<Read, "channels">): string =>
  (Object.entries(channels) as [ChannelRole, number][])
    .map(
      ([role, value]) => `${channelNames[role]} ${say.number(value, value % 1 ? 1 : 0)} ${channelUnits[role]}`,
    )
    .join(", ");

const asTyped = (kind: ReadingKind, value: number) =>
  `${value}${kind === "rate" ? "" : ` ${kindNames[kind].unit}`}`;

/** A reading as it was typed. */
export const shownAs = ({
  kind = "rate",
  value,
  fps,
}: Pick<Read, "fps"> & { kind?: ReadingKind; value?: number }) => asTyped(kind, value ?? fps);

/** What a typed line was taken for; empty where nothing is typed. @example a speed of 85 % → "85 %: 51.0 fps" */
export function takenFor(typed: Typed[]): string {
  const [first] = typed;
  if (!first) return "";
  if (typed.length > 1) return `${say.count(typed.length, "reading")}: ${typed.map(shownAs).join(", ")}`;
  const beside = typedWords(first);
  const own =
    first.kind === "rate"
      ? `${first.value} fps`
      : `${asTyped(first.kind, first.value)}: ${say.number(first.fps)} fps`;
  return beside === "" ? own : `${own}; ${beside}`;
}
