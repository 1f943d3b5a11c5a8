import type { Read, ReadingKind } from "@/core/metrics";

/** A number read off a screen. */
export interface TallyReading extends Read {
  /** What it was taken for, and the number as typed in that unit; absent where it was a rate. */
  kind?: ReadingKind;
  value?: number;
  /** Arm of a trial that was running; 0 outside one. */
  arm: number;
}

/** How many numbers are offered to be tapped whole, two rows of five. */
const offered = 10;

/**
 * Numbers that the next look most likely shows, smallest first: those about the last one, or about the rate that is
 * aimed at before the first.
 */
export function nearReadings(last: number | null, targetFps: number): number[] {
  const target = Math.round(targetFps);
  const middle = Math.round(last ?? target);
  // A counter shows one above a cap at most; what lies above it already isn't held by one.
  const top = Math.max(middle <= target + 1 ? target + 1 : 0, middle);
  const highest = Math.min(middle + offered / 2 - 1, Math.max(top, middle));
  const lowest = Math.max(0, highest - offered + 1);
  return Array.from({ length: offered }, (_, at) => lowest + at);
}

/** Readings of one arm in a row: a run each. */
export function blocksOf(readings: TallyReading[]): { arm: number; readings: Read[] }[] {
  const made: { arm: number; readings: Read[] }[] = [];
  for (const { arm, kind: _kind, value: _value, ...reading } of readings) {
    const last = made.at(-1);
    if (last?.arm === arm) last.readings.push(reading);
    else made.push({ arm, readings: [reading] });
  }
  return made.map(({ arm, readings: own }) => ({
    arm,
    readings: own.map((reading) => ({ ...reading, second: reading.second - (own[0]?.second ?? 0) })),
  }));
}
