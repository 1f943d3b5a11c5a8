import { ticks } from "d3-array";

/** A linear scale: where a value stands, what value stands somewhere, and round values along it. */
export interface Linear {
  (value: number): number;
  invert: (place: number) => number;
  ticks: (count: number) => number[];
}

/**
 * Values from `domain` laid out over `range`, px; a domain without width lies at the start.
 * @example linear([0, 10], [44, 144])(5) // → 94
 */
export function linear([from, to]: readonly [number, number], [start, end]: readonly [number, number]): Linear {
  const scale = to === from ? 0 : (end - start) / (to - from);
  return Object.assign((value: number) => start + (value - from) * scale, {
    invert: (place: number) => (scale === 0 ? from : from + (place - start) / scale),
    ticks: (count: number) => ticks(from, to, count),
  });
}
