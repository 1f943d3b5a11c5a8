/** A running clock in the title's own picture, read at a moment of the video. */
export interface ClockLook {
  atMs: number;
  /** What it shows, s. */
  shows: number;
  /** Its last digit is worth so much, s: that far a reading may lie behind. */
  step: number;
}

/** How fast the title's own time went, 1 for full speed. */
export interface ClockSpeed {
  speed: number;
  low: number;
  high: number;
}

/**
 * A clock's digits: `1:23`, `1:02:03`, `1'23"45`, `83.5`. Parts are hours, minutes, seconds from the left; what
 * follows a point, a comma or the seconds' mark are hundredths or tenths by how many digits there are.
 * @returns null for anything else, and for minutes or seconds above 59 behind a larger part
 */
export function clockOnScreen(text: string): { shows: number; step: number } | null {
  const plain = text.trim().replace(/["”″]/g, ".").replace(/['’′]/g, ":").replace(/\.$/, "");
  const found = /^(?:(\d{1,3}):)?(?:(\d{1,3}):)?(\d{1,6})(?:[.,](\d{1,3}))?$/.exec(plain);
  if (!found) return null;
  const [, first, second, last = "", rest = ""] = found;
  const parts = [first, second].filter((part) => part !== undefined).map(Number);
  if (parts.length > 0 && (last.length > 2 || Number(last) > 59)) return null;
  if (parts.length === 2 && (parts[1] ?? 0) > 59) return null;
  const step = 10 ** -rest.length;
  const whole = [...parts, Number(last)].reduce((sum, part) => 60 * sum + part, 0);
  return { shows: whole + Number(`0.${rest || 0}`), step };
}

/**
 * Speed by a clock that was read at two moments: its seconds over the video's. One that counts down does as
 * well. Each reading may lie a step of its last digit behind, and a captured picture may be off by one
 * interval.
 * @throws RangeError where the two moments are one, or the clock stood
 */
export function speedByClock(one: ClockLook, other: ClockLook, captureFps: number): ClockSpeed {
  const real = Math.abs(other.atMs - one.atMs) / 1000,
    own = Math.abs(other.shows - one.shows);
  if (!(real > 0)) throw new RangeError("Read the clock at two moments.");
  if (!(own > 0)) throw new RangeError("The clock shows the same at both moments.");
  const step = Math.max(one.step, other.step),
    interval = 1 / captureFps;
  return {
    speed: own / real,
    low: Math.max(0, own - step) / (real + interval),
    high: (own + step) / Math.max(interval, real - interval),
  };
}
