import { medianOf } from "@/core/stats";

/** What text recognition made of a counter's box at a moment. */
export interface RawReading {
  atMs: number;
  text: string;
  /** 0 … 100. */
  confidence: number;
}

export interface Reading {
  atMs: number;
  fps: number;
  confidence: number;
}

export interface Counter {
  readings: Reading[];
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
/** Readings on either side that a jump is seen against. */
const round = 3;

/** A counter's digits as a number; null for anything else. */
export function numberIn(text: string): number | null {
  const found = /^\D{0,3}?(\d{1,3}(?:[.,]\d{1,2})?)\D{0,3}$/.exec(text.trim());
  const value = Number(found?.[1]?.replace(",", ".") ?? NaN);
  return value > 0 && value <= mostFps ? value : null;
}

/**
 * Readings that can be: numbers, and no jumps that the pictures don't show.
 * @param rateAt the pictures' own rate round a moment, fps; null where it isn't known
 */
export function plausible(raw: readonly RawReading[], rateAt: (ms: number) => number | null): Counter {
  const told = raw.map((reading) => ({
    ...reading,
    fps: reading.confidence >= leastConfidence ? numberIn(reading.text) : null,
  }));
  const usual = medianOf(told.flatMap(({ fps }) => (fps === null ? [] : [fps])));
  const readings: Reading[] = [],
    dropped: RawReading[] = [];
  told.forEach(({ fps, ...reading }, k) => {
    const near = told
      .slice(Math.max(0, k - round), k + round + 1)
      .flatMap((other, at) => (other.fps === null || at + Math.max(0, k - round) === k ? [] : [other.fps]));
    const beside = near.length > 0 ? medianOf(near) : usual;
    const isJump = fps !== null && (fps > jump * beside || fps < beside / jump);
    const rate = rateAt(reading.atMs);
    // Where the pictures' rate went with it the jump is real; what they can't say is left to the neighbours.
    const isShown = rate !== null && fps !== null && Math.abs(Math.log(fps / rate)) < Math.log(1.35);
    const isNeighbours = near.some((other) => fps !== null && Math.abs(Math.log(fps / other)) < Math.log(1.25));
    if (fps === null || (isJump && !isShown && !isNeighbours)) dropped.push(reading);
    else readings.push({ atMs: reading.atMs, fps, confidence: reading.confidence });
  });
  const averageFps =
    readings.length === 0 ? null : readings.reduce((sum, { fps }) => sum + fps, 0) / readings.length;
  return { readings, dropped, averageFps };
}
