import {
  findNodeAtLocation,
  modify,
  parseTree,
  printParseErrorCode,
  type Node,
  type ParseError,
} from "jsonc-parser";
import {
  ConfigProblem,
  linesOf,
  lineEnd,
  type ConfigValue,
  type Edit,
  type FileLayout,
  type Spot,
} from "./types";

/** JSON, with comments and trailing commas or without. */
export function jsonLayout(text: string): FileLayout {
  const lineAt = linesOf(text);
  const errors: ParseError[] = [];
  const root = parseTree(text, errors, { allowTrailingComma: true });
  const [error] = errors;
  if (error || !root)
    throw new ConfigProblem(
      `no JSON (${error ? printParseErrorCode(error.error) : "empty"})`,
      error ? lineAt(error.offset) : null,
    );
  const spots: Spot[] = [];
  const walk = (node: Node, path: string[]) => {
    if (node.type === "object")
      for (const property of node.children ?? []) {
        const [key, value] = property.children ?? [];
        if (key && value) walk(value, [...path, String(key.value)]);
      }
    else if (node.type === "array") node.children?.forEach((item, at) => walk(item, [...path, String(at)]));
    else
      spots.push({
        path,
        value: node.value as ConfigValue,
        start: node.offset,
        end: node.offset + node.length,
        line: lineAt(node.offset),
      });
  };
  walk(root, []);
  const indent = /\n([ \t]+)\S/.exec(text)?.[1] ?? "  ";
  return {
    spots,
    written: (_spot, value) => JSON.stringify(value),
    added: (path, value): Edit => {
      const parent = findNodeAtLocation(root, path.slice(0, -1));
      const last = parent?.type === "object" ? parent.children?.at(-1) : undefined;
      if (last && !findNodeAtLocation(root, path)) {
        // After the last of its object, as that one stands; several of them stand one after the other.
        const at = last.offset + last.length;
        const before = /(?:\r?\n)[ \t]*$/.exec(text.slice(0, last.offset))?.[0] ?? " ";
        const own = `,${before}${JSON.stringify(path.at(-1))}: ${JSON.stringify(value)}`;
        return { start: at, end: at, text: own };
      }
      const made = modify(text, path, value, {
        formattingOptions: {
          insertSpaces: !indent.startsWith("\t"),
          tabSize: indent.startsWith("\t") ? 1 : indent.length,
          eol: lineEnd(text),
        },
      });
      const [edit] = made;
      if (!edit || made.length > 1) throw new ConfigProblem(`“${path.join("/")}” can't be added here`);
      return { start: edit.offset, end: edit.offset + edit.length, text: edit.content };
    },
  };
}
