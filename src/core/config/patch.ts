import { jsonLayout } from "./json";
import { linesLayout } from "./lines";
import { tomlLayout } from "./toml";
import {
  ConfigProblem,
  literalOf,
  type ConfigFormat,
  type ConfigValue,
  type Edit,
  type FileLayout,
  type Spot,
} from "./types";
import { xmlLayout } from "./xml";
import { yamlLayout } from "./yaml";

/** A value of a file: where it stands, and what it is. */
export interface ConfigEntry {
  /** Sections or parents separated by "/", empty at the top. */
  section: string;
  key: string;
  line: number;
  value: ConfigValue;
}

/** One line of what a patch changes; null where there was none. */
export interface PatchedLine {
  path: string;
  line: number;
  before: ConfigValue;
  after: ConfigValue;
}

const layouts: Record<ConfigFormat, (text: string) => FileLayout> = {
  toml: tomlLayout,
  ini: (text) => linesLayout(text, true),
  flat: (text) => linesLayout(text, false),
  yaml: yamlLayout,
  json: jsonLayout,
  xml: xmlLayout,
};

/** A file in its layout. @throws ConfigProblem, of what is beyond its reader too */
function layoutOf(text: string, format: ConfigFormat): FileLayout {
  try {
    return layouts[format](text);
  } catch (error) {
    if (/call stack/i.test((error as Error).message))
      throw new ConfigProblem("it can't be read: it is nested too deeply, or one value is too long");
    throw error;
  }
}

const endings: Record<string, ConfigFormat> = {
  toml: "toml",
  ini: "ini",
  yaml: "yaml",
  yml: "yaml",
  json: "json",
  jsonc: "json",
  xml: "xml",
};

