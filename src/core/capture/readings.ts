import { medianOf } from "@/core/stats";

/** What text recognition made of a counter's box at a moment. */
export interface RawReading {
  atMs: number;
  text: string;
  /** 0 … 100. */
  confidence: number;
  /** A person said what it shows, or that it shows nothing. */
  byHand?: boolean;
}

export interface CounterReading {
  atMs: number;
  fps: number;
  confidence: number;
}

export interface Counter {
  readings: CounterReading[];
  /** Readings that weren't numbers, or not plausible, with what was read. */
  dropped: RawReading[];
  /** Mean of the readings kept; null without any. */
  averageFps: number | null;
}

/** Nothing counts faster. */
const mostFps = 1000;
/** Recognition surer than this is taken where nothing speaks against it; the product's own reckoning. */
const leastConfidence = 40;
/** A reading this many times those round it, or the inverse, needs pictures that changed with it. */
const jump = 1.7;
/** A reading this near to what the pictures showed is shown by them. */
const slack = 1.2;
/** Readings on either side that a jump is seen against. */
const round = 3;

/** A counter's digits as a number; null for anything else. */
export function counterDigits(text: string): number | null {
  // Its unit may stand before or behind it, run into it or apart.
  const found = /^(?:FPS)?[\s:]*(\d{1,4}(?:[.,]\d{1,2})?)\s*(?:FPS)?[\s:.]*$/i.exec(text.trim());
  const value = Number(found?.[1]?.replace(",", ".") ?? NaN);
  return value > 0 && value <= mostFps ? value : null;
}

/**
 * Readings that can be: numbers, and no jumps that the pictures don't show.
 * @param ratesAt the least and the most that the pictures' rate was over the whiles a reading may be of, fps;
 *   null where it isn't known
 */
export function plausible(
  raw: readonly RawReading[],
  ratesAt: (ms: number) => [low: number, high: number] | null,
): Counter {
  const told = raw.map((reading) => ({
    ...reading,
    fps: reading.confidence >= leastConfidence ? counterDigits(reading.text) : null,
  }));
  const usual = medianOf(told.flatMap(({ fps }) => (fps === null ? [] : [fps])));
  const readings: CounterReading[] = [],
    dropped: RawReading[] = [];
  told.forEach(({ fps, ...reading }, k) => {
    const near = told
      .slice(Math.max(0, k - round), k + round + 1)
      .flatMap((other, at) => (other.fps === null || at + Math.max(0, k - round) === k ? [] : [other.fps]));
    const beside = near.length > 0 ? medianOf(near) : usual;
    const isJump = fps !== null && (fps > jump * beside || fps < beside / jump);
    const rates = ratesAt(reading.atMs);
    // Where the pictures' rate went with it the jump is real; what they can't say is left to the neighbours.
    const isShown = rates !== null && fps !== null && fps > rates[0] / slack && fps < rates[1] * slack;
    const isNeighbours = near.some((other) => fps !== null && Math.abs(Math.log(fps / other)) < Math.log(1.25));
    if (fps === null || (isJump && !isShown && !isNeighbours && !reading.byHand)) dropped.push(reading);
    else readings.push({ atMs: reading.atMs, fps, confidence: reading.confidence });
  });
  const averageFps =
    readings.length === 0 ? null : readings.reduce((sum, { fps }) => sum + fps, 0) / readings.length;
  return { readings, dropped, averageFps };
}
