import type { ChannelRole } from "@/core/trace";

/** Lanes under the trace: which channels share one, and what its scale ends at. */
export const lanes: { name: string; unit: string; roles: ChannelRole[]; most?: number }[] = [
  { name: "Processor", unit: "%", roles: ["cpu"], most: 100 },
  { name: "Graphics", unit: "%", roles: ["gpu"], most: 100 },
  { name: "Power", unit: "W", roles: ["watts"] },
  { name: "Heat", unit: "°C", roles: ["temperature"] },
  { name: "Memory", unit: "MB", roles: ["memory"] },
  { name: "Engine speed", unit: "%", roles: ["speed"] },
];
