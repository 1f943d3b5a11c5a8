import { buildAst, type XMLElement } from "@xml-tools/ast";
import { parse } from "@xml-tools/parser";
import { ConfigProblem, linesOf, type ConfigValue, type Edit, type Layout, type Spot } from "./types";

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
export function xmlLayout(text: string): Layout {
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
  const walk = (element: XMLElement, before: string[]) => {
    const path = [...before, element.name ?? ""];
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
    const open = element.syntax.openBody?.endOffset ?? null,
      close = element.syntax.closeBody?.startOffset ?? null;
    const opening = open === null ? -1 : text.indexOf(">", open);
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
    added: (path): Edit => {
      throw new ConfigProblem(
        `“${path.join("/")}” isn't there, and an element isn't added without knowing where`,
      );
    },
  };
}
