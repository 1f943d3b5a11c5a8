/** A number read off a screen. */
export interface TallyReading {
  fps: number;
  /** Since the first reading. */
  second: number;
  scene: string;
  /** Arm of a trial that was running; 0 outside one. */
  arm: number;
}

/** Readings of one arm in a row: a run each. */
export function blocksOf(readings: TallyReading[]): { arm: number; readings: Omit<TallyReading, "arm">[] }[] {
  const made: { arm: number; readings: Omit<TallyReading, "arm">[] }[] = [];
  for (const { arm, ...reading } of readings) {
    const last = made.at(-1);
    if (last?.arm === arm) last.readings.push(reading);
    else made.push({ arm, readings: [reading] });
  }
  return made.map(({ arm, readings: own }) => ({
    arm,
    readings: own.map((reading) => ({ ...reading, second: reading.second - (own[0]?.second ?? 0) })),
  }));
}
