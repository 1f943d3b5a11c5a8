/** A cell's number; NaN when the cell holds none. `nonFinite` tells "NaN" and "inf" from mere text. */
const withUnit =
  /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*(?:%|[°\uFFFD]?[CF]|[mµμun]?s|sec|fps|[kmg]?hz|m?[wva]|mah|[kmg]?i?b|rpm)\s*$/i;
/** What a script would take for a number and no log means as one: "0x10". */
const otherBase = /^\s*0[xob]/i;
const nonFiniteWord = /^\s*[-+]?(?:nan|inf|infinity|1\.#\w+)\s*$/i;
const clock =
  /^\s*(?:(\d{4}-\d{2}-\d{2})[T ])?(\d{1,3}):(\d{2}):(\d{2}(?:[.,]\d+)?)\s*(?:Z|[-+]\d{2}:?\d{2})?\s*$/;

export function isNonFiniteWord(cell: string): boolean {
  return nonFiniteWord.test(cell);
}

/** Whether it begins with a digit from 1 to 9: no blank, and no other base. */
function beginsPlainly(text: string): boolean {
  const first = text.charCodeAt(0);
  return first >= 49 && first <= 57;
}

/** "12.5", " 45 °C", "16,67" (with `decimalComma`) → number; text and empty cells → NaN. */
export function numberIn(cell: string | undefined, decimalComma: boolean): number {
  if (cell === undefined || cell.length === 0) return NaN;
  const text = decimalComma && cell.includes(",") ? cell.replace(",", ".") : cell;
  const plain = +text;
  // Blanks alone read as 0; anything else that reads as a decimal number is one.
  if (plain === plain) {
    if (plain % 1 !== 0 || beginsPlainly(text)) return plain;
    return text.trim() === "" || otherBase.test(text) ? NaN : plain;
  }
  const found = withUnit.exec(text);
  return found ? Number(found[1]) : NaN;
}

/** "2026-11-24T10:00:01.5" or "10:00:01,5" → ms since that day's (or the epoch's) start; else NaN. */
export function clockIn(cell: string | undefined): number {
  const found = cell === undefined ? null : clock.exec(cell);
  if (!found) return NaN;
  const [, day, hours, minutes, seconds] = found;
  const dayMs = day ? Date.parse(`${day}T00:00:00Z`) : 0;
  return dayMs + (Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds.replace(",", "."))) * 1000;
}

/**
 * Whether a cell holds a figure, however it is written: a number, a moment of a clock, or a word for a number
 * that isn't finite.
 */
export const isValue = (cell: string): boolean =>
  isNonFiniteWord(cell) || !Number.isNaN(numberIn(cell, true)) || !Number.isNaN(clockIn(cell));
