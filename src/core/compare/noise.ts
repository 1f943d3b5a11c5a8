import type { NoiseFloor } from "./shape";
import { fTail, varianceOf } from "@/core/stats";

/**
 * The rigs there are, before one is known: the SD of log rate from run to run is log-normal, its median 2.45 %,
 * nine in ten between 1 and 6 %; ours. What is believed is calibrated over these (`bench -- eye`).
 */
export const rigPopulation = { medianSd: 0.0245, logSd: 0.5446 };

/**
 * What is believed of a rig without repeats: a log-normal spread of median 3 % whose log varies by 0.7, as one
 * repeat would leave it. Wider than the population: on a rig of 6 %, which is one in twenty, equal arms are
 * still called different in fewer than 10 of 100.
 */
export const assumedNoise: NoiseFloor = { sd: 0.03, freedom: 1 / (2 * 0.7 ** 2), betweenOnly: true };

/** A figure that somebody gave counts as so many repeats. */
const givenFreedom = 20;

/**
 * A floor that somebody names: how runs differ beyond what their own frames leave open. @param sd of log
 * average fps
 */
export const givenNoise = (sd: number): NoiseFloor => ({ sd, freedom: givenFreedom, betweenOnly: true });

/**
 * Runs of which one is twice as fast as another aren't repeats, whatever their settings say: another scene,
 * another log.
 */
const mostApart = 2;

/**
 * A group out of line with the others by an F that chance gives once in a thousand holds something else than
 * repeats.
 */
const outOfLine = 0.001;

/** Variance of a group of repeats, with its degrees of freedom. */
function varianceOfGroup(group: number[]) {
  const logs = group.map(Math.log);
  return { variance: varianceOf(logs), freedom: logs.length - 1 };
}

/**
 * Pooled SD over groups of repeats: the root of Σ(x − group mean)² / Σ(n − 1).
 *
 * A group that holds a rate over twice another of its own holds more than one scene, and is left out; so is one
 * that lies far out of line with the other groups. A rig that is noisy throughout keeps all of its groups.
 *
 * @param groups average fps of runs with identical settings, a group each
 * @returns null when no group has two repeats
 */
export function noiseFloor(groups: number[][]): NoiseFloor | null {
  const spreads = groups
    .filter((group) => group.length > 1 && Math.max(...group) <= mostApart * Math.min(...group))
    .map(varianceOfGroup)
    .sort((a, b) => a.variance - b.variance);
  const usual = spreads[(spreads.length - 1) >> 1];
  if (!usual) return null;
  const kept = spreads.filter(
    ({ variance, freedom }) =>
      spreads.length < 3 ||
      fTail(variance / Math.max(usual.variance, leastVariance), freedom, usual.freedom) > outOfLine,
  );
  const freedom = kept.reduce((sum, each) => sum + each.freedom, 0);
  const squares = kept.reduce((sum, each) => sum + each.freedom * each.variance, 0);
  return { sd: Math.sqrt(squares / freedom), freedom };
}

/** Rates are never alike to more than a thousandth. */
const leastSd = 1e-3,
  leastVariance = leastSd ** 2;

/** Degrees of freedom from which a rig's own floor is said to be measured. */
const enoughRepeats = 4;
/** A floor weighs no more than so many repeats: titles and scenes of one rig don't all spread alike. */
const mostFreedom = 20;

/**
 * What is believed of a rig: the assumption, moved by every repeat there is; logs of SDs, weighed by their freedom.
 * @param floor of its repeats; null without any
 */
export function rigNoise(
  floor: NoiseFloor | null,
  assumed: NoiseFloor = assumedNoise,
): { noise: NoiseFloor; measured: boolean } {
  if (!floor) return { noise: assumed, measured: false };
  const freedom = floor.freedom + assumed.freedom;
  // The log of an SD of few repeats comes out low by about that.
  const bias = 0.5 / floor.freedom + 1 / (6 * floor.freedom ** 2);
  const log =
    (floor.freedom * (Math.log(Math.max(floor.sd, leastSd)) + bias) + assumed.freedom * Math.log(assumed.sd)) /
    freedom;
  const measured = floor.freedom >= enoughRepeats;
  return {
    noise: {
      sd: Math.exp(log),
      freedom: Math.min(mostFreedom, freedom),
      ...(measured ? {} : { betweenOnly: true }),
    },
    measured,
  };
}

/** Degrees of freedom from which runs speak for themselves. */
const ownFreedom = 4;

/**
 * The spread to reckon with: what the runs at hand show, pooled with the floor by degrees of freedom (the
 * posterior mean scale of an inverse χ² prior; Gelman et al., Bayesian Data Analysis, section 2.6, from
 * memory).
 *
 * @param squares sum of squared deviations of the runs at hand
 * @param freedom their degrees of freedom; 0 borrows the floor whole
 */
export function pooledSpread(
  squares: number,
  freedom: number,
  floor: Pick<NoiseFloor, "sd" | "freedom">,
): { variance: number; freedom: number; borrowed: boolean } {
  return {
    variance: (squares + floor.freedom * floor.sd ** 2) / (freedom + floor.freedom),
    freedom: freedom + floor.freedom,
    borrowed: freedom < Math.max(ownFreedom, floor.freedom),
  };
}
