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
export const typedNumber = (text: string): number =>
  text.trim() === "" ? Number.NaN : Number(text.replace(",", "."));

/** Units of a duration, the longest first, ms. */
const units = [
  { unit: "year", ms: 365 * 86_400_000 },
  { unit: "month", ms: 30 * 86_400_000 },
  { unit: "day", ms: 86_400_000 },
  { unit: "hour", ms: 3_600_000 },
  { unit: "minute", ms: 60_000 },
] as const;
const second = { unit: "second", ms: 1000 } as const;

/**
 * How long something lasts, roughly: 40 seconds, 7 minutes, 2 hours. The browser's own words for units: a library
 * for dates brings 7 kB to every page.
 */
export function lasting(ms: number): string {
  const { unit, ms: one } = units.find((each) => Math.abs(ms) >= each.ms) ?? second;
  const many = Math.round(Math.abs(ms) / one);
  return new Intl.NumberFormat("en-GB", { style: "unit", unit, unitDisplay: "long" }).format(many);
}

/** Milliseconds as a clock: 1:05.2, or 12.30 s when short. */
export function clock(ms: number): string {
  if (ms < 60_000) return `${(ms / 1000).toFixed(ms < 10_000 ? 2 : 1)} s`;
  const minutes = Math.floor(ms / 60_000);
  return `${minutes}:${((ms - minutes * 60_000) / 1000).toFixed(1).padStart(4, "0")}`;
}

const moment = new Intl.DateTimeFormat("en-GB", {
  day: "numeric",
  month: "short",
  year: "numeric",
  hour: "2-digit",
  minute: "2-digit",
  hour12: false,
});

/** A moment by the reader's own clock. @example dateTime(new Date(2026, 10, 24, 9, 5)) // → "24 Nov 2026, 09:05" */
export const dateTime = (when: Date | string): string => moment.format(new Date(when));

/** How long ago, or in how long. @example ago(new Date(Date.now() - 3 * 86_400_000)) // → "3 days ago" */
export function ago(when: Date | string): string {
  const ms = Date.now() - new Date(when).getTime();
  return ms < 0 ? `in ${lasting(ms)}` : `${lasting(ms)} ago`;
}

/** "1 run", "3 runs". */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n.toLocaleString("en-GB")} ${n === 1 ? one : many}`;
}
