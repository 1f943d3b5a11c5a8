import { Matrix, inverse } from "ml-matrix";
import { normalBelow, normalDensity } from "@/core/stats";
import { frameTimeOf, usualSharpness, type RigPace, type TitleWork } from "./model";

/** What was measured: a title on a rig at so many pixels. */
export interface Observation {
  title: string;
  rig: string;
  /** Millions. */
  pixels: number;
  frameMs: number;
  /** A cap or the display held the rate: the work took no longer than this. */
  held: boolean;
}

/** How far titles and rigs lie apart, and how far a measurement lies off the model; SDs of logs. */
export interface Spreads {
  title: [c: number, a: number, b: number];
  rig: [u: number, v: number];
  off: number;
}

export interface FittedWorld {
  /** Of each title its work, and whether caps hid it everywhere. */
  titles: Map<string, { work: TitleWork; block: Matrix; cross: Matrix; isHidden: boolean }>;
  rigs: Map<string, { pace: RigPace; place: number }>;
  /** Means of titles' logs. */
  means: [number, number, number];
  /** Covariance of what all share: two a rig, then the three means. */
  shared: Matrix;
  spreads: Spreads;
  /** What titles take on each rig, all together. */
  rigMeans: Map<string, RigMean>;
}

/** Log frame times of the titles measured on a rig, as they would be at so many pixels. */
export interface RigMean {
  titles: number;
  mean: number;
  sd: number;
  pixels: number;
}

const firstSpreads: Spreads = { title: [0.6, 0.6, 0.6], rig: [0.5, 0.5], off: 0.08 };
/** What titles ask before any is measured: 8 ms alone, 6 and 2 together; wide. */
const firstMeans: [number, number, number] = [Math.log(8), Math.log(6), Math.log(2)];
const meanSpread = 1;
/**
 * Steps of one fit: from a smooth maximum, which every part of the work can be felt through, to the one that is
 * meant.
 */
const sharpnesses = [1, 1, 2, 2, 4, 4, 8, 8, 8, 8];
const outer = 6,
  /** Rounds where the spreads are given: what caps hide has to settle all the same. */
  roundsGiven = 3;
/** Halvings of a step before it is given up. */
const mostHalvings = 6;

interface State {
  titles: string[];
  rigs: string[];
  /** c, a, b of every title; u, v of every rig; the three means. */
  of: { title: Float64Array; rig: Float64Array; mean: Float64Array };
  spreads: Spreads;
  sharpness: number;
}

const workAt = ({ of }: State, t: number): TitleWork => ({
  c: of.title[3 * t] ?? 0,
  a: of.title[3 * t + 1] ?? 0,
  b: of.title[3 * t + 2] ?? 0,
});
const paceAt = ({ of }: State, r: number): RigPace => ({ u: of.rig[2 * r] ?? 0, v: of.rig[2 * r + 1] ?? 0 });

interface Normal {
  /** Of every title: its 3 × 3 block, 3 × shared cross block, and right side. */
  blocks: { own: Matrix; cross: Matrix; right: Matrix }[];
  shared: Matrix;
  right: Matrix;
}

/**
 * Normal equations of one Gauss–Newton step: titles hang together only by what they share, so that each is
 * solved by itself.
 */
