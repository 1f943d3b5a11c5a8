/** A table of a document that leaves the application. */
export interface DocumentTable {
  name: string;
  columns: string[];
  rows: (string | number | null)[][];
}

const entities: Record<string, string> = {
  "&": "&amp;",
  "<": "&lt;",
  ">": "&gt;",
  '"': "&quot;",
  "'": "&#39;",
};

/** Text that no page reads as its own. */
export const escapeHtml = (text: string) => text.replace(/[&<>"']/g, (sign) => entities[sign] ?? sign);

/** Text without the signs that Markdown would read as its own, in one line. */
export const escapeMarkdown = (text: string) =>
  text.replace(/[\\`*_{}[\]<>#|~!]/g, "\\$&").replace(/\r?\n/g, " ");

const units = "(?:%|°C|GB|MB|kB|MHz|GHz|Hz|Wh?|fps|ms|s|min|h|px)(?![A-Za-z])";
const unitAfterFigure = new RegExp(`(?<=\\d) (?=${units})`, "g");
/** The space before a unit that a text begins with. */
export const unitFirst = new RegExp(`^ (?=${units})`);

/** A figure never leaves its unit at a line's end: the space between is one that isn't broken. */
export const unbroken = (text: string) => text.replace(unitAfterFigure, "\u00a0");

/** The look of a page that needs nothing but itself: both themes, and black on white in print. */
export const pageStyle = `
:root{color-scheme:dark light;--ground:#1d151f;--panel:#2a1f2d;--text:#efe6d8;--soft:#b9a9b4;--line:#4a3a4e;--lit:#f0a63c}
@media (prefers-color-scheme: light){:root{--ground:#f6f0e4;--panel:#fffaf0;--text:#2a1830;--soft:#6a5868;--line:#d9cdbd;--lit:#9a5a00}}
@media print{:root{--ground:#fff;--panel:#fff;--text:#000;--soft:#333;--line:#999;--lit:#000}}
body{margin:0 auto;max-width:60rem;padding:2rem 1.25rem;background:var(--ground);color:var(--text);font:16px/1.5 system-ui,sans-serif;overflow-wrap:anywhere}
h1{font-size:1.6rem;margin:0 0 .25rem}h2{font-size:1.05rem;margin:1.75rem 0 .5rem;color:var(--lit)}
ul{margin:0;padding-left:1.2rem}.frame{overflow-x:auto}table{border-collapse:collapse;width:100%;font-size:.9rem}
th,td{border-bottom:1px solid var(--line);padding:.35rem .5rem;text-align:left;vertical-align:top;overflow-wrap:break-word}th{color:var(--soft);font-weight:400}
p{color:var(--soft);margin:0}`;

const textOf = (cell: string | number | null) => (cell === null ? "" : String(cell));

/** A table as HTML that scrolls in its own frame. @param head what stands in a column's head, as HTML */
export function htmlTable({ name, columns, rows }: DocumentTable, head = escapeHtml): string {
  const heads = columns.map((column) => `<th scope="col">${head(column)}</th>`).join("");
  const cell = (value: string | number | null) =>
    `<td${typeof value === "number" ? ' class="figure"' : ' dir="auto"'}>${escapeHtml(unbroken(textOf(value)))}</td>`;
  const body = rows.map((row) => `<tr>${row.map(cell).join("")}</tr>`).join("");
  return `<div class="frame" tabindex="0" role="region" aria-label="${escapeHtml(name)}"><table><thead><tr>${heads}</tr></thead><tbody>${body}</tbody></table></div>`;
}

/** A table as GitHub-flavoured Markdown. */
export function markdownTable({ columns, rows }: DocumentTable): string {
  const line = (cells: string[]) => `| ${cells.join(" | ")} |`;
  return [
    line(columns.map(escapeMarkdown)),
    line(columns.map(() => "---")),
    ...rows.map((row) => line(row.map((cell) => escapeMarkdown(textOf(cell))))),
  ].join("\n");
}
