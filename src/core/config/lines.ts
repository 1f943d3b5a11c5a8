import { ConfigProblem, lineEnd, type ConfigValue, type Edit, type FileLayout, type Spot } from "./types";

/** One line that holds a value. */
const pair = /^(\s*)([^=:]*?)(\s*[=:]\s*)(.*?)(\s*)$/;
const comment = /^\s*[;#]/;
const header = /^\s*\[(.*?)\]\s*([;#].*)?$/;

/** Where a value ends and a comment behind it begins: at a blank and its sign, outside quotes. */
function valueEnd(text: string): number {
  const quote = /^(["'])(?:\\.|(?!\1).)*\1/.exec(text);
  if (quote) return quote[0].length;
  const found = /\s+[;#]/.exec(text);
  return found && found.index > 0 ? found.index : text.length;
}

const quoteOf = (raw: string) => /^(["'])(.*)\1$/s.exec(raw);

/**
 * INI, and flat files of `key = value` or `key: value`: a line a value; comments from `;` or `#`.
 * @param sections whether `[names]` part the file
 */
export function linesLayout(text: string, sections: boolean): FileLayout {
  const end = lineEnd(text);
  const spots: Spot[] = [];
  /** Where each section's last line of its own ends, and how its pairs are written. */
  const ends = new Map<string, { at: number; indent: string; between: string }>();
  let section = "",
    offset = 0;
  ends.set("", { at: 0, indent: "", between: " = " });
  text.split("\n").forEach((raw, index) => {
    const line = raw.replace(/\r$/, "");
    const after = Math.min(text.length, offset + raw.length + 1);
    const named = sections ? header.exec(line) : null;
    if (named) {
      section = named[1] ?? "";
      const before = ends.get(section) ?? ends.get("");
      ends.set(section, { at: after, indent: before?.indent ?? "", between: before?.between ?? " = " });
    } else if (line.trim() !== "" && !comment.test(line)) {
      const found = pair.exec(line);
      const [, indent = "", key = "", between = "", rest = ""] = found ?? [];
      if (found && key !== "") {
        const start = offset + indent.length + key.length + between.length;
        const length = valueEnd(rest);
        const own = rest.slice(0, length);
        const quoted = quoteOf(own);
        spots.push({
          path: sections && section !== "" ? [section, key] : [key],
          value: quoted ? (quoted[2] ?? "") : own,
          start,
          end: start + length,
          line: index + 1,
        });
        ends.set(section, { at: after, indent, between });
      }
    }
    offset += raw.length + 1;
  });
  const plain = (value: ConfigValue): string => {
    const own = value === null ? "" : String(value);
    if (/[\r\n]/.test(own)) throw new ConfigProblem("a value of several lines can't be written here");
    return own;
  };
  const written = (spot: Spot, value: ConfigValue): string => {
    const quoted = quoteOf(text.slice(spot.start, spot.end));
    const own = plain(value);
    if (!quoted) return own;
    if (own.includes(quoted[1] ?? ""))
      throw new ConfigProblem("the value holds the quote that it stands in", spot.line);
    return `${quoted[1] ?? ""}${own}${quoted[1] ?? ""}`;
  };
  const added = (path: string[], value: ConfigValue): Edit => {
    const key = path.at(-1) ?? "",
      name = path.slice(0, -1).join("/");
    if (!sections && name !== "") throw new ConfigProblem(`a flat file has no section “${name}”`);
    if (key === "" || /[=:\r\n[\];#]/.test(key)) throw new ConfigProblem(`“${key}” can't be a key here`);
    const place = ends.get(name);
    const opening = text === "" || text.endsWith("\n") ? "" : end;
    if (place && (name !== "" || spots.length === 0 || place.at > 0 || !sections)) {
      const at = sections ? place.at : text.length;
      const broken = at > 0 && text[at - 1] !== "\n" ? end : "";
      return {
        start: at,
        end: at,
        text: `${broken}${place.indent}${key}${place.between}${plain(value)}${end}`,
      };
    }
    if (name === "") return { start: 0, end: 0, text: `${key} = ${plain(value)}${end}` };
    if (/[\r\n\]]/.test(name)) throw new ConfigProblem(`“${name}” can't be a section here`);
    return {
      start: text.length,
      end: text.length,
      text: `${opening}${text === "" ? "" : end}[${name}]${end}${key} = ${plain(value)}${end}`,
    };
  };
  return { spots, written, added };
}
