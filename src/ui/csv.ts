/** Hands a file to the browser's downloads. */
export function download(name: string, content: Blob | string, type = "text/csv;charset=utf-8"): void {
  const url = URL.createObjectURL(typeof content === "string" ? new Blob([content], { type }) : content);
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A name that any file system takes. @example fileNameOf("Frame time, run 3") // → "frame-time-run-3" */
export const fileNameOf = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 80) || "file";

/**
 * What a table shows, as its heads and the text of its cells; cells without text in their head are left out.
 */
export function tableText(table: HTMLTableElement): { columns: string[]; rows: string[][] } {
  const textOf = (cell: Element) => (cell.textContent ?? "").replace(/\s+/g, " ").trim();
  const heads = [...table.querySelectorAll("thead th")].map(textOf);
  const kept = heads.flatMap((head, at) => (head === "" ? [] : [at]));
  const rows = [...table.querySelectorAll("tbody tr")].map((row) => [...row.children].map(textOf));
  return {
    columns: kept.map((at) => heads[at] ?? ""),
    rows: rows.map((cells) => kept.map((at) => cells[at] ?? "")),
  };
}
