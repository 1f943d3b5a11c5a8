import { writeFileSync } from "node:fs";
import { basename } from "node:path";
import type { Command } from "commander";
import {
  ConfigProblem,
  bytesOf,
  configFormats,
  formatOf,
  patchConfig,
  readConfig,
  textIn,
  wantedIn,
  type ConfigFormat,
  type ConfigValue,
} from "@/core/config";
import { readCatalogue } from "@/core/kit";
import { BadInput, bytesFrom, jsonFrom } from "./input";

/** What is wrong with a file, as one line. */
function saying<Done>(file: string, work: () => Done): Done {
  try {
    return work();
  } catch (error) {
    if (error instanceof ConfigProblem || error instanceof TypeError)
      throw new BadInput(`${file}: ${error.message}`);
    throw error;
  }
}

function formatIn(text: string): ConfigFormat {
  const format = configFormats.find((known) => known === text);
  if (!format) throw new BadInput(`--format takes one of: ${configFormats.join(", ")}; not "${text}".`);
  return format;
}

/** Values by path from a JSON file: an object of paths, or of sections that hold keys. */
function profileIn(file: string): { path: string; value: ConfigValue }[] {
  const read = jsonFrom(file);
  const made: { path: string; value: ConfigValue }[] = [];
  const walk = (value: unknown, path: string) => {
    if (value !== null && typeof value === "object" && !Array.isArray(value))
      for (const [key, inner] of Object.entries(value)) walk(inner, path === "" ? key : `${path}/${key}`);
    else if (["string", "number", "boolean"].includes(typeof value))
      made.push({ path, value: value as ConfigValue });
    else throw new BadInput(`${file}: “${path}” holds no text, number, true or false.`);
  };
  walk(read, "");
  return made;
}

const shown = (value: ConfigValue) => (value === null ? "not there" : String(value));

/** Reading and patching of engines' config files. */
export function config(program: Command): void {
  const command = program
    .command("config")
    .description("An engine's own config file, read and patched in place.");
  command
    .command("read <file>")
    .description("Every value with its section, key and line.")
    .option("--format <format>", configFormats.join(", "), formatIn)
    .option("--catalogue <file>", "a settings catalogue: keys that it doesn't know are named")
    .option("--json", "one JSON object")
    .action(
      (
        file: string,
        { format: asked, catalogue, json }: { format?: ConfigFormat; catalogue?: string; json?: boolean },
      ) => {
        const made = saying(file, () => {
          const { text, encoding } = textIn(bytesFrom(file));
          const format = asked ?? formatOf(basename(file), text);
          const entries = readConfig(text, format);
          const seen = new Map<string, number>();
          for (const { section, key } of entries)
            seen.set(`${section}/${key}`, (seen.get(`${section}/${key}`) ?? 0) + 1);
          const problems = entries
            .filter(
              ({ section, key }, at) =>
                entries.findIndex((one) => one.section === section && one.key === key) === at,
            )
            .flatMap(({ section, key, line }) => {
              const times = seen.get(`${section}/${key}`) ?? 1;
              return times > 1
                ? [{ line, message: `“${section ? `${section}/` : ""}${key}” stands ${times} times` }]
                : [];
            });
          return { format, encoding, entries, problems };
        });
        const unknown = catalogue ? unknownTo(catalogue, made.entries) : [];
        if (json) process.stdout.write(`${JSON.stringify({ ...made, unknown })}\n`);
        else
          for (const { section, key, line, value } of made.entries)
            process.stdout.write(`${line}\t${section ? `${section}/` : ""}${key}\t${shown(value)}\n`);
      },
    );
  command
    .command("patch <file>")
    .description("Writes the file with some values changed and every other byte as it was.")
    .option("--format <format>", configFormats.join(", "), formatIn)
    .option(
      "--set <change>",
      "SECTION/KEY=VALUE; again for more",
      (text: string, before: string[]) => [...before, text],
      [],
    )
    .option("--profile <file>", "values by path, as JSON")
    .option("--out <file>", "writes there instead of to standard output")
    .option("--diff", "prints line, before and after instead of the file")
    .action(
      (
        file: string,
        flags: { format?: ConfigFormat; set: string[]; profile?: string; out?: string; diff?: boolean },
      ) => {
        const { bytes, differences } = saying(file, () => {
          const { text, encoding } = textIn(bytesFrom(file));
          const format = flags.format ?? formatOf(basename(file), text);
          const wanted = [...(flags.profile ? profileIn(flags.profile) : []), ...flags.set.map(wantedIn)];
          if (wanted.length === 0)
            throw new BadInput("Say what to change: --set SECTION/KEY=VALUE, or --profile.");
          const patched = patchConfig(text, format, wanted);
          return { bytes: bytesOf(patched.text, encoding), differences: patched.differences };
        });
        if (flags.out) writeFileSync(flags.out, bytes);
        if (flags.diff)
          for (const { line, path, before, after } of differences)
            process.stdout.write(`${line}: ${path}: ${shown(before)} → ${shown(after)}\n`);
        else if (!flags.out) process.stdout.write(bytes);
      },
    );
}

/** Entries whose section and key no setting of a catalogue is written under. */
function unknownTo(file: string, entries: { section: string; key: string }[]) {
  const read = readCatalogue(textIn(bytesFrom(file)).text);
  if (!read.ok) throw new BadInput(`${file}: ${read.mistakes[0]?.message ?? "no catalogue"}`);
  const known = new Set(
    read.catalogue.settings.map(({ section, configKey, key }) => `${section}/${configKey || key}`),
  );
  return entries
    .filter(({ section, key }) => !known.has(`${section}/${key}`))
    .map(({ section, key }) => ({ section, key }));
}
