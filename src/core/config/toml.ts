import { parseTOML, type AST } from "toml-eslint-parser";
import { ConfigProblem, lineEnd, type ConfigValue, type Edit, type FileLayout, type Spot } from "./types";

const nameOf = (key: AST.TOMLBare | AST.TOMLQuoted) => (key.type === "TOMLBare" ? key.name : key.value);
const bareKey = /^[A-Za-z0-9_-]+$/;
const keyText = (key: string) => (bareKey.test(key) ? key : JSON.stringify(key));

/** TOML 1.0. */
export function tomlLayout(text: string): FileLayout {
  let tree: AST.TOMLProgram;
  try {
    tree = parseTOML(text);
  } catch (error) {
    const { message, lineNumber } = error as { message: string; lineNumber?: number };
    throw new ConfigProblem(message, lineNumber ?? null);
  }
  const spots: Spot[] = [];
  /** Where a table's own lines end. */
  const ends = new Map<string, number>();
  const walk = (node: AST.TOMLContentNode, path: string[]) => {
    if (node.type === "TOMLArray") node.elements.forEach((item, at) => walk(item, [...path, String(at)]));
    else if (node.type === "TOMLInlineTable") node.body.forEach((item) => pairOf(item, path));
    else {
      const date = /date|time/.test(node.kind);
      const own: unknown = node.value;
      spots.push({
        path,
        value: date ? text.slice(...node.range) : typeof own === "bigint" ? Number(own) : (own as ConfigValue),
        start: node.range[0],
        end: node.range[1],
        line: node.loc.start.line,
        ...(node.kind === "string" && node.multiline ? { fixed: "it is a text of several lines" } : {}),
      });
    }
  };
  const pairOf = ({ key, value }: AST.TOMLKeyValue, path: string[]) =>
    walk(value, [...path, ...key.keys.map(nameOf)]);
  const lineAfter = (offset: number) => {
    const stop = text.indexOf("\n", offset);
    return stop < 0 ? text.length : stop + 1;
  };
  const [top] = tree.body;
  ends.set("", 0);
  for (const node of top.body) {
    if (node.type === "TOMLKeyValue") {
      pairOf(node, []);
      ends.set("", lineAfter(node.range[1]));
    } else {
      const path = node.resolvedKey.map(String);
      const closing = text.indexOf("]", node.key.range[1]);
      ends.set(path.join("\0"), lineAfter(closing));
      for (const pair of node.body) {
        pairOf(pair, path);
        ends.set(path.join("\0"), lineAfter(pair.range[1]));
      }
    }
  }
  const plain = (value: ConfigValue): string => {
    if (value === null) throw new ConfigProblem("TOML has no empty value");
    return typeof value === "string" ? JSON.stringify(value) : String(value);
  };
  return {
    spots,
    written: ({ start, line }, value) => {
      const quote = text[start] ?? "";
      if (quote === "'") {
        if (String(value).includes("'"))
          throw new ConfigProblem("the value holds the quote that it stands in", line);
        return `'${String(value)}'`;
      }
      return quote === '"' ? JSON.stringify(String(value)) : plain(value);
    },
    added: (path, value): Edit => {
      const end = lineEnd(text);
      const key = keyText(path.at(-1) ?? ""),
        table = path.slice(0, -1);
      const at = ends.get(table.join("\0"));
      if (at !== undefined) {
        const broken = at > 0 && text[at - 1] !== "\n" ? end : "";
        return { start: at, end: at, text: `${broken}${key} = ${plain(value)}${end}` };
      }
      if (
        spots.some((spot) => spot.path.length > table.length && table.every((part, k) => spot.path[k] === part))
      )
        throw new ConfigProblem(`“${path.join("/")}” can't be added to a table in braces or an array`);
      const opening = text === "" ? "" : `${text.endsWith("\n") ? "" : end}${end}`;
      return {
        start: text.length,
        end: text.length,
        text: `${opening}[${table.map(keyText).join(".")}]${end}${key} = ${plain(value)}${end}`,
      };
    },
  };
}
