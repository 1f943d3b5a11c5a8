import { quantile } from "@/core/stats";
import type { PictureChange } from "./change";

/** What a captured picture is beside the one before. */
export type Kind = "repeat" | "new";

export interface Classified {
  kinds: Kind[];
  /** Pictures that could be either, 1 for each. */
  unsure: Uint8Array;
  /** How far the two kinds lie apart, in their own widths; null where there is one kind only. */
  separation: number | null;
}

/** Log levels: nothing is nearer than this to a perfect repeat. */
const floor = 0.05;
/** A repeat's level as codecs leave it, at most; the product's own reckoning from made captures. */
const quietLevel = 2.5;
/** A normal law's fourth root of the mean fourth power over its root mean square is 3^¼ = 1.316. */
const evenNoise = 1.45;
const unlike = 0.3;
/** Kinds lie at least so far apart: the one's level is this many times the other's. */
const leastRatio = 1.8;
/** Kinds this far apart that take turns are two, however noisy the lower is. */
const farRatio = 5;
/** Pictures on either side in which the other kind is looked for. */
const turns = 15;
/** Below this all that changes is what a codec leaves. */
const codecLevel = 1.2;
/** Widths of a kind in log level, at least. */
const leastWidth = 0.12;
/** What is this likely to be one kind is said to be it. */
const sure = 0.98;

/** Whether a change is what a picture shown twice leaves: next to nothing, or noise alone. */
const looksStill = ({ level, peaked, smooth }: PictureChange) =>
  level <= quietLevel || (peaked <= evenNoise && Math.abs(smooth) <= unlike);

/**
 * A kind's middle in log level, and its width on the side that looks at the other kind: repeats have a long
 * tail upwards, new pictures end sharply below.
 */
function shapeOf(
  values: number[],
  towards: "up" | "down",
): { middle: number; width: number; share: number; edge: number } {
  const sorted = Float64Array.from(values).sort();
  const middle = quantile(sorted, 0.5);
  const reach = towards === "up" ? quantile(sorted, 0.95) - middle : middle - quantile(sorted, 0.05);
  // A normal law has 95 % below 1.645 of its standard deviations.
  return {
    middle,
    width: Math.max(leastWidth, reach / 1.645),
    share: values.length,
    edge: quantile(sorted, towards === "up" ? 0.99 : 0.01),
  };
}

/** Splits levels in two where it makes the two sides narrowest (Otsu, 1979), by log level. */
function firstSplit(logs: number[]): number {
  const sorted = [...logs].sort((a, b) => a - b);
  const n = sorted.length;
  const sum = sorted.reduce((total, value) => total + value, 0);
  let left = 0,
    best = -1,
    at = sorted[0] ?? 0;
  for (let k = 1; k < n; k++) {
    left += sorted[k - 1];
    const between = k * (n - k) * (left / k - (sum - left) / (n - k)) ** 2;
    if (between > best) {
      best = between;
      at = (sorted[k - 1] + sorted[k]) / 2;
    }
  }
  return at;
}

/**
 * Tells repeats from new pictures: a mixture of two kinds in log level, each by its middle and width
 * (classification EM, Celeux & Govaert, 1992). There are two only where they lie apart and the lower looks like
 * nothing moved; else all are of one.
 */
export function classify(changes: readonly PictureChange[]): Classified {
  // Where most of the picture moves, what most of it does tells best; a small thing in a still scene shows in
  // the whole alone.
  const byMost = told(
    changes,
    changes.map(({ broad }) => broad),
  );
  const isMoving = byMost.separation !== null && byMost.usual > 2 * quietLevel;
  return isMoving
    ? byMost
    : told(
        changes,
        changes.map(({ level }) => level),
      );
}

