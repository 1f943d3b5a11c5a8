import type { SettingValue } from "@/core/kit";

/** What a trial of several changes at once is remembered by. */
export const severalKey = "several";

/** Several changes as one text: equal for equal changes, in any order. @example severalTo([{ key: "b", to: 1 }, { key: "a", to: true }]) // → "a = true, b = 1" */
export const severalTo = (changes: { key: string; to: SettingValue | null }[]): string =>
  changes
    .map(({ key, to }) => `${key} = ${String(to)}`)
    .sort()
    .join(", ");
