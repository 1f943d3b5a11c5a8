"use client";
import { useEffect, type RefObject } from "react";

/**
 * Names every cell of a table by its column, where a row is drawn as a card: the name stands before the value. Roles are
 * said aloud, since a browser takes a table that isn't laid out as one for plain text.
 */
export function useCellNames(frame: RefObject<HTMLElement | null>, wanted: boolean): void {
  useEffect(() => {
    if (!wanted) return;
    const table = frame.current?.querySelector("table");
    if (!table) return;
    const heads = [...table.querySelectorAll("thead th")].map((head) => head.textContent.trim());
    table.setAttribute("role", "table");
    for (const group of table.querySelectorAll("thead, tbody")) group.setAttribute("role", "rowgroup");
    for (const row of table.querySelectorAll("tr")) {
      row.setAttribute("role", "row");
      let column = 0;
      for (const cell of row.querySelectorAll<HTMLTableCellElement>(":scope > th, :scope > td")) {
        const isHead = cell.closest("thead") !== null;
        cell.setAttribute("role", isHead ? "columnheader" : cell.tagName === "TH" ? "rowheader" : "cell");
        if (!isHead && cell.colSpan === 1) cell.dataset.name = heads[column] ?? "";
        column += cell.colSpan;
      }
    }
  });
}
