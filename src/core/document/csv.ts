import Papa from "papaparse";

/**
 * What a spreadsheet runs as a formula: a cell that begins with = + - @, a tab or a return, or their full-width
 * forms; a signed figure is a figure. Source: OWASP, "CSV Injection" (the list from memory).
 */
const formula = /^(?:[=@\t\r\n＝＋－＠]|[+-](?!\d*\.?\d+$))/;
/** A cell that was made text by the sign that spreadsheets take for it. */
const madeText = /^'(?=[=@\t\r\n＝＋－＠+-])/;

const laidOut = { escapeFormulae: formula, newline: "\n" };

/** One cell as CSV (RFC 4180); what a spreadsheet would run is made text. @example csvCell("=1+1") // → "\"'=1+1\"" */
export const csvCell = (cell: string | number | null): string => Papa.unparse([[cell]], laidOut);

/** Rows as CSV (RFC 4180) with a head; what a spreadsheet would run is made text. */
export function csvOf(columns: string[], rows: (string | number | null)[][]): string {
  const text = Papa.unparse({ fields: columns, data: rows }, laidOut);
  // Without rows the head ends its line already.
  return rows.length === 0 ? text : `${text}\n`;
}

/** A cell's text as it was before `csvCell`. */
export const cellText = (cell: string): string => cell.replace(madeText, "");
