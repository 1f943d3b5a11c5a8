import { readFileSync } from "node:fs";
import { basename, dirname, isAbsolute, resolve } from "node:path";
import { parse } from "smol-toml";
import { formatOf } from "@/core/config";
import { configFormats, type ConfigFormat, type Settings } from "@/core/kit";
import { z } from "@/core/schema";

/*
 * bench.toml: what names from the server mean on this device. Whoever owns the device writes it; the server never sends a
 * command or a path, and what doesn't stand here is refused.
 */

const command = z.array(z.string().max(4000)).min(1).max(100);
const value = z.union([z.string(), z.number(), z.boolean()]);

const settingSchema = z.strictObject({
  /** Where it stands in the config file: sections and the key, separated by "/". */
  path: z.string().min(1).max(300),
  /** The values that it may be given. */
  values: z.array(value).min(1).max(200).optional(),
  least: z.number().optional(),
  most: z.number().optional(),
});

const engineSchema = z.strictObject({
  /** The program and its arguments, no shell; {title}, {scene}, {seconds} and {file} are filled in. */
  start: command,
  /** Run before and after, in the same way. */
  before: command.optional(),
  after: command.optional(),
  folder: z.string().optional(),
  /** The log that it writes, or the folder where it writes the newest. */
  log: z.string().min(1),
  config: z.string().min(1),
  format: z.enum(configFormats).optional(),
  settings: z.record(z.string(), settingSchema).default({}),
  /** What a title's file is called here. */
  titles: z.record(z.string(), z.string()).default({}),
  /** Time to start in, s, which doesn't count. */
  startSeconds: z.number().min(0).max(600).default(20),
});
export type EngineHere = Omit<z.output<typeof engineSchema>, "format"> & { format: ConfigFormat | null };

const benchSchema = z.strictObject({
  /** No run is begun with less on the disk, MB. */
  diskMegabytes: z.number().min(1).default(200),
  /** Rest that it waits for the temperature of the first start, at most, minutes. */
  mostWaitMinutes: z.number().min(0).max(240).default(30),
  engines: z.record(z.string(), engineSchema),
});
export interface BenchHere {
  diskMegabytes: number;
  mostWaitMinutes: number;
  engines: Record<string, EngineHere>;
}

/** Reads bench.toml; paths in it are from its own folder. @throws Error in words, with the place */
export function readBenchFile(path: string): BenchHere {
  let text: string;
  try {
    text = readFileSync(path, "utf8");
  } catch (cause) {
    throw new Error(`${path} can't be read: it says what runs on this device. See docs/agent.md.`, { cause });
  }
  let given: unknown;
  try {
    given = parse(text);
  } catch (error) {
    throw new Error(`${path}: ${(error as Error).message.split("\n")[0]}`, { cause: error });
  }
  const read = benchSchema.safeParse(given);
  if (!read.success) {
    const [issue] = read.error.issues;
    throw new Error(
      `${path}: ${issue?.path.join(".") || "the file"}: ${issue?.message ?? "isn't understood"}.`,
    );
  }
  const here = dirname(resolve(path));
  const from = (each: string) => (isAbsolute(each) ? each : resolve(here, each));
  return {
    ...read.data,
    engines: Object.fromEntries(
      Object.entries(read.data.engines).map(([name, engine]) => [
        name,
        {
          ...engine,
          format: engine.format ?? null,
          folder: from(engine.folder ?? "."),
          log: from(engine.log),
          config: from(engine.config),
        },
      ]),
    ),
  };
}

/** What is wanted in a config file; or why a setting can't be put there. */
export function wantedHere(
  { settings: known }: Pick<EngineHere, "settings">,
  settings: Settings,
): { wanted: { path: string; value: string | number | boolean }[] } | { refused: string } {
  const wanted: { path: string; value: string | number | boolean }[] = [];
  for (const [key, to] of Object.entries(settings)) {
    const here = Object.hasOwn(known, key) ? known[key] : undefined;
    if (!here) return { refused: `“${key}” isn't in bench.toml.` };
    const isOne = here.values?.some((each) => each === to || String(each) === String(to)) ?? true;
    const number = Number(to);
    const isNumeric = here.least === undefined && here.most === undefined ? true : Number.isFinite(number);
    if (!isOne || !isNumeric || number < (here.least ?? -Infinity) || number > (here.most ?? Infinity))
      return { refused: `“${key}” may not be ${String(to)} by bench.toml.` };
    if (here.values === undefined && here.least === undefined && here.most === undefined)
      return { refused: `bench.toml doesn't say which values “${key}” may have.` };
    wanted.push({ path: here.path, value: to });
  }
  return { wanted };
}

/** The format of an engine's config file, as it is said or as its name and content tell. */
export const formatHere = ({ format, config }: EngineHere, text: string): ConfigFormat =>
  format ?? formatOf(basename(config), text);
