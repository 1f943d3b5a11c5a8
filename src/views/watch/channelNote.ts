import { channelUnits, type ChannelRole } from "@/core/trace";
import { say } from "@/ui";
import type { Watched } from "./watched";

/** What is said in a line, with its decimals. */
const shown: [role: ChannelRole, name: string, decimals: number][] = [
  ["temperature", "", 0],
  ["watts", "", 1],
  ["battery", "battery ", 0],
];

/** The newest heat, watts and charge, as far as they are known. */
export const channelNote = (newest: Watched["newest"]): string[] =>
  shown.flatMap(([role, name, decimals]) => {
    const value = newest[role];
    return value === undefined ? [] : [`${name}${say.measure(value, channelUnits[role], decimals)}`];
  });
