import { isAlias, isMap, isScalar, isSeq, parseAllDocuments, type Node, type Pair, type YAMLMap } from "yaml";
import {
  ConfigProblem,
  linesOf,
  lineEnd,
  type ConfigValue,
  type Edit,
  type FileLayout,
  type Spot,
} from "./types";

/** What YAML would take for something else than the text it is, or can't hold unquoted. */
const needsQuotes = (text: string) =>
  text === "" ||
  /^[\s!&*?|>@`"'%#{}[\],-]/.test(text) ||
  /[:#]\s|:$|\s#|\s$|[\r\n\t]/.test(text) ||
  /^(true|false|null|yes|no|on|off|~|[-+.\d].*)$/i.test(text);

/** YAML, one document. */
export function yamlLayout(text: string): FileLayout {
  const lineAt = linesOf(text);
  const documents = parseAllDocuments(text, { uniqueKeys: false });
  const [document] = "empty" in documents ? [] : documents;
  const error = document?.errors[0];
  if (error)
    throw new ConfigProblem(error.message.split("\n")[0] ?? "no YAML", error.linePos?.[0].line ?? null);
  if ("length" in documents && documents.length > 1)
    throw new ConfigProblem("a file of several documents isn't patched");
  const spots: Spot[] = [];
  const maps = new Map<string, YAMLMap>();
  const keyOf = ({ key }: Pair) => (isScalar(key) ? String(key.value) : "");
  const walk = (node: Node | null, path: string[], after: number) => {
    if (isMap(node)) {
      maps.set(path.join("\0"), node);
      for (const item of node.items) {
        const end = (item.key as Node).range?.[1] ?? after;
        walk(item.value as Node | null, [...path, keyOf(item)], end);
      }
    } else if (isSeq(node)) node.items.forEach((item, at) => walk(item as Node, [...path, String(at)], after));
    else {
      const [start, end] = node?.range ?? [after, after];
      const raw = text.slice(start, end);
      spots.push({
        path,
        value: isScalar(node) ? (node.value as ConfigValue) : null,
        start,
        end,
        line: lineAt(start),
        ...(isAlias(node)
          ? { fixed: "it is an alias of another value" }
          : /^[|>]/.test(raw)
            ? { fixed: "it is a block of text" }
            : raw === ""
              ? { fixed: "it has no value yet" }
              : {}),
      });
    }
  };
  walk((document?.contents as Node | null) ?? null, [], 0);
  const scalar = (value: ConfigValue, quote = ""): string => {
    if (typeof value !== "string") return String(value);
    if (quote === "'") return `'${value.replaceAll("'", "''")}'`;
    return quote === '"' || needsQuotes(value) ? JSON.stringify(value) : value;
  };
  return {
    spots,
    written: ({ start }, value) => {
      const first = text[start] ?? "";
      // A text in quotes stays one; what was bare becomes what it is now.
      return first === '"' || first === "'" ? scalar(String(value), first) : scalar(value);
    },
    added: (path, value): Edit => {
      const end = lineEnd(text);
      let depth = path.length - 1;
      while (depth > 0 && !maps.has(path.slice(0, depth).join("\0"))) depth--;
      const map = maps.get(path.slice(0, depth).join("\0"));
      const rest = path.slice(depth);
      const lines = (column: number) =>
        rest
          .map((key, at) => {
            const name = needsQuotes(key) ? JSON.stringify(key) : key;
            return `${" ".repeat(column + 2 * at)}${name}:${at === rest.length - 1 ? ` ${scalar(value)}` : ""}`;
          })
          .join(end);
      if (!map) {
        if (spots.some((spot) => spot.path.length > 0))
          throw new ConfigProblem(`“${path.join("/")}” can't be added here`);
        return {
          start: text.length,
          end: text.length,
          text: `${text === "" || text.endsWith("\n") ? "" : end}${lines(0)}${end}`,
        };
      }
      if (map.flow || map.items.length === 0)
        throw new ConfigProblem("a map in braces isn't added to", lineAt(map.range?.[0] ?? 0));
      const first = (map.items[0]?.key as Node).range?.[0] ?? 0;
      const column = first - (text.lastIndexOf("\n", first - 1) + 1);
      const last = map.items.at(-1);
      const lastNode = (last?.value ?? last?.key) as Node | null;
      const until = Math.max(lastNode?.range?.[1] ?? 0, (last?.key as Node).range?.[1] ?? 0);
      const lineStop = text.indexOf("\n", Math.max(0, until - (text[until - 1] === "\n" ? 1 : 0)));
      const at = lineStop < 0 ? text.length : lineStop + 1;
      return { start: at, end: at, text: `${lineStop < 0 ? end : ""}${lines(column)}${end}` };
    },
  };
}
