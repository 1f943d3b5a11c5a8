/** Figures as they stand in sentences. */
import type { Ratio } from "@/core/said";

const minus = (negative: boolean) => (negative ? "−" : "");

/** @example signed(1.05) // → "+5.0 %" */
export const signed = (ratio: number, digits = 1) =>
  `${ratio >= 1 ? "+" : "−"}${Math.abs(100 * (ratio - 1)).toFixed(digits)} %`;

/** An interval of no width says nothing, and isn't said. @example effect({ ratio: 1.05, low: 1.02, high: 1.08 }) // → "+5.0 % (95 %: +2.0 % to +8.0 %)" */
export const effect = ({ ratio, low, high }: Ratio) =>
  signed(low) === signed(high) ? signed(ratio) : `${signed(ratio)} (95 %: ${signed(low)} to ${signed(high)})`;

/** A rate with two digits where it isn't whole. @example rate(59.94) // → "59.94" */
export const rateWords = (fps: number) => fps.toFixed(fps % 1 ? 2 : 0);

/** What isn't the whole is never written as 100 %. @example share(0.876) // → "88 %", share(0.998) → "99.8 %" */
export const share = (part: number) =>
  part > 0.985 && part < 1
    ? `${(Math.floor(1000 * part + 1e-9) / 10).toFixed(1)} %`
    : `${(100 * part).toFixed(0)} %`;

/** A chance as people say it. @example outOfTen(0.72) // → "7 in 10" */
export const outOfTen = (chance: number) =>
  chance >= 0.95 ? "over 9 in 10" : chance < 0.05 ? "under 1 in 10" : `${Math.round(10 * chance)} in 10`;

/** A log gain as a change. @example gain(0.1) // → "11 %" */
export const gain = (log: number) => `${minus(log < 0)}${Math.abs(100 * (Math.exp(log) - 1)).toFixed(0)} %`;

/** @example count(2, "run") // → "2 runs" */
export const count = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

/** Minutes, whole where they are. @example minutes(10) // → "10 min" */
export const minutes = (n: number) => `${n % 1 < 0.05 || n % 1 > 0.95 ? n.toFixed(0) : n.toFixed(1)} min`;

export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
export const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);
/** @example listed(["A", "B", "C"]) // → "A, B and C" */
export const listed = (names: string[]) =>
  names.length < 2 ? names.join("") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;

/** An arm inside a sentence; the one that changes nothing has no name of its own there. */
export const armWords = (name: string) => (name === "as it is" ? "things as they are" : name);

/** A figure with a true minus. @example figure(-1.06) // → "−1.1" */
export const figure = (n: number, digits = 1) => `${minus(n < 0)}${Math.abs(n).toFixed(digits)}`;