function normal(state: State, seen: Seen[]): Normal {
  const { spreads, of } = state;
  const shares = of.rig.length + 3;
  const blocks = state.titles.map(() => ({
    own: Matrix.zeros(3, 3),
    cross: Matrix.zeros(3, shares),
    right: Matrix.zeros(3, 1),
  }));
  const shared = Matrix.zeros(shares, shares),
    right = Matrix.zeros(shares, 1);
  const add = (into: Matrix, i: number, j: number, value: number) => into.set(i, j, into.get(i, j) + value);
  blocks.forEach((block, t) => {
    for (let k = 0; k < 3; k++) {
      const weight = 1 / (spreads.title[k] ?? 1) ** 2;
      const at = of.rig.length + k;
      const gap = (of.mean[k] ?? 0) - (of.title[3 * t + k] ?? 0);
      add(block.own, k, k, weight);
      add(block.cross, k, at, -weight);
      add(shared, at, at, weight);
      add(block.right, k, 0, weight * gap);
      add(right, at, 0, -weight * gap);
    }
  });
  for (let i = 0; i < of.rig.length; i++) {
    const weight = 1 / (spreads.rig[i % 2] ?? 1) ** 2;
    add(shared, i, i, weight);
    add(right, i, 0, -weight * (of.rig[i] ?? 0));
  }
  for (let k = 0; k < 3; k++) {
    const at = of.rig.length + k;
    add(shared, at, at, 1 / meanSpread ** 2);
    add(right, at, 0, ((firstMeans[k] ?? 0) - (of.mean[k] ?? 0)) / meanSpread ** 2);
  }
  for (const { t, r, pixels, log, held } of seen) {
    const { value, slopes } = frameTimeOf(workAt(state, t), paceAt(state, r), pixels, state.sharpness);
    const off = (held?.at ?? log) - value;
    const weight = held?.precision ?? 1 / spreads.off ** 2;
    const block = blocks[t];
    if (!block) continue;
    const rigAt = [2 * r, 2 * r + 1];
    for (let i = 0; i < 3; i++) {
      add(block.right, i, 0, weight * (slopes[i] ?? 0) * off);
      for (let j = 0; j < 3; j++) add(block.own, i, j, weight * (slopes[i] ?? 0) * (slopes[j] ?? 0));
      rigAt.forEach((at, j) => add(block.cross, i, at, weight * (slopes[i] ?? 0) * (slopes[3 + j] ?? 0)));
    }
    rigAt.forEach((at, i) => {
      add(right, at, 0, weight * (slopes[3 + i] ?? 0) * off);
      rigAt.forEach((other, j) => add(shared, at, other, weight * (slopes[3 + i] ?? 0) * (slopes[3 + j] ?? 0)));
    });
  }
  return { blocks, shared, right };
}

interface Seen {
  t: number;
  r: number;
  pixels: number;
  log: number;
  /**
   * Of work that a cap hides: what is believed of its log, as a normal of this mean and precision, so that with
   * everything else it stands for "at most the cap's time".
   */
  held: { at: number; precision: number } | null;
}

interface Solved {
  /** Covariance of what is shared, and of every title's own with it. */
  shared: Matrix;
  titles: { block: Matrix; cross: Matrix }[];
}

/**
 * What is left unexplained, and how far everything lies from where it is expected: twice the negative log
 * posterior.
 */
function unlikely(state: State, seen: Seen[]): number {
  const { of, spreads } = state;
  let sum = 0;
  for (const { t, r, pixels, log, held } of seen) {
    const { value } = frameTimeOf(workAt(state, t), paceAt(state, r), pixels, state.sharpness);
    sum += (held?.precision ?? 1 / spreads.off ** 2) * ((held?.at ?? log) - value) ** 2;
  }
  of.title.forEach((value, i) => (sum += ((value - (of.mean[i % 3] ?? 0)) / (spreads.title[i % 3] ?? 1)) ** 2));
  of.rig.forEach((value, i) => (sum += (value / (spreads.rig[i % 2] ?? 1)) ** 2));
  of.mean.forEach((value, k) => (sum += ((value - (firstMeans[k] ?? 0)) / meanSpread) ** 2));
  return sum;
}

interface Step {
  title: Float64Array;
  shared: Float64Array;
  solved: Solved;
}

/** A Gauss–Newton step and the covariance at where it begins, by the Schur complement of the titles' blocks. */
function stepOf(state: State, seen: Seen[]): Step {
  const { blocks, shared, right } = normal(state, seen);
  const inverted = blocks.map(({ own }) => inverse(own));
  const schur = shared.clone(),
    side = right.clone();
  blocks.forEach(({ cross, right: own }, t) => {
    const lifted = cross.transpose().mmul(inverted[t] ?? Matrix.eye(3));
    schur.sub(lifted.mmul(cross));
    side.sub(lifted.mmul(own));
  });
  const covariance = inverse(schur);
  const step = covariance.mmul(side);
  const title = new Float64Array(state.of.title.length);
  const titles = blocks.map(({ cross, right: own }, t) => {
    const inv = inverted[t] ?? Matrix.eye(3);
    const by = inv.mmul(Matrix.sub(own, cross.mmul(step)));
    for (let k = 0; k < 3; k++) title[3 * t + k] = by.get(k, 0);
    const crossed = inv.mmul(cross).mul(-1).mmul(covariance);
    return { block: Matrix.sub(inv, crossed.mmul(cross.transpose()).mmul(inv)), cross: crossed };
  });
  return { title, shared: Float64Array.from(step.to1DArray()), solved: { shared: covariance, titles } };
}

