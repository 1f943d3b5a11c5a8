import type { Read, ReadingKind } from "@/core/metrics";

/** A number read off a screen. */
export interface TallyReading extends Read {
  /** What it was taken for, and the number as typed in that unit; absent where it was a rate. */
  kind?: ReadingKind;
  value?: number;
  /** Arm of a trial that was running; 0 outside one. */
  arm: number;
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
