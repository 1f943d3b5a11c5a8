import type { Read } from "@/core/metrics";
import { channelUnits, type ChannelRole } from "@/core/trace";
import { Input } from "@/ui";

/** What a tuner reads beside a rate, in the order of the fields. */
const fields: [ChannelRole, string][] = [
  ["gpu", "Graphics load"],
  ["cpuBusiest", "Busiest core"],
  ["cpu", "Whole processor"],
  ["watts", "Power"],
  ["temperature", "Temperature"],
  ["gpuClock", "Graphics clock"],
  ["cpuClock", "Processor clock"],
  ["memory", "Memory"],
  ["videoMemory", "Video memory"],
  ["battery", "Battery"],
  ["speed", "Speed shown"],
];

export type TypedChannels = Partial<Record<ChannelRole, string>>;

/** Fields as channels of a reading; what is empty or no number isn't there. */
export const channelsIn = (beside: TypedChannels): Read["channels"] => {
  const told = Object.entries(beside).flatMap(([role, text]) => {
    const value = Number(text.replace(",", "."));
    return text.trim() !== "" && value >= 0 ? [[role, value] as const] : [];
  });
  return told.length > 0 ? Object.fromEntries(told) : undefined;
};

/** Fields for what is read beside a rate, where a keyboard of figures alone is at hand. */
export function BesideFields({
  beside,
  onChange,
}: {
  beside: TypedChannels;
  onChange: (beside: TypedChannels) => void;
}) {
  return (
    <details className="text-[13px]">
      <summary className="min-h-7 cursor-pointer py-1 text-soft">
        Read beside it: loads, power, heat, memory
      </summary>
      <div className="mt-1 grid grid-cols-2 gap-2">
        {fields.map(([role, label]) => (
          <label key={role} className="grid gap-0.5 text-soft">
            {label}, {channelUnits[role]}
            <Input
              inputMode="decimal"
              value={beside[role] ?? ""}
              onChange={(event) => onChange({ ...beside, [role]: event.target.value })}
            />
          </label>
        ))}
      </div>
    </details>
  );
}
