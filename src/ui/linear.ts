/** A linear scale: where a value stands, what value stands somewhere, and round values along it. */
export interface Linear {
  (value: number): number;
  invert: (place: number) => number;
  ticks: (count: number) => number[];
}

/**
 * Round values from one to another, about so many: steps of 1, 2 or 5 times a power of ten, the nearest to what is
 * asked for by ratio. The same as d3-array's, which brings 7 kB to every page with a chart.
 */
function ticks(from: number, to: number, count: number): number[] {
  if (!(to > from) || !(count > 0)) return to === from ? [from] : [];
  const wanted = (to - from) / count;
  const power = 10 ** Math.floor(Math.log10(wanted));
  const over = wanted / power;
  // Between two steps, the change is at their geometric mean.
  const step = power * (over >= Math.sqrt(50) ? 10 : over >= Math.sqrt(10) ? 5 : over >= Math.sqrt(2) ? 2 : 1);
  const first = Math.ceil(from / step);
  const last = Math.floor(to / step);
  // Divided by the step's inverse where it is under one: 3 / 10 is 0.3, 3 × 0.1 isn't.
  const inverse = step < 1 ? Math.round(1 / step) : null;
  return Array.from({ length: last - first + 1 }, (_, at) =>
    inverse ? (first + at) / inverse : (first + at) * step,
  );
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
