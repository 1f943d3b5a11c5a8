import type { Floats } from "@/core/trace";
import { defaultMeasuring, type MeasuringRules } from "./rules";

export interface Hitch {
  /** Index of the frame. */
  index: number;
  /** When the frame began, ms from the start. */
  startMs: number;
  /** How long the frame was, and by how much it exceeded the frames around it. */
  frameMs: number;
  lostMs: number;
}

/** Keeps a window of values sorted as it slides, for running medians. */
class SortedWindow {
  private readonly values: Float64Array;
  private size = 0;

  constructor(capacity: number) {
    this.values = new Float64Array(capacity);
  }

  private placeOf(value: number): number {
    let low = 0,
      high = this.size;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.values[middle] < value) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  add(value: number): void {
    const place = this.placeOf(value);
    for (let i = this.size++; i > place; i--) this.values[i] = this.values[i - 1];
    this.values[place] = value;
  }

  remove(value: number): void {
    const place = this.placeOf(value);
    this.size--;
    for (let i = place; i < this.size; i++) this.values[i] = this.values[i + 1];
  }

  /** Adds one and removes one by moving only what lies between them. */
  replace(old: number, value: number): void {
    const { values } = this;
    let place = this.placeOf(old);
    if (value >= old) {
      while (place + 1 < this.size && values[place + 1] < value) values[place] = values[++place];
    } else {
      while (place > 0 && values[place - 1] > value) values[place] = values[--place];
    }
    values[place] = value;
  }

  median(): number {
    const half = this.size >> 1;
    return this.size % 2 === 1 ? this.values[half] : (this.values[half - 1] + this.values[half]) / 2;
  }
}

/**
 * Frames that stick out from those around them: longer than `hitchFactor` times, and by `hitchExtraMs` more
 * than, the running median of the `hitchNeighbours` frames around (fewer at the ends).
 *
 * @param frameTimes ms, all > 0; length N
 */
export function hitches(frameTimes: Floats, rules: MeasuringRules = defaultMeasuring): Hitch[] {
  const n = frameTimes.length;
  const reach = rules.hitchNeighbours >> 1;
  const window = new SortedWindow(2 * reach + 2);
  const found: Hitch[] = [];
  for (let i = 0; i < Math.min(reach, n); i++) window.add(frameTimes[i]);
  let startMs = 0;
  for (let i = 0; i < n; i++) {
    const entering = i + reach < n,
      leaving = i - reach > 0;
    if (entering && leaving) window.replace(frameTimes[i - reach - 1], frameTimes[i + reach]);
    else if (entering) window.add(frameTimes[i + reach]);
    else if (leaving) window.remove(frameTimes[i - reach - 1]);
    const frameMs = frameTimes[i];
    const median = window.median();
    if (frameMs > rules.hitchFactor * median && frameMs > median + rules.hitchExtraMs)
      found.push({ index: i, startMs, frameMs, lostMs: frameMs - median });
    startMs += frameMs;
  }
  return found;
}

/** Frames of at least `freezeMs`. */
export function freezeCount(frameTimes: Floats, rules: MeasuringRules = defaultMeasuring): number {
  let count = 0;
  for (let i = 0; i < frameTimes.length; i++) if (frameTimes[i] >= rules.freezeMs) count++;
  return count;
}
