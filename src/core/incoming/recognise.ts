import { ConfigProblem, formatOf, readConfig, textIn } from "@/core/config";
import { catalogueSchema } from "@/core/kit";
import { profileFileSchema } from "@/core/profile";
import { publicationSchema } from "@/core/publication";
import { recipeSchema } from "@/core/recipe";
import { said } from "@/core/words";
import { savedJob } from "./savedJob";
import type { Incoming } from "./shape";

/** Bytes from a file's start that tell what it is, where it isn't JSON. */
export const headBytes = 256 * 1024;
/** Keys that are held against an engine's, at most. */
const mostKeys = 3000;

const ascii = (bytes: Uint8Array, from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));

/**
 * Containers of moving pictures by their first bytes: ISO base media ("ftyp" at byte 4, ISO/IEC 14496-12), Matroska
 * and WebM (EBML's id 1A 45 DF A3, RFC 8794), RIFF with AVI, MPEG transport stream (0x47 every 188 bytes, ISO/IEC 13818-1).
 */
function isMovie(bytes: Uint8Array): boolean {
  if (["ftyp", "moov", "mdat", "wide"].includes(ascii(bytes, 4, 8))) return true;
  if (bytes[0] === 0x1a && bytes[1] === 0x45 && bytes[2] === 0xdf && bytes[3] === 0xa3) return true;
  if (ascii(bytes, 0, 4) === "RIFF" && ascii(bytes, 8, 11) === "AVI") return true;
  return bytes.length > 376 && [0, 188, 376].every((at) => bytes[at] === 0x47);
}

/** What else is no text, by its first bytes, with what to do instead. */
const otherBinaries: [start: number[], why: Extract<Incoming, { kind: "unknown" }>["why"]][] = [
  [[0x89, 0x50, 0x4e, 0x47], said("incoming.picture")],
  [[0xff, 0xd8, 0xff], said("incoming.picture")],
  [[0x50, 0x4b, 0x03, 0x04], said("incoming.packed", { as: "zip" })],
  [[0x1f, 0x8b], said("incoming.packed", { as: "gzip" })],
  [[0x25, 0x50, 0x44, 0x46], said("incoming.document")],
];

const whole = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Why a file that says what it is can't be taken for it. */
const spoilt = (what: string, issues: { path: PropertyKey[]; message: string }[]): Incoming => ({
  kind: "unknown",
  why: said("incoming.spoilt", {
    what,
    where: issues[0]?.path.join(".") ?? "",
    message: issues[0]?.message ?? "Something is missing.",
  }),
});

/** One of our own files; null for JSON of somebody else. */
function ownJson(read: unknown): Incoming | null {
  if (!whole(read)) return null;
  if (read.application === "velvet-lamp" && Array.isArray(read.runs)) {
    const job = savedJob(read);
    return job ? { kind: "job", title: job.title, rig: job.rig, runs: job.logs.length } : spoilt("job", []);
  }
  const format = typeof read.format === "string" ? read.format : "";
  const [, of = ""] = /^velvet-lamp[-/]([a-z]+)\/\d+$/.exec(format) ?? [];
  switch (of) {
    case "profile": {
      const { data, error } = profileFileSchema.safeParse(read);
      return data
        ? { kind: "profile", rig: data.rig, engine: data.engine, values: data.values.length }
        : spoilt("profile", error.issues);
    }
    case "recipe": {
      const { data, error } = recipeSchema.safeParse(read);
      return data
        ? {
            kind: "recipe",
            title: data.title.name,
            system: data.title.system,
            engine: data.engine.name,
            settings: data.settings.length,
          }
        : spoilt("recipe", error.issues);
    }
    case "catalogue": {
      const { data, error } = catalogueSchema.safeParse(read);
      return data
        ? { kind: "catalogue", engine: data.engine, settings: data.settings.length }
        : spoilt("catalogue", error.issues);
    }
    case "publication": {
      const { data, error } = publicationSchema.safeParse(read);
      return data ? { kind: "publication", name: data.name } : spoilt("publication", error.issues);
    }
    default:
      return null;
  }
}