/** A file's format by its name; by its content where the name says nothing. */
export function formatOf(name: string, text: string): ConfigFormat {
  const ending = /\.([^.]+)$/.exec(name)?.[1]?.toLowerCase() ?? "";
  if (Object.hasOwn(endings, ending)) return endings[ending] ?? "flat";
  const start = text.trimStart();
  if (start.startsWith("{")) return "json";
  if (start.startsWith("<")) return "xml";
  return /^\s*\[[^\]\n]+\]\s*([;#].*)?$/m.test(text) ? "ini" : "flat";
}

/** What a file says. @throws ConfigProblem with the line */
export function readConfig(text: string, format: ConfigFormat): ConfigEntry[] {
  return layoutOf(text, format).spots.map(({ path, line, value }) => ({
    section: path.slice(0, -1).join("/"),
    key: path.at(-1) ?? "",
    line,
    value,
  }));
}

/** "SECTION/KEY=VALUE" as a path and what is wanted there. @throws ConfigProblem */
export function wantedIn(text: string): { path: string; value: string } {
  const at = text.indexOf("=");
  if (at <= 0) throw new ConfigProblem(`“${text}” sets nothing; write it as SECTION/KEY=VALUE`);
  return { path: text.slice(0, at), value: text.slice(at + 1) };
}

const isTyped = (format: ConfigFormat) => format === "toml" || format === "yaml" || format === "json";

/** A value as the format holds it: a text stays a text where one stands, else it is what it reads as. */
function valueFor(format: ConfigFormat, value: ConfigValue, spot: Spot | undefined): ConfigValue {
  if (!isTyped(format)) return value === null ? "" : String(value);
  if (typeof value !== "string") return spot && typeof spot.value === "string" ? String(value) : value;
  return spot && typeof spot.value === "string" ? value : literalOf(value);
}

/** A value that is wanted at a path, its parts separated by "/". */
interface Wanted {
  path: string;
  value: ConfigValue;
}

interface Patched {
  text: string;
  differences: PatchedLine[];
}

/**
 * A file with some of its values changed, and every other character as it was. What comes out is read again:
 * only what was asked for may differ. The file is read once and checked once; one value after the other where
 * values depend on one another, as two in a section that isn't there yet do.
 * @param wanted values by path, separated by "/"
 * @throws ConfigProblem with the line for what can't be patched safely
 */
export function patchConfig(text: string, format: ConfigFormat, wanted: Wanted[]): Patched {
  if (new Set(wanted.map(({ path }) => path)).size === wanted.length)
    try {
      return patchedAtOnce(text, format, wanted);
    } catch (error) {
      if (!(error instanceof ConfigProblem) || wanted.length === 1) throw error;
    }
  let now = text;
  const differences: PatchedLine[] = [];
  for (const each of wanted) {
    const made = patchedAtOnce(now, format, [each]);
    now = made.text;
    differences.push(...made.differences);
  }
  return { text: now, differences };
}

const nameOf = ({ path }: Spot) => path.join("/");

interface Change extends Edit, Omit<PatchedLine, "line"> {
  isNew: boolean;
}

/** Values of different paths in one go. @throws ConfigProblem where one can't be written, or not beside the others */
function patchedAtOnce(text: string, format: ConfigFormat, wanted: Wanted[]): Patched {
  const layout = layoutOf(text, format);
  const byPath = new Map<string, Spot[]>(wanted.map(({ path }) => [path, []]));
  for (const spot of layout.spots) byPath.get(nameOf(spot))?.push(spot);
  const changes = wanted.flatMap(({ path, value }): Change[] => {
    const found = byPath.get(path) ?? [];
    const [spot, second] = found;
    if (second)
      throw new ConfigProblem(
        `“${path}” stands ${found.length} times: which is meant can't be told`,
        second.line,
      );
    if (spot?.fixed) throw new ConfigProblem(`“${path}” isn't changed: ${spot.fixed}`, spot.line);
    const after = valueFor(format, value, spot);
    if (spot && spot.value === after) return [];
    const edit = spot
      ? { start: spot.start, end: spot.end, text: layout.written(spot, after) }
      : layout.added(pathOf(path, format), after);
    return [{ ...edit, path, before: spot?.value ?? null, after, isNew: !spot }];
  });
  if (changes.length === 0) return { text, differences: [] };
  const parts: string[] = [];
  let at = 0;
  for (const edit of [...changes].sort((a, b) => a.start - b.start)) {
    if (edit.start < at) throw unsafe(edit.path, "another value is written there");
    parts.push(text.slice(at, edit.start), edit.text);
    at = edit.end;
  }
  const made = [...parts, text.slice(at)].join("");
  const lines = linesOfSet(layout.spots, made, format, changes);
  const differences = changes.map(({ path, before, after }): PatchedLine => ({
    path,
    line: lines.get(path) ?? 0,
    before,
    after,
  }));
  return { text: made, differences };
}

const unsafe = (path: string, why: string) => new ConfigProblem(`“${path}” can't be written safely: ${why}`);

/** Holds what came out against what went in. @returns the lines of what was set */
function linesOfSet(
  before: Spot[],
  made: string,
  format: ConfigFormat,
  changes: Change[],
): ReadonlyMap<string, number> {
  const first = changes[0]?.path ?? "";
  let spots: Spot[];
  try {
    spots = layoutOf(made, format).spots;
  } catch (error) {
    throw unsafe(first, (error as Error).message);
  }
  const wanted = new Map(changes.map(({ path, after }) => [path, after]));
  const lines = new Map<string, number>();
  const others: Spot[] = [];
  for (const spot of spots) {
    const path = nameOf(spot);
    if (!wanted.has(path)) others.push(spot);
    else if (lines.has(path) || spot.value !== wanted.get(path))
      throw unsafe(path, "read again it is something else");
    else lines.set(path, spot.line);
  }
  if (lines.size < wanted.size) throw unsafe(first, "read again it is something else");
  const stayed = before.filter((spot) => !wanted.has(nameOf(spot)));
  const isNew = changes.some((change) => change.isNew);
  if (!areSame(stayed, others, isNew)) throw unsafe(first, "another value would change with it");
  return lines;
}

/** Whether places and values are the same; in whatever order, where something new stands among them. */
function areSame(before: Spot[], after: Spot[], inAnyOrder: boolean): boolean {
  if (before.length !== after.length) return false;
  const isEqual = (spot: Spot, other: Spot | undefined) =>
    other?.value === spot.value &&
    other.path.length === spot.path.length &&
    spot.path.every((part, at) => part === other.path[at]);
  if (before.every((spot, at) => isEqual(spot, after[at]))) return true;
  if (!inAnyOrder) return false;
  const said = (list: Spot[]) => list.map(({ path, value }) => JSON.stringify([path, value])).sort();
  return said(before).join("\n") === said(after).join("\n");
}

/** A path in its parts: sections of an INI file may hold the sign that parts them. */
function pathOf(path: string, format: ConfigFormat): string[] {
  const parts = path.split("/");
  if (format !== "ini" || parts.length < 3) return parts;
  return [parts.slice(0, -1).join("/"), parts.at(-1) ?? ""];
}
