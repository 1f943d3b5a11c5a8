import { jsonLayout } from "./json";
import { linesLayout } from "./lines";
import { tomlLayout } from "./toml";
import {
  ConfigProblem,
  literalOf,
  type ConfigFormat,
  type ConfigValue,
  type Edit,
  type Layout,
  type Spot,
} from "./types";
import { xmlLayout } from "./xml";
import { yamlLayout } from "./yaml";

/** A value of a file: where it stands, and what it is. */
export interface ConfigEntry {
  /** Sections or parents parted by "/", empty at the top. */
  section: string;
  key: string;
  line: number;
  value: ConfigValue;
}

/** One line of what a patch changes; null where there was none. */
export interface Difference {
  path: string;
  line: number;
  before: ConfigValue;
  after: ConfigValue;
}

const layouts: Record<ConfigFormat, (text: string) => Layout> = {
  toml: tomlLayout,
  ini: (text) => linesLayout(text, true),
  flat: (text) => linesLayout(text, false),
  yaml: yamlLayout,
  json: jsonLayout,
  xml: xmlLayout,
};

/** A file in its layout. @throws ConfigProblem, of what is beyond its reader too */
function layoutOf(text: string, format: ConfigFormat): Layout {
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

/** A value that is wanted at a path, its parts parted by "/". */
interface Wanted {
  path: string;
  value: ConfigValue;
}

interface Patched {
  text: string;
  differences: Difference[];
}

/**
 * A file with some of its values changed, and every other character as it was. What comes out is read again:
 * only what was asked for may differ. The file is read once and checked once; one value after the other where
 * values depend on one another, as two in a section that isn't there yet do.
 * @param wanted values by path, parted by "/"
 * @throws ConfigProblem with the line for what can't be patched safely
 */
export function patchConfig(text: string, format: ConfigFormat, wanted: Wanted[]): Patched {
  const layout = layoutOf(text, format);
  return atOnce(text, format, layout, wanted) ?? inTurn(text, format, wanted);
}

const nameOf = ({ path }: Spot) => path.join("/");

/** Every value in one go; null where that isn't safe, or a value can't be written. */
function atOnce(text: string, format: ConfigFormat, layout: Layout, wanted: Wanted[]): Patched | null {
  const paths = new Set(wanted.map(({ path }) => path));
  if (paths.size < wanted.length) return null;
  const byPath = new Map<string, Spot | "twice">();
  for (const spot of layout.spots) {
    const name = nameOf(spot);
    if (paths.has(name)) byPath.set(name, byPath.has(name) ? "twice" : spot);
  }
  const changes: (Edit & Omit<Difference, "line"> & { isNew: boolean })[] = [];
  try {
    for (const { path, value } of wanted) {
      const spot = byPath.get(path);
      if (spot === "twice" || spot?.fixed) return null;
      const after = valueFor(format, value, spot);
      if (spot && spot.value === after) continue;
      const edit = spot
        ? { start: spot.start, end: spot.end, text: layout.written(spot, after) }
        : layout.added(pathOf(path, format), after);
      changes.push({ ...edit, path, before: spot?.value ?? null, after, isNew: !spot });
    }
  } catch (error) {
    if (error instanceof ConfigProblem) return null;
    throw error;
  }
  if (changes.length === 0) return { text, differences: [] };
  const parts: string[] = [];
  let at = 0;
  for (const edit of [...changes].sort((a, b) => a.start - b.start)) {
    if (edit.start < at) return null;
    parts.push(text.slice(at, edit.start), edit.text);
    at = edit.end;
  }
  const made = [...parts, text.slice(at)].join("");
  const lines = linesOfSet(layout.spots, made, format, changes);
  if (!lines) return null;
  const differences = changes.map(({ path, before, after }): Difference => ({
    path,
    line: lines.get(path) ?? 0,
    before,
    after,
  }));
  return { text: made, differences };
}

/** The lines of what was set; null where something else came out than what was wanted. */
function linesOfSet(
  before: Spot[],
  made: string,
  format: ConfigFormat,
  changes: { path: string; after: ConfigValue; isNew: boolean }[],
): Map<string, number> | null {
  let spots: Spot[];
  try {
    spots = layoutOf(made, format).spots;
  } catch {
    return null;
  }
  const wanted = new Map(changes.map(({ path, after }) => [path, after]));
  const lines = new Map<string, number>();
  const others: Spot[] = [];
  for (const spot of spots) {
    const path = nameOf(spot);
    if (!wanted.has(path)) others.push(spot);
    else if (lines.has(path) || spot.value !== wanted.get(path)) return null;
    else lines.set(path, spot.line);
  }
  const isNew = changes.some((change) => change.isNew);
  const stayed = before.filter((spot) => !wanted.has(nameOf(spot)));
  return lines.size === wanted.size && areSame(stayed, others, isNew) ? lines : null;
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

/** One value after the other, each checked by itself: what can't be written is refused by its name. */
function inTurn(text: string, format: ConfigFormat, wanted: Wanted[]): Patched {
  let now = text;
  const differences: Difference[] = [];
  for (const { path, value } of wanted) {
    const layout = layoutOf(now, format);
    const found = layout.spots.filter((spot) => spot.path.join("/") === path);
    const [spot, second] = found;
    if (second)
      throw new ConfigProblem(
        `“${path}” stands ${found.length} times: which is meant can't be told`,
        second.line,
      );
    if (spot?.fixed) throw new ConfigProblem(`“${path}” isn't changed: ${spot.fixed}`, spot.line);
    const after = valueFor(format, value, spot);
    if (spot && spot.value === after) continue;
    const edit: Edit = spot
      ? { start: spot.start, end: spot.end, text: layout.written(spot, after) }
      : layout.added(pathOf(path, format), after);
    const made = now.slice(0, edit.start) + edit.text + now.slice(edit.end);
    const line = checked(layout, made, format, path, after, spot !== undefined);
    differences.push({ path, line, before: spot?.value ?? null, after });
    now = made;
  }
  return { text: now, differences };
}

/** A path in its parts: sections of an INI file may hold the sign that parts them. */
function pathOf(path: string, format: ConfigFormat): string[] {
  const parts = path.split("/");
  if (format !== "ini" || parts.length < 3) return parts;
  return [parts.slice(0, -1).join("/"), parts.at(-1) ?? ""];
}

/** Holds what came out against what went in. @returns the line of what was set */
function checked(
  before: Layout,
  made: string,
  format: ConfigFormat,
  path: string,
  after: ConfigValue,
  wasThere: boolean,
): number {
  const unsafe = (why: string) => new ConfigProblem(`“${path}” can't be written safely: ${why}`);
  let spots: Spot[];
  try {
    spots = layoutOf(made, format).spots;
  } catch (error) {
    throw unsafe((error as Error).message);
  }
  const own = spots.filter((spot) => spot.path.join("/") === path);
  const [set] = own;
  if (!set || own.length > 1 || set.value !== after) throw unsafe("read again it is something else");
  const said = (list: Spot[]) =>
    list.filter((spot) => spot.path.join("/") !== path).map((spot) => JSON.stringify([spot.path, spot.value]));
  const [old, now] = [said(before.spots), said(spots)];
  const sorted = (list: string[]) => (wasThere ? list : [...list].sort());
  if (JSON.stringify(sorted(old)) !== JSON.stringify(sorted(now)))
    throw unsafe("another value would change with it");
  return set.line;
}