const isFigure = (cell: string) =>
  /^[-+]?\d+([.,]\d+)?([eE][-+]?\d+)?$/.test(cell.trim().replace(/^"|"$/g, ""));

/** Shares of a text's lines that are rows of figures, and that set a key to a value. */
function lineShares(text: string): { rows: number; keyed: number; lines: number } {
  const lines = text
    .split(/\r\n|\r|\n/)
    .map((line) => line.trim())
    .filter((line) => line !== "" && !/^(#|;|\/\/)/.test(line));
  // The last line of a head may be cut off.
  const told = lines.length > 20 ? lines.slice(0, -1) : lines;
  // "key = value", "key: value", "[section]".
  const isKeyed = (line: string) =>
    /^(\[[^\]]+\]|["']?[A-Za-z_][^=:,;]{0,120}?["']?\s*[=:]\s*\S?.*)$/.test(line);
  const isRow = (line: string) => {
    const cells = line.split(/[;\t|]/).length > 1 ? line.split(/[;\t|]/) : line.split(/,|\s+/);
    if (isKeyed(line)) return false;
    return (
      isFigure(line) || (cells.length > 0 && cells.filter(isFigure).length >= Math.max(1, cells.length / 3))
    );
  };
  return {
    rows: told.filter(isRow).length,
    keyed: told.filter(isKeyed).length,
    lines: told.length,
  };
}

/**
 * Tells what a file is by what it holds; its name only chooses between formats of a config file.
 * @param head the first bytes of it, at least 64 kB where there are so many
 * @param read the whole of it, asked for where it may be JSON; null where it is too long
 */
export async function recognise(
  name: string,
  head: Uint8Array,
  read: () => Promise<Uint8Array | null>,
): Promise<Incoming> {
  if (head.length === 0) return { kind: "unknown", why: said("incoming.empty") };
  if (isMovie(head)) return { kind: "video" };
  const binary = otherBinaries.find(([start]) => start.every((byte, at) => head[at] === byte));
  if (binary) return { kind: "unknown", why: binary[1] };
  const { text } = textIn(head.subarray(0, headBytes));
  if (text.includes("\u0000")) return { kind: "unknown", why: said("incoming.binary") };
  const start = text.trimStart();
  const mayBeJson = start.startsWith("{") || start.startsWith("[{");
  if (mayBeJson) {
    const bytes = await read();
    if (bytes === null) return { kind: "unknown", why: said("incoming.tooLarge") };
    try {
      const own = ownJson(JSON.parse(new TextDecoder().decode(bytes)));
      if (own) return own;
    } catch {
      // It may be JSON with comments: a config file is read by its own reader.
    }
  }
  const { rows, keyed, lines } = lineShares(text);
  const isConfig =
    start.startsWith("{") ||
    start.startsWith("<") ||
    (keyed >= 0.5 * lines && keyed > rows) ||
    isSections(start);
  if (!isConfig)
    return rows >= 0.5 * lines && rows > 0
      ? { kind: "log" }
      : { kind: "unknown", why: said("incoming.neither") };
  const bytes = head.length < headBytes ? head : await read();
  if (bytes === null) return { kind: "unknown", why: said("incoming.tooLarge") };
  try {
    const whole = textIn(bytes).text;
    const format = formatOf(name, whole);
    const entries = readConfig(whole, format);
    if (entries.length === 0) return { kind: "unknown", why: said("incoming.noSettings") };
    return { kind: "config", format, keys: [...new Set(entries.map(({ key }) => key))].slice(0, mostKeys) };
  } catch (error) {
    if (error instanceof ConfigProblem)
      return { kind: "unknown", why: said("incoming.spoiltConfig", { message: error.message }) };
    throw error;
  }
}

/** A file that begins with a section: [name] on a line of its own, and no array of JSON. */
const isSections = (start: string) =>
  /^\[[A-Za-z_][^\]\n]*\]\s*$/m.test(start.slice(0, 400)) && start.startsWith("[");