/** Goes a step, or as much of it as makes what was measured likelier. */
function go(state: State, seen: Seen[]): void {
  const { title, shared } = stepOf(state, seen);
  const before = unlikely(state, seen);
  const { of } = state;
  const rigs = of.rig.length;
  for (let part = 1, halved = 0; halved <= mostHalvings; part /= 2, halved++) {
    state.of = {
      title: of.title.map((value, i) => value + part * (title[i] ?? 0)),
      rig: of.rig.map((value, i) => value + part * (shared[i] ?? 0)),
      mean: of.mean.map((value, k) => value + part * (shared[rigs + k] ?? 0)),
    };
    if (unlikely(state, seen) < before) return;
  }
  state.of = of;
}

/** Share of a new belief that is taken at once: the rest keeps the last one. */
const damping = 0.7;

/**
 * What is believed of work behind caps, made anew by expectation propagation (Minka 2001): what everything else
 * says of it, cut off at the cap's time, by its mean and variance.
 */
function believeHeld(state: State, seen: Seen[], solved: Solved): void {
  for (const one of seen) {
    if (!one.held) continue;
    const { value, slopes } = frameTimeOf(
      workAt(state, one.t),
      paceAt(state, one.r),
      one.pixels,
      state.sharpness,
    );
    const variance = Math.max(1e-8, varianceOf(slopes, solved, one.t, one.r));
    const without = 1 / variance - one.held.precision;
    if (!(without > 1e-6)) continue;
    const v = 1 / without,
      m = v * (value / variance - one.held.precision * one.held.at);
    const s = Math.hypot(Math.sqrt(v), state.spreads.off);
    const z = (one.log - m) / s;
    // Far beyond the cap the ratio of density to tail nears −z.
    const ratio = z < -6 ? -z : normalDensity(z) / normalBelow(z);
    const mean = m - (v / s) * ratio,
      left = Math.max(v * 1e-3, v - (v / s) ** 2 * ratio * (ratio + z));
    const precision = Math.max(0, 1 / left - 1 / v);
    const at = precision > 1e-9 ? (mean / left - m / v) / precision : one.log;
    one.held = {
      precision: (1 - damping) * one.held.precision + damping * precision,
      at: precision > 1e-9 ? at : one.held.at,
    };
  }
}

/** What the titles of each rig take, all at the pixels of its usual run. */
function rigMeansOf(state: State, seen: Seen[], solved: Solved): FittedWorld["rigMeans"] {
  const [c = 0, a = 0, b = 0] = state.of.mean;
  return new Map(
    state.rigs.map((name, r) => {
      const own = seen.filter((one) => one.r === r);
      const pixels = Math.exp(
        own.reduce((sum, one) => sum + Math.log(one.pixels), 0) / Math.max(1, own.length),
      );
      const usual = (at: number) => frameTimeOf({ c, a, b }, paceAt(state, r), at, state.sharpness).value;
      const byTitle = [...new Set(own.map(({ t }) => t))].map((t) => {
        const logs = own
          .filter((one) => one.t === t)
          .map((one) => {
            const { value } = frameTimeOf(workAt(state, t), paceAt(state, r), one.pixels, state.sharpness);
            // Behind a cap the work itself isn't seen: what is believed of it stands in.
            return (one.held ? value : one.log) + usual(pixels) - usual(one.pixels);
          });
        return logs.reduce((sum, log) => sum + log, 0) / logs.length;
      });
      // What caps hide is believed, not seen: how unsurely counts as spread.
      const hidden = own
        .filter(({ held }) => held !== null)
        .reduce((sum, { t, pixels: at }) => {
          const { slopes } = frameTimeOf(workAt(state, t), paceAt(state, r), at, state.sharpness);
          return sum + varianceOf(slopes, solved, t, r) / own.length;
        }, 0);
      const n = byTitle.length;
      const mean = byTitle.reduce((sum, log) => sum + log, 0) / Math.max(1, n);
      const squares = byTitle.reduce((sum, log) => sum + (log - mean) ** 2, 0);
      return [name, { titles: n, mean, sd: Math.sqrt(squares / Math.max(1, n - 1) + hidden), pixels }] as const;
    }),
  );
}

