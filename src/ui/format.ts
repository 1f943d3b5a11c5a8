import { format, formatDistanceStrict, formatDistanceToNowStrict } from "date-fns";

const none = "–";

/** A number with so many digits after the point; a dash where there is none. */
export function number(value: number | null | undefined, digits = 1): string {
  return value === null || value === undefined || !Number.isFinite(value)
    ? none
    : value.toLocaleString("en-GB", { minimumFractionDigits: digits, maximumFractionDigits: digits });
}

/** A number with its unit; a dash alone where there is none. */
export const measure = (value: number | null | undefined, unit: string, digits = 1): string =>
  value === null || value === undefined || !Number.isFinite(value) ? none : `${number(value, digits)} ${unit}`;

/** A number with as many digits as it needs, at most so many: 60, 59.94. */
export const plain = (value: number, most = 2): string =>
  value.toLocaleString("en-GB", { maximumFractionDigits: most, useGrouping: false });

/** What a text field holds as a number, a decimal comma too; NaN where it holds none. */
export const numberIn = (text: string): number =>
  text.trim() === "" ? Number.NaN : Number(text.replace(",", "."));

/** How long something lasts, roughly: 40 seconds, 7 minutes, 2 hours. */
export const lasting = (ms: number): string => formatDistanceStrict(0, ms);

/** Milliseconds as a clock: 1:05.2, or 12.30 s when short. */
export function clock(ms: number): string {
  if (ms < 60_000) return `${(ms / 1000).toFixed(ms < 10_000 ? 2 : 1)} s`;
  const minutes = Math.floor(ms / 60_000);
  return `${minutes}:${((ms - minutes * 60_000) / 1000).toFixed(1).padStart(4, "0")}`;
}

export function dateTime(when: Date | string): string {
  return format(new Date(when), "d MMM yyyy, HH:mm");
}

export function ago(when: Date | string): string {
  return formatDistanceToNowStrict(new Date(when), { addSuffix: true });
}

/** "1 run", "3 runs". */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n.toLocaleString("en-GB")} ${n === 1 ? one : many}`;
}
