import { CholeskyDecomposition, Matrix } from "ml-matrix";
import { chiSquared, seeded, studentT } from "@/core/stats";
import { fitWorld, type FittedWorld, type Observation } from "./fit";
import { frameTimeOf } from "./model";

/** A frame time that isn't measured, ms, with the interval that holds it in 90 of 100. */
export interface Prediction {
  frameMs: number;
  low: number;
  high: number;
  /** Draws of it, in no order: chances are counted in them. */
  draws: Float64Array;
}

const count = 600;
/** Degrees of freedom of Student's t that the draws follow; ours, by the simulations in docs/method.md. */
const tailFreedom = 6;

/**
 * Joint covariance of c, a, b, u and v, and their means; what was never measured stands at the mean of all with
 * the spread of all.
 */
function jointOf(world: FittedWorld, title: string, rig: string): { means: number[]; covariance: Matrix } {
  const { titles, rigs, means, shared, spreads } = world;
  const t = titles.get(title),
    r = rigs.get(rig);
  const covariance = Matrix.zeros(5, 5);
  const meanAt = shared.rows - 3;
  for (let i = 0; i < 3; i++)
    for (let j = 0; j < 3; j++)
      covariance.set(
        i,
        j,
        t
          ? t.block.get(i, j)
          : shared.get(meanAt + i, meanAt + j) + (i === j ? (spreads.title[i] ?? 0) ** 2 : 0),
      );
  for (let i = 0; i < 2; i++)
    for (let j = 0; j < 2; j++)
      covariance.set(
        3 + i,
        3 + j,
        r ? shared.get(2 * r.place + i, 2 * r.place + j) : i === j ? (spreads.rig[i] ?? 0) ** 2 : 0,
      );
  if (r)
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 2; j++) {
        const at = 2 * r.place + j;
        const value = t ? t.cross.get(i, at) : shared.get(meanAt + i, at);
        covariance.set(i, 3 + j, value);
        covariance.set(3 + j, i, value);
      }
  const work = t ? [t.work.c, t.work.a, t.work.b] : means;
  return { means: [...work, r?.pace.u ?? 0, r?.pace.v ?? 0], covariance };
}

/** Titles of a rig from which their mean says anything. */
const enoughTitles = 4;

/** Draws of what any title takes on a rig, by those measured there; null where too few are. */
function byRigMean(world: FittedWorld, rig: string, pixels: number, seed: number): Float64Array | null {
  const own = world.rigMeans.get(rig),
    place = world.rigs.get(rig);
  if (!own || !place || own.titles < enoughTitles) return null;
  const [c, a, b] = world.means;
  const usual = (at: number) => frameTimeOf({ c, a, b }, place.pace, at).value;
  const random = seeded(seed);
  const sd = Math.hypot(own.sd, world.spreads.off) * Math.sqrt(1 + 1 / own.titles);
  return Float64Array.from({ length: count }, () =>
    Math.exp(own.mean + usual(pixels) - usual(own.pixels) + sd * studentT(random, own.titles - 1)),
  );
}

/** Median and 90 % interval of draws. */
function summed(draws: Float64Array): Prediction {
  const sorted = Float64Array.from(draws).sort();
  const quantile = (share: number) => sorted[Math.min(count - 1, Math.floor(share * count))] ?? 0;
  return { frameMs: quantile(0.5), low: quantile(0.05), high: quantile(0.95), draws };
}

/**
 * What a title would take on a rig at so many pixels, by what both did elsewhere. Drawn from the posterior,
 * since the model bends. Where that says less than what any title takes on the rig, the rig's mean stands.
 * @param pixels millions
 */
export function predict(world: FittedWorld, title: string, rig: string, pixels: number, seed = 1): Prediction {
  const { means, covariance } = jointOf(world, title, rig);
  // Symmetric but for rounding, and a little more than nothing along every axis.
  const even = Matrix.add(covariance, covariance.transpose()).mul(0.5).add(Matrix.eye(5).mul(1e-9));
  const root = new CholeskyDecomposition(even).lowerTriangularMatrix;
  const random = seeded(seed);
  const draws = Float64Array.from({ length: count }, () => {
    // Spreads are estimated too, and the model isn't quite the device: heavier tails than the normal's.
    const wide = Math.sqrt(tailFreedom / chiSquared(random, tailFreedom));
    const z = Array.from({ length: 5 }, () => wide * random.normal());
    const at = (k: number) =>
      (means[k] ?? 0) + z.slice(0, k + 1).reduce((sum, value, j) => sum + root.get(k, j) * value, 0);
    const { value } = frameTimeOf({ c: at(0), a: at(1), b: at(2) }, { u: at(3), v: at(4) }, pixels);
    return Math.exp(value + wide * world.spreads.off * random.normal());
  });
  const byModel = summed(draws);
  const any = byRigMean(world, rig, pixels, seed + 7919);
  if (!any) return byModel;
  // Of a title that caps hid everywhere only that it is quick is known: it takes no longer than either says.
  if (world.titles.get(title)?.isHidden) return summed(any.map((ms, k) => Math.min(ms, draws[k] ?? ms)));
  const byMean = summed(any);
  return byMean.high / byMean.low < byModel.high / byModel.low ? byMean : byModel;
}

/** Full speed is reached to within so much; as verdicts take it. */
const tolerance = 0.01;

/** Chance that a predicted frame time is short enough for a rate, 0…1. */
export const chanceOf = ({ draws }: Pick<Prediction, "draws">, targetFps: number): number =>
  draws.filter((ms) => ms <= (1000 / targetFps) * (1 + tolerance)).length / draws.length;

/** How often intervals held what was left out for them. */
export interface Calibration {
  held: number;
  of: number;
}

/**
 * Leaves out one pair of title and rig after the other, predicts it from the rest, and counts how often the 90
 * % interval holds what was measured. Of a pair held by a cap only that it takes no longer is known: an interval
 * that lies wholly above missed it. Pairs whose title and rig are known from nothing else say nothing.
 * @param most pairs tried, evenly chosen
 */
export function calibrate(observations: Observation[], most = 200): Calibration {
  const { spreads } = fitWorld(observations);
  const key = ({ title, rig }: Observation) => JSON.stringify([title, rig]);
  const pairs = [...new Set(observations.map(key))];
  const step = Math.max(1, pairs.length / most);
  const result = { held: 0, of: 0 };
  for (let k = 0; k < pairs.length; k += step) {
    const left = pairs[Math.floor(k)];
    const rest = observations.filter((one) => key(one) !== left);
    const own = observations.filter((one) => key(one) === left);
    const [first] = own;
    if (!first || !rest.some(({ title, rig }) => title === first.title || rig === first.rig)) continue;
    const world = fitWorld(rest, spreads);
    for (const { title, rig, pixels, frameMs, held } of own) {
      const { low, high } = predict(world, title, rig, pixels, 1 + Math.floor(k));
      result.of++;
      if (frameMs >= low && (held || frameMs <= high)) result.held++;
    }
  }
  return result;
}