/** Spreads from what was fitted and how surely (one step of EM, Dempster, Laird & Rubin 1977). */
function spreadsFrom(state: State, seen: Seen[], solved: Solved): Spreads {
  const { of, titles, rigs } = state;
  const pooled = (squares: number, count: number, before: number, least: number) =>
    // Two imagined ones of the spread before keep few from saying too much.
    Math.max(least, Math.sqrt((squares + 2 * before ** 2) / (count + 2)));
  const title = [0, 1, 2].map((k) =>
    pooled(
      titles.reduce(
        (sum, _, t) =>
          sum +
          ((of.title[3 * t + k] ?? 0) - (of.mean[k] ?? 0)) ** 2 +
          (solved.titles[t]?.block.get(k, k) ?? 0),
        0,
      ),
      titles.length,
      firstSpreads.title[k] ?? 0.6,
      0.1,
    ),
  ) as Spreads["title"];
  const rig = [0, 1].map((k) =>
    pooled(
      rigs.reduce(
        (sum, _, r) => sum + (of.rig[2 * r + k] ?? 0) ** 2 + solved.shared.get(2 * r + k, 2 * r + k),
        0,
      ),
      rigs.length,
      firstSpreads.rig[k] ?? 0.5,
      0.1,
    ),
  ) as Spreads["rig"];
  const free = seen.filter(({ held }) => held === null);
  const squares = free.reduce((sum, { t, r, pixels, log }) => {
    const { value, slopes } = frameTimeOf(workAt(state, t), paceAt(state, r), pixels, state.sharpness);
    return sum + (log - value) ** 2 + varianceOf(slopes, solved, t, r);
  }, 0);
  return { title, rig, off: Math.min(0.5, pooled(squares, free.length, firstSpreads.off, 0.02)) };
}

function varianceOf(slopes: number[], { shared, titles }: Solved, t: number, r: number): number {
  const own = titles[t];
  if (!own) return 0;
  let sum = 0;
  const at = [2 * r, 2 * r + 1];
  for (let i = 0; i < 3; i++) {
    for (let j = 0; j < 3; j++) sum += (slopes[i] ?? 0) * (slopes[j] ?? 0) * own.block.get(i, j);
    at.forEach((place, j) => (sum += 2 * (slopes[i] ?? 0) * (slopes[3 + j] ?? 0) * own.cross.get(i, place)));
  }
  at.forEach((one, i) =>
    at.forEach((other, j) => (sum += (slopes[3 + i] ?? 0) * (slopes[3 + j] ?? 0) * shared.get(one, other))),
  );
  return Math.max(0, sum);
}

/**
 * Fits every title's work and every rig's pace to what was measured, by penalised least squares on logs: what
 * is little measured stays near the mean of all, by a spread that is estimated as well.
 *
 * @param spreads taken as they are where given, else estimated
 */
export function fitWorld(observations: Observation[], spreads?: Spreads): FittedWorld {
  const titles = [...new Set(observations.map(({ title }) => title))],
    rigs = [...new Set(observations.map(({ rig }) => rig))];
  const titleAt = new Map(titles.map((name, at) => [name, at])),
    rigAt = new Map(rigs.map((name, at) => [name, at]));
  const seen = observations.map(({ title, rig, pixels, frameMs, held }): Seen => ({
    t: titleAt.get(title) ?? 0,
    r: rigAt.get(rig) ?? 0,
    pixels,
    log: Math.log(frameMs),
    held: held ? { at: Math.log(frameMs), precision: 0 } : null,
  }));
  const state: State = {
    titles,
    rigs,
    of: {
      title: Float64Array.from({ length: 3 * titles.length }, (_, k) => firstMeans[k % 3] ?? 0),
      rig: new Float64Array(2 * rigs.length),
      mean: Float64Array.from(firstMeans),
    },
    spreads: spreads ?? firstSpreads,
    sharpness: usualSharpness,
  };
  let solved: Solved | null = null;
  for (let round = 0; round < (spreads ? roundsGiven : outer); round++) {
    for (const sharpness of round === 0 ? sharpnesses : sharpnesses.slice(-4)) {
      state.sharpness = sharpness;
      go(state, seen);
    }
    ({ solved } = stepOf(state, seen));
    believeHeld(state, seen, solved);
    if (!spreads) state.spreads = spreadsFrom(state, seen, solved);
  }
  const last = solved ?? stepOf(state, seen).solved;
  return {
    titles: new Map(
      titles.map((name, t) => [
        name,
        {
          work: workAt(state, t),
          block: last.titles[t]?.block ?? Matrix.eye(3),
          cross: last.titles[t]?.cross ?? Matrix.zeros(3, 3),
          isHidden: seen.every((one) => one.t !== t || one.held !== null),
        },
      ]),
    ),
    rigs: new Map(rigs.map((name, r) => [name, { pace: paceAt(state, r), place: r }])),
    means: [state.of.mean[0] ?? 0, state.of.mean[1] ?? 0, state.of.mean[2] ?? 0],
    shared: last.shared,
    spreads: state.spreads,
    rigMeans: rigMeansOf(state, seen, last),
  };
}
