import { stringify } from "smol-toml";
import { isOwn, type Setting } from "@/core/kit";

/** What a draft can't know: where things lie on the device. */
export interface Lying {
  start: string[];
  log: string;
  config: string;
}

const toFill: Lying = {
  start: ["/path/to/the/engine", "--play", "{file}", "--seconds", "{seconds}"],
  log: "/path/to/the/folder/of/its/logs",
  config: "/path/to/its/config/file",
};

/**
 * A draft of bench.toml by an engine's catalogue: every setting with its place in the config file and the values that it
 * may have. Commands and paths are for whoever owns the device to write.
 * @returns the draft, and a config file in TOML that holds every setting's default
 */
export function benchDraft(
  engine: string,
  catalogue: readonly Setting[],
  lying: Lying = toFill,
): { bench: string; config: string } {
  const own = catalogue.filter(({ key, configKey }) => !isOwn(key) && configKey !== "");
  const pathOf = ({ section, configKey }: Setting) => (section === "" ? configKey : `${section}/${configKey}`);
  const settings = Object.fromEntries(
    own.map((setting) => [setting.key, { path: pathOf(setting), ...valuesOf(setting) }]),
  );
  const nested: Record<string, unknown> = {};
  for (const { section, configKey, default: value } of own) {
    let table = nested;
    for (const part of section === "" ? [] : section.split("/"))
      table = (table[part] ??= {}) as Record<string, unknown>;
    table[configKey] = value;
  }
  const head =
    "# What names from the server mean on this device. Only what stands here is ever run or changed.\n" +
    "# {title}, {scene}, {seconds} and {file} are filled in; no shell reads the command.\n";
  return {
    bench: `${head}${stringify({ engines: { [engine]: { ...lying, titles: {}, settings } } })}\n`,
    config: `${stringify(nested)}\n`,
  };
}

/** The values that a setting may have. */
function valuesOf({ type, choices, min, max, default: usual }: Setting) {
  if (type === "switch") return { values: [true, false] };
  if (type === "number" && (min !== null || max !== null))
    return { ...(min === null ? {} : { least: min }), ...(max === null ? {} : { most: max }) };
  return { values: choices.length > 0 ? choices : [usual] };
}
