import type { Setting, SettingValue } from "@/core/kit";
import type { ProfileRow } from "./layers";

/** A value found in an engine's config file. */
export interface FileEntry {
  section: string;
  key: string;
  line: number;
  value: SettingValue | null;
}

/** One of a file's values beside the profile. */
export interface FileRow extends FileEntry {
  path: string;
  /** The setting that it is; null for a key that the catalogue doesn't know. */
  setting: Setting | null;
  /** What the profile says; null where there is no such setting. */
  profile: SettingValue | null;
  state: "same" | "differs" | "unknown" | "unreadable";
  /** The file's value as the setting takes it; null where it can't be one. */
  taken: SettingValue | null;
}

/** Where a setting stands in its file, sections separated by "/". */
export const pathOf = ({ section, configKey, key }: Pick<Setting, "section" | "configKey" | "key">) =>
  [section, configKey || key].filter((part) => part !== "").join("/");

const yes = new Set(["true", "yes", "on", "1"]),
  no = new Set(["false", "no", "off", "0"]);

/** A file's value as a setting takes it: a switch from any of its usual spellings, a number from its text. */
export function asSetting(
  { type, choices }: Pick<Setting, "type" | "choices">,
  value: SettingValue | null,
): SettingValue | null {
  if (value === null) return null;
  const text = String(value).trim();
  switch (type) {
    case "switch":
      return yes.has(text.toLowerCase()) ? true : no.has(text.toLowerCase()) ? false : null;
    case "number":
      return text !== "" && Number.isFinite(Number(text)) && !/^0x/i.test(text) ? Number(text) : null;
    case "choice":
      return choices.includes(text) ? text : null;
    case "text":
      return text;
  }
}

/** A setting's value as a file spells it, in the way of the value that stands there. */
export function asWritten(value: SettingValue, stands: SettingValue | null): SettingValue {
  if (typeof value !== "boolean" || typeof stands === "boolean" || stands === null) return value;
  const text = String(stands);
  const pairs: [string, string][] = [
    ["1", "0"],
    ["on", "off"],
    ["yes", "no"],
    ["true", "false"],
  ];
  const pair = pairs.find((each) => each.includes(text.toLowerCase())) ?? ["true", "false"];
  const word = pair[value ? 0 : 1] ?? "";
  const spelt =
    text === text.toUpperCase() && text !== text.toLowerCase()
      ? word.toUpperCase()
      : /^[A-Z]/.test(text)
        ? word.charAt(0).toUpperCase() + word.slice(1)
        : word;
  return typeof stands === "number" ? Number(spelt) : spelt;
}

/** A file's values beside a profile, in the file's order. */
export function fileRows(entries: FileEntry[], catalogue: Setting[], rows: ProfileRow[]): FileRow[] {
  const byPath = new Map(catalogue.map((setting) => [pathOf(setting), setting]));
  const held = new Map(rows.map((row) => [row.key, row.value]));
  return entries.map((entry) => {
    const path = [entry.section, entry.key].filter((part) => part !== "").join("/");
    const setting = byPath.get(path) ?? null;
    if (!setting) return { ...entry, path, setting, profile: null, state: "unknown" as const, taken: null };
    const profile = held.get(setting.key) ?? setting.default;
    const taken = asSetting(setting, entry.value);
    const state =
      taken === null ? ("unreadable" as const) : taken === profile ? ("same" as const) : ("differs" as const);
    return { ...entry, path, setting, profile, state, taken };
  });
}

/**
 * A setting guessed from what a file holds: its type by the value, its default the value itself; to be
 * confirmed.
 */
export function guessedSetting({ section, key, value }: FileEntry, taken: ReadonlySet<string>): Setting {
  const stem = key.slice(0, 100).replace(/[^\p{L}\p{M}\p{N}_.-]+/gu, "_") || "setting";
  let name = stem;
  for (let k = 2; taken.has(name); k++) name = `${stem}_${k}`;
  const text = value === null ? "" : value;
  return {
    key: name,
    label: key.slice(0, 120) || name,
    type: typeof text === "boolean" ? "switch" : typeof text === "number" ? "number" : "text",
    choices: [],
    min: null,
    max: null,
    step: null,
    default: typeof text === "string" ? text.slice(0, 200) : text,
    fastest: null,
    relieves: [],
    costs: { picture: 0, feel: 0, heat: 0, risk: 0 },
    restart: false,
    linked: [],
    countsDouble: false,
    section: section.slice(0, 120),
    configKey: key.slice(0, 120),
    purpose: null,
  };
}

/** What is to be written into a file of a profile: values that a layer sets, where they aren't there yet. */
export function wantedInFile(
  rows: ProfileRow[],
  catalogue: Setting[],
  entries: FileEntry[],
  file: string,
): { path: string; value: SettingValue; key: string }[] {
  const there = new Map(
    entries.map((entry) => [[entry.section, entry.key].filter((part) => part !== "").join("/"), entry]),
  );
  return rows.flatMap(({ key, from, value }) => {
    const setting = catalogue.find((each) => each.key === key);
    if (!setting || from === null || (setting.file !== undefined && setting.file !== file)) return [];
    const path = pathOf(setting);
    const stands = there.get(path)?.value ?? null;
    if (stands !== null && asSetting(setting, stands) === value) return [];
    return [{ path, key, value: asWritten(value, stands) }];
  });
}
