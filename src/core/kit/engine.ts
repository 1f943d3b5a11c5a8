import type { SettingValue, Settings, Setting } from "./engineSchema";

/** What an engine calls a setting, by its key; the key itself where the catalogue doesn't know it. */
export function labelsIn(catalogue: Pick<Setting, "key" | "label">[]): (key: string) => string {
  const labels = new Map(catalogue.map(({ key, label }) => [key, label]));
  return (key) => labels.get(key) ?? key;
}

/** A catalogue's defaults as settings in force. */
export function defaultsOf(catalogue: Pick<Setting, "key" | "default">[]): Settings {
  return Object.fromEntries(catalogue.map((setting) => [setting.key, setting.default]));
}

/** What differs between two sets of settings, in the order of the catalogue's keys. */
export function changesBetween(
  before: Settings,
  after: Settings,
): { key: string; from: SettingValue | null; to: SettingValue | null }[] {
  return [...new Set([...Object.keys(before), ...Object.keys(after)])]
    .filter((key) => before[key] !== after[key])
    .map((key) => ({ key, from: before[key] ?? null, to: after[key] ?? null }));
}

/** Whether two sets of settings hold the same values. */
export const sameSettings = (a: Settings, b: Settings) => changesBetween(a, b).length === 0;
