import type { Kind, Classified } from "./classify";

/** When captured pictures were shown. */
export interface Stamps {
  /** Seconds, in the order they are shown. */
  times: Float64Array;
  /** How long the last one is shown, s. */
  lastSeconds: number;
  /** Time stamps that were missing, equal to the one before or going backwards. */
  faults: number;
  /** The file could be read only so far. */
  cutShort?: boolean;
  /** How long the file says it is, s; null where it doesn't. */
  saidSeconds?: number | null;
}

/** A run as a capture shows it. */
export interface Pictures {
  captureFps: number;
  capturedFrames: number;
  /** Pictures that the title showed. */
  frames: number;
  durationMs: number;
  averageFps: number;
  averageFpsInterval: [low: number, high: number];
  /** Nearly every captured picture is new: the title may show more than the capture can. */
  ceiling: boolean;
  unsureFrames: number;
  /** Captured pictures that the capture itself lost. */
  lostFrames: number;
  stillMs: number;
  frameTimes: Float64Array;
  /** Where each frame time begins in the capture, ms. */
  startsMs: Float64Array;
  /** Whether the capture's own rate varies. */
  varies: boolean;
}

/** Moments nearer than this are one, ms. */
const slackMs = 1e-6;

/**
 * Place of the picture that is shown at a moment, or was last before it; −1 before the first. @param startsMs
 * in their order
 */
export function pictureAt(startsMs: Float64Array, ms: number): number {
  let [low, high] = [0, startsMs.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (startsMs[middle] <= ms + slackMs) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/**
 * From so long on a stretch in which nothing moves says nothing of the rate: a menu, a pause, a loading screen.
 */
const stillSeconds = 3;
/** From this share of new pictures on more may have been shown than were captured. */
const ceilingShare = 0.97;
/** A capture whose intervals differ in so many is one of varying rate: what isn't there is a repeat. */
const varyingShare = 0.05;

/** The interval that a capture has where it leaves nothing out, s: the mean of those like its short ones. */
export function captureInterval(times: Float64Array): number {
  const gaps = Array.from({ length: times.length - 1 }, (_, k) => times[k + 1] - times[k]).filter(
    (gap) => gap > 0,
  );
  if (gaps.length === 0) return 0;
  const sorted = [...gaps].sort((a, b) => a - b);
  const short = sorted[Math.floor(sorted.length * 0.2)];
  // Stamps rounded to whole milliseconds differ by one.
  const near = gaps.filter((gap) => Math.abs(gap - short) <= Math.max(0.2 * short, 0.0012));
  const rough = near.reduce((sum, gap) => sum + gap, 0) / near.length;
  // Rounded stamps add up exactly: all gaps together are so many intervals.
  const whole = gaps.filter(
    (gap) => gap < 20 * rough && Math.abs(gap / rough - Math.round(gap / rough)) < 0.25,
  );
  const intervals = whole.reduce((sum, gap) => sum + Math.round(gap / rough), 0);
  return intervals > 0.8 * gaps.length ? whole.reduce((sum, gap) => sum + gap, 0) / intervals : rough;
}

/**
 * Frame times of the title from which captured pictures are new. A picture lasts from its first captured one to
 * the next picture's.
 */
export function picturesFrom(
  { times, lastSeconds }: Stamps,
  { kinds, unsure }: Pick<Classified, "kinds" | "unsure">,
): Pictures {
  const n = times.length;
  const interval = captureInterval(times) || lastSeconds;
  const gapsAt = (k: number) => times[k] - times[k - 1];
  let long = 0;
  for (let k = 1; k < n; k++) if (gapsAt(k) > 1.5 * interval) long++;
  const varies = n > 1 && long / (n - 1) > varyingShare;
  const isNew = (k: number) => k === 0 || kinds[k - 1] === ("new" satisfies Kind);
  const starts: number[] = [];
  for (let k = 0; k < n; k++) if (isNew(k)) starts.push(k);
  const end = n > 0 ? times[n - 1] + lastSeconds : 0;
  const frameTimes: number[] = [],
    startsMs: number[] = [];
  let still = 0,
    newIn = 0,
    capturedIn = 0,
    lost = 0;
  starts.forEach((from, at) => {
    const to = starts[at + 1] ?? n;
    const seconds = (to < n ? times[to] : end) - times[from];
    if (seconds >= stillSeconds) {
      still += seconds;
      return;
    }
    frameTimes.push(1000 * seconds);
    startsMs.push(1000 * times[from]);
    newIn++;
    capturedIn += to - from;
  });
  let doubtful = 0,
    couldBeMore = 0,
    couldBeLess = 0;
  for (let k = 1; k < n; k++) {
    // A capture of an even rate that leaves one out has lost it: whether it was new can't be seen.
    if (!varies && gapsAt(k) > 1.5 * interval) {
      const missing = Math.round(gapsAt(k) / interval) - 1;
      lost += missing;
      couldBeMore += missing;
    }
    if (unsure[k - 1] !== 1) continue;
    doubtful++;
    if (isNew(k)) couldBeLess++;
    else couldBeMore++;
  }
  const duration = frameTimes.reduce((sum, ms) => sum + ms, 0) / 1000;
  const frames = frameTimes.length;
  const fps = (count: number, seconds: number) => (seconds > 0 ? count / seconds : 0);
  return {
    captureFps: interval > 0 ? 1 / interval : 0,
    capturedFrames: n,
    frames,
    durationMs: 1000 * duration,
    averageFps: fps(frames, duration),
    averageFpsInterval: [
      fps(Math.max(0, frames - couldBeLess), duration + interval),
      fps(frames + couldBeMore, Math.max(interval, duration - interval)),
    ],
    ceiling: capturedIn > 1 && newIn / capturedIn >= ceilingShare && !varies,
    unsureFrames: doubtful + lost,
    lostFrames: lost,
    stillMs: 1000 * still,
    frameTimes: Float64Array.from(frameTimes),
    startsMs: Float64Array.from(startsMs),
    varies,
  };
}
