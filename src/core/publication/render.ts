import type { PageFonts } from "./shape";
import { escapeHtml, escapeMarkdown, htmlTable, markdownTable, pageStyle } from "@/core/document";
import type { Publication } from "./publication";

/** Sorts a table by the column whose head is pressed: figures as figures, words as words. */
const sorting = `
document.querySelectorAll("table").forEach(function(table){
  table.querySelectorAll("th button").forEach(function(button){
    button.addEventListener("click",function(){
      var head=button.parentNode,at=head.cellIndex,down=head.getAttribute("aria-sort")==="ascending";
      table.querySelectorAll("th").forEach(function(other){other.removeAttribute("aria-sort")});
      head.setAttribute("aria-sort",down?"descending":"ascending");
      var body=table.tBodies[0],rows=Array.prototype.slice.call(body.rows);
      rows.sort(function(a,b){
        var x=a.cells[at].textContent,y=b.cells[at].textContent,m=parseFloat(x),n=parseFloat(y);
        var order=!isNaN(m)&&!isNaN(n)?m-n:x.localeCompare(y);
        return down?-order:order;
      });
      rows.forEach(function(row){body.appendChild(row)});
    });
  });
});`;

/**
 * SHA-256 of that script, by which the page's own policy lets it run and no other; a test holds it to the
 * script.
 */
/** Of the one script that a page of its own runs. */
export const sortingHash = "VgYCu8i7OPKINQj1Rex82ZSZFIm6RV9pEPOoBIXycus=";

const fontFace = (family: string, data: string) =>
  `@font-face{font-family:${family};font-weight:100 900;src:url(data:font/woff2;base64,${data}) format("woff2")}`;

const own = `
body{font-family:Lamp,system-ui,sans-serif}.figure{font-family:LampMono,monospace;white-space:nowrap}
th button{all:unset;cursor:pointer}th button:focus-visible{outline:2px solid var(--lit)}th[aria-sort] button::after{content:" ↑"}th[aria-sort=descending] button::after{content:" ↓"}
dl{display:grid;grid-template-columns:auto 1fr;gap:.15rem 1rem;margin:0;font-size:.9rem}dt{color:var(--soft)}dd{margin:0}
p.said{color:var(--text);font-size:1.1rem}@page{size:A4;margin:14mm}@media print{body{padding:0;max-width:none;font-size:11pt}tr{break-inside:avoid}.frame{overflow:visible}}`;

/**
 * A page of its own: no network, its fonts inside, tables sorted by their heads, both themes, A4 in print.
 * @param sorts false for a preview that may run no script
 */
export function publicationHtml(publication: Publication, fonts: PageFonts, { sorts = true } = {}): string {
  const { name, said, conditions, tables, madeAt, leftOut } = publication;
  const style = `${fontFace("Lamp", fonts.sans)}${fontFace("LampMono", fonts.mono)}${pageStyle}${own}`;
  const policy = `default-src 'none'; style-src 'unsafe-inline'; font-src data:; script-src 'sha256-${sortingHash}'`;
  const button = (column: string) => `<button type="button">${escapeHtml(column)}</button>`;
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="${escapeHtml(policy)}">
<title>${escapeHtml(name)}</title><style>${style}</style></head>
<body><main><h1 dir="auto">${escapeHtml(name)}</h1><p>As of ${escapeHtml(madeAt.slice(0, 10))}</p>
${said.map((sentence) => `<p class="said" dir="auto">${escapeHtml(sentence)}</p>`).join("\n")}
${tables.map((table) => `<section><h2>${escapeHtml(table.name)}</h2>${htmlTable(table, sorts ? button : escapeHtml)}</section>`).join("\n")}
<section><h2>What it rests on</h2><dl>${conditions.map((each) => `<dt>${escapeHtml(each.name)}</dt><dd dir="auto">${escapeHtml(each.value)}</dd>`).join("")}</dl></section>
${leftOut.length > 0 ? `<section><h2>Left out</h2><ul>${leftOut.map((what) => `<li>${escapeHtml(what)}</li>`).join("")}</ul></section>` : ""}
</main>${sorts ? `<script>${sorting}</script>` : ""}</body></html>
`;
}

export function publicationMarkdown({ name, said, conditions, tables, madeAt, leftOut }: Publication): string {
  const parts = [
    `# ${escapeMarkdown(name)}`,
    `As of ${madeAt.slice(0, 10)}`,
    ...said.map(escapeMarkdown),
    ...tables.map((table) => `## ${escapeMarkdown(table.name)}\n\n${markdownTable(table)}`),
    `## What it rests on\n\n${conditions.map((each) => `- ${escapeMarkdown(each.name)}: ${escapeMarkdown(each.value)}`).join("\n")}`,
    ...(leftOut.length > 0
      ? [`## Left out\n\n${leftOut.map((what) => `- ${escapeMarkdown(what)}`).join("\n")}`]
      : []),
  ];
  return `${parts.join("\n\n")}\n`;
}
