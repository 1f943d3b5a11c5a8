import { buildAst, type XMLElement } from "@xml-tools/ast";
import { parse } from "@xml-tools/parser";
import { ConfigProblem, linesOf, type ConfigValue, type Edit, type FileLayout, type Spot } from "./types";

const entities: Record<string, string> = { lt: "<", gt: ">", amp: "&", quot: '"', apos: "'" };

/** The five entities that every XML has, and characters by number; others stay as they are written. */
const decoded = (text: string) =>
  text.replace(/&(?:#x([0-9a-f]+)|#(\d+)|(\w+));/gi, (whole, hex?: string, decimal?: string, name?: string) => {
    const code = hex ? parseInt(hex, 16) : decimal ? Number(decimal) : null;
    if (code !== null) return code <= 0x10ffff ? String.fromCodePoint(code) : whole;
    return Object.hasOwn(entities, name ?? "") ? (entities[name ?? ""] ?? whole) : whole;
  });
const encoded = (text: string) => text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;");

/** XML: the text of elements that hold no others, and attributes. */
export function xmlLayout(text: string): FileLayout {
  const lineAt = linesOf(text);
  // Declared entities may stand for anything, themselves included: a config file needs none.
  const doctype = /<!DOCTYPE/i.exec(text);
  if (doctype) throw new ConfigProblem("a document type with entities isn't read", lineAt(doctype.index));
  const { cst, tokenVector, lexErrors, parseErrors } = parse(text);
  const [error] = parseErrors;
  const wrong = error?.token.startOffset;
  if (error || lexErrors.length > 0)
    throw new ConfigProblem(
      "no XML",
      lineAt(wrong !== undefined && Number.isFinite(wrong) ? wrong : (lexErrors[0]?.offset ?? 0)),
    );
  const { rootElement } = buildAst(cst as Parameters<typeof buildAst>[0], tokenVector);
  if (!rootElement) throw new ConfigProblem("no XML");
  const spots: Spot[] = [];
  const elements: { path: string; element: XMLElement }[] = [];
  const walk = (element: XMLElement, before: string[]) => {
    const path = [...before, element.name ?? ""];
    elements.push({ path: path.join("/"), element });
    for (const { key, syntax } of element.attributes) {
      const value = syntax.value;
      if (!value || key === null) continue;
      spots.push({
        path: [...path, key],
        value: decoded(text.slice(value.startOffset + 1, value.endOffset)),
        start: value.startOffset + 1,
        end: value.endOffset,
        line: lineAt(value.startOffset),
      });
    }
    if (element.subElements.length > 0) {
      for (const child of element.subElements) walk(child, path);
      return;
    }
    const close = element.syntax.closeBody?.startOffset ?? null;
    const opening = openingEnd(text, element);
    const from = opening + 1,
      to = close === null ? from : text.lastIndexOf("</", close);
    if (opening < 0 || to < from || close === null) return;
    const inner = text.slice(from, to);
    // The blanks round a text are its layout, not its value.
    const lead = /^\s*/.exec(inner)?.[0].length ?? 0,
      tail = inner.trim() === "" ? 0 : (/\s*$/.exec(inner)?.[0].length ?? 0);
    const start = inner.trim() === "" ? from : from + lead;
    spots.push({
      path,
      value: decoded(inner.trim()),
      start,
      end: inner.trim() === "" ? to : to - tail,
      line: lineAt(start),
      ...(/<!/.test(inner) ? { fixed: "a comment or a block stands in it" } : {}),
    });
  };
  walk(rootElement, []);
  return {
    spots,
    written: ({ start }, value: ConfigValue) => {
      const own = encoded(value === null ? "" : String(value));
      const quote = text[start - 1];
      if (quote !== '"' && quote !== "'") return own;
      return own.replaceAll(quote, quote === '"' ? "&quot;" : "&apos;");
    },
    added: (path, value): Edit => added(text, elements, path, encoded(value === null ? "" : String(value))),
  };
}

/**
 * Where an element's opening tag ends, at its sign; -1 where it can't be told. A sign inside an attribute is
 * none.
 */
function openingEnd(text: string, { syntax, attributes }: XMLElement): number {
  const name = syntax.openBody?.endOffset ?? syntax.openName?.endOffset ?? null;
  if (name === null) return -1;
  const last = attributes.reduce((end, { syntax: own }) => Math.max(end, own.value?.endOffset ?? 0), name);
  return text.indexOf(">", last);
}

/**
 * An element, or an attribute where the parent holds its values so, in the style of its neighbours. @throws
 * ConfigProblem
 */
function added(
  text: string,
  elements: { path: string; element: XMLElement }[],
  path: string[],
  value: string,
): Edit {
  const name = path.at(-1) ?? "",
    within = path.slice(0, -1).join("/");
  const problem = (why: string) =>
    new ConfigProblem(`“${path.join("/")}” isn't there and can't be added: ${why}`);
  if (!/^[A-Za-z_][\w.-]*$/.test(name)) throw problem("that is no name of an element");
  const [parent, second] = elements.filter((one) => one.path === within);
  if (!parent) throw problem(within === "" ? "a file has one outermost element" : `there is no “${within}”`);
  if (second) throw problem(`“${within}” stands more than once`);
  const { subElements, attributes } = parent.element;
  const opening = openingEnd(text, parent.element);
  const lastChild = subElements.at(-1);
  if (!lastChild) {
    const inner = text.slice(opening + 1, text.indexOf("<", opening + 1));
    const isClosed = text[opening - 1] === "/";
    if (attributes.length > 0 && (isClosed || inner.trim() === "")) {
      const at = (attributes.at(-1)?.syntax.value?.endOffset ?? opening - 1) + 1;
      return { start: at, end: at, text: ` ${name}="${value.replaceAll('"', "&quot;")}"` };
    }
    throw problem(
      inner.trim() === ""
        ? `whether “${within}” holds a text or elements can't be told`
        : `“${within}” holds a text`,
    );
  }
  const end = lastChild.position.endOffset + 1,
    start = lastChild.position.startOffset;
  const blank = /(\r?\n[ \t]*)$/.exec(text.slice(0, start))?.[1] ?? "";
  return { start: end, end, text: `${blank}<${name}>${value}</${name}>` };
}