function told(changes: readonly PictureChange[], levels: number[]): Classified & { usual: number } {
  const n = changes.length;
  const logs = levels.map((level) => Math.log(level + floor));
  const all = (kind: Kind) => ({
    kinds: new Array<Kind>(n).fill(kind),
    unsure: new Uint8Array(n),
    separation: null,
    usual: 0,
  });
  if (n === 0) return all("new");
  const stillShare = changes.filter(looksStill).length / n;
  let split = firstSplit(logs);
  let [low, high] = [shapeOf([0], "up"), shapeOf([0], "down")];
  for (let turn = 0; turn < 12; turn++) {
    const below = logs.filter((value) => value < split),
      above = logs.filter((value) => value >= split);
    if (below.length === 0 || above.length === 0) return all(stillShare > 0.5 ? "repeat" : "new");
    [low, high] = [shapeOf(below, "up"), shapeOf(above, "down")];
    const next = crossing(low, high);
    if (Math.abs(next - split) < 1e-4) break;
    split = next;
  }
  const below = changes.filter((_, k) => logs[k] < split);
  const stillBelow = below.filter(looksStill).length / Math.max(1, below.length);
  // Nothing but what a codec leaves of pictures that stand still: what rises out of it is new, and there are no
  // two kinds.
  if (Math.exp(high.middle) < codecLevel) {
    const kinds = changes.map(({ level, peaked }): Kind =>
      level > quietLevel && peaked > evenNoise ? "new" : "repeat",
    );
    const unsure = Uint8Array.from(levels, (level) =>
      level > quietLevel / 1.5 && level < quietLevel * 1.5 ? 1 : 0,
    );
    return { kinds, unsure, separation: null, usual: 0 };
  }
  const isApart = high.middle - low.middle >= Math.log(leastRatio);
  const isFar = high.middle - low.middle >= Math.log(farRatio) && interleaved(logs, split) >= 0.5;
  if (!isApart || (stillBelow < 0.6 && !isFar)) return all(stillShare > 0.5 && !isApart ? "repeat" : "new");
  const kinds: Kind[] = [],
    unsure = new Uint8Array(n);
  split = emptiest(logs, low, high) ?? split;
  logs.forEach((value, k) => {
    const repeat = density(value, low),
      fresh = density(value, high);
    // Beyond both middles there is no doubt, however the widths differ.
    const chance = value <= low.middle ? 0 : value >= high.middle ? 1 : fresh / (repeat + fresh || 1);
    // A picture coded by itself differs anyhow: only what differs as new ones do is new.
    const isNew = value >= (changes[k].key ? Math.max(split, high.edge) : split);
    kinds.push(isNew ? "new" : "repeat");
    if (Math.max(chance, 1 - chance) < sure) unsure[k] = 1;
  });
  return {
    kinds,
    unsure,
    separation: (high.middle - low.middle) / Math.hypot(low.width, high.width),
    usual: Math.exp(high.middle),
  };
}

/**
 * Share of the lower kind that has one of the upper near it: repeats stand among new pictures, a calm scene
 * stands by itself.
 */
function interleaved(logs: number[], split: number): number {
  let [near, lower, last] = [0, 0, -Infinity];
  const next = new Int32Array(logs.length);
  for (let k = logs.length - 1, ahead = 1 << 30; k >= 0; k--) {
    if (logs[k] >= split) ahead = k;
    next[k] = ahead;
  }
  logs.forEach((value, k) => {
    if (value >= split) last = k;
    else {
      lower++;
      if (k - last <= turns || next[k] - k <= turns) near++;
    }
  });
  return lower === 0 ? 0 : near / lower;
}

/** A gap between the kinds that is worth cutting in, in log level. */
const leastGap = 0.2;

/**
 * The middle of the widest gap between what is plainly the one kind and plainly the other; null where there is
 * none to speak of.
 */
function emptiest(logs: number[], low: Shape, high: Shape): number | null {
  const from = low.edge,
    to = high.edge;
  const between = logs.filter((value) => value > from && value < to).sort((a, b) => a - b);
  const ends = [Math.min(from, to), ...between, Math.max(from, to)];
  let best: number | null = null,
    widest = leastGap;
  for (let k = 1; k < ends.length; k++)
    if (ends[k] - ends[k - 1] > widest) [widest, best] = [ends[k] - ends[k - 1], (ends[k] + ends[k - 1]) / 2];
  return best;
}

type Shape = ReturnType<typeof shapeOf>;
/** A kind's weight at a value; tails as heavy as captures have (Student's t with four degrees). */
function density(value: number, { middle, width, share }: Shape): number {
  const z = (value - middle) / width;
  return (share / width) * (1 + (z * z) / 4) ** -2.5;
}

/** Where one is as likely as the other, between the middles. */
function crossing(low: Shape, high: Shape): number {
  let [a, b] = [low.middle, high.middle];
  for (let turn = 0; turn < 40; turn++) {
    const half = (a + b) / 2;
    if (density(half, low) > density(half, high)) a = half;
    else b = half;
  }
  return (a + b) / 2;
}
