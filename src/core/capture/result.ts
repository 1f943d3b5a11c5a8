import { summarise, type Summary } from "@/core/metrics";
import { mean, varianceOf } from "@/core/stats";
import type { FrameTrace } from "@/core/trace";
import { judge, type Verdict } from "@/core/verdict";
import { judgedCapture, type OpenBecause } from "./judged";
import type { Region } from "./cells";
import type { PictureChange } from "./change";
import { classify } from "./classify";
import { pictureAt, picturesFrom, type Pictures, type Stamps } from "./pictures";
import { settledPictures, settledReadings, unsurePictures, type Settled, type UnsurePicture } from "./settled";
import { plausible, type Counter, type RawReading } from "./readings";

/** What a capture is judged by. */
export interface CaptureYardstick {
  nativeFps: number;
  targetFps: number;
  tied: boolean;
}

export interface CaptureResult extends Pictures {
  /** How far repeats and new pictures lie apart; null where there is one kind only. */
  separation: number | null;
  counter: Counter | null;
  /** Whether counter and pictures say different rates; null where it can't be told. */
  counterDisagrees: boolean | null;
  /** A counter that was found and left out, where none was named. */
  foundCounter: Region | null;
  stampFaults: number;
  /** The file could be read only so far: what came after isn't in it. */
  cutShort: boolean;
  /** How long the file says it is, s, where its pictures end well before; null otherwise. */
  saidSeconds: number | null;
  unsure: UnsurePicture[];
  summary: Summary;
  verdict: Verdict;
  openBecause: OpenBecause;
}

/** A counter that is off by this share of the pictures' rate disagrees, %; common practice. */
const tolerance = 3;

/**
 * Counters show the rate of a while before, and stand as long again: this far back a reading may come from, ms.
 */
const backMs = 1000;
const whileMs = 500;

/** Pictures shown between two moments, as a rate; pictures that reach over an end count by their share. */
function rateBetween(
  { startsMs, frameTimes }: Pick<Pictures, "startsMs" | "frameTimes">,
  from: number,
  to: number,
): number | null {
  let [count, span] = [0, 0];
  for (let k = 0; k < startsMs.length && startsMs[k] < to; k++) {
    const inside = Math.min(startsMs[k] + frameTimes[k], to) - Math.max(startsMs[k], from);
    if (inside <= 0) continue;
    count += inside / frameTimes[k];
    span += inside;
  }
  return span >= 0.5 * (to - from) ? (1000 * count) / span : null;
}

/**
 * What a run did at a moment of its capture: how long the picture stood that is shown, and the rate of the
 * second before. Null where nothing is known.
 */
export function momentOf(
  pictures: Pick<Pictures, "startsMs" | "frameTimes">,
  ms: number,
): { lastsMs: number | null; fps: number | null } {
  const at = pictureAt(pictures.startsMs, ms);
  const lasts = at < 0 ? NaN : pictures.frameTimes[at];
  const isShown = at >= 0 && ms < pictures.startsMs[at] + lasts + 1e-6;
  return {
    lastsMs: isShown ? lasts : null,
    fps: ms < 1000 ? null : rateBetween(pictures, ms - 1000, ms),
  };
}

/** The least and the most that the pictures' rate was over any while that a reading can be of. */
function ratesIn(pictures: Pictures): (ms: number) => [number, number] | null {
  return (ms) => {
    const rates: number[] = [];
    for (let end = ms - backMs + whileMs; end <= ms; end += 50) {
      const rate = rateBetween(pictures, end - whileMs, end);
      if (rate !== null) rates.push(rate);
    }
    return rates.length === 0 ? null : [Math.min(...rates), Math.max(...rates)];
  };
}

/** A capture in which no picture follows another: there is no rate to tell. */
export class NothingMoves extends Error {
  constructor(seconds: number) {
    super(`nothing moves in its ${seconds.toFixed(1)} s: a still picture, a menu or a pause has no rate`);
  }
}

/** What was seen in a capture, before anything is made of it. */
export interface Observed {
  changes: readonly PictureChange[];
  stamps: Stamps;
  /** Null where no counter was read. */
  raw: readonly RawReading[] | null;
  foundCounter: Region | null;
  yardstick: CaptureYardstick;
}

const asSeen: Settled = { pictures: new Map(), readings: new Map() };

/**
 * A run from what was seen in a capture: its pictures, its counter where there is one, and what can be said of
 * it. @throws NothingMoves
 */
export function captureResult(
  { changes, stamps, raw, foundCounter, yardstick }: Observed,
  settled: Settled = asSeen,
): CaptureResult {
  const { nativeFps, targetFps, tied } = yardstick;
  const told = settledPictures(classify(changes), settled.pictures);
  const pictures = picturesFrom(stamps, told);
  if (pictures.frames === 0) throw new NothingMoves(pictures.stillMs / 1000);
  const counter = raw && plausible(settledReadings(raw, settled.readings), ratesIn(pictures));
  const trace: FrameTrace = { form: "frames", frameTimes: pictures.frameTimes, channels: [], marks: [] };
  const summary = summarise(trace, {
    nativeFps,
    tied,
    targetFps,
    refreshHz: Math.max(10, pictures.captureFps),
  });
  const counterDisagrees = disagreement(counter, pictures);
  const facts = {
    ...pictures,
    counter: counter && {
      averageFps: counter.averageFps,
      readings: counter.readings.length,
      dropped: counter.dropped.length,
    },
    counterDisagrees,
  };
  const { verdict, openBecause } = judgedCapture(summary, judge(summary), facts, targetFps);
  return {
    ...pictures,
    separation: told.separation,
    counter,
    counterDisagrees,
    foundCounter,
    stampFaults: stamps.faults,
    cutShort: stamps.cutShort ?? false,
    saidSeconds: endsEarly(stamps) ? (stamps.saidSeconds ?? null) : null,
    unsure: unsurePictures(told, stamps.times),
    summary,
    verdict,
    openBecause,
  };
}

/**
 * A file whose pictures end so much before its end, in seconds and as a share, was cut off or says what isn't
 * so.
 */
const earlySeconds = 1,
  earlyShare = 0.05;

function endsEarly({ times, lastSeconds, saidSeconds = null }: Stamps): boolean {
  const end = (times.at(-1) ?? 0) + lastSeconds;
  return saidSeconds !== null && saidSeconds - end > Math.max(earlySeconds, earlyShare * saidSeconds);
}

/**
 * Whether readings differ from what the pictures showed over the whiles that they are of, by more than chance
 * and tolerance.
 */
function disagreement(counter: Counter | null, pictures: Pictures): boolean | null {
  const pairs = (counter?.readings ?? []).flatMap(({ atMs, fps }) => {
    const rate = rateBetween(pictures, atMs - backMs, atMs);
    return rate === null ? [] : [{ fps, rate }];
  });
  if (pairs.length < 3) return null;
  const shown = mean(pairs.map(({ fps }) => fps)),
    seen = mean(pairs.map(({ rate }) => rate));
  const [low, high] = pictures.averageFpsInterval;
  // A capture that shows every picture it can says nothing of a counter above it.
  if (pictures.ceiling && shown >= low) return null;
  const chance = 2 * Math.sqrt(varianceOf(pairs.map(({ fps, rate }) => fps - rate)) / pairs.length);
  const slack = Math.max((tolerance / 100) * seen, chance) + (high - low) / 2;
  return Math.abs(shown - seen) > slack;
}
