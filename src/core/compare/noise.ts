import type { RigSpec } from "@/core/kit";

/** How much a rig varies by itself: SD of log average fps over repeats of identical settings, and the degrees of freedom behind it. */
export interface NoiseFloor {
  sd: number;
  /** How many repeats it is worth. */
  freedom: number;
  /** True for a figure that says how runs differ beyond what their own frames leave open. A measured floor holds both. */
  betweenOnly?: boolean;
}

/**
 * What is believed of a rig without repeats: about 3.5 %, and no surer than one repeat would make it.
 * Its tails are those of Student's t with one degree of freedom, so that one run a side settles only what is huge.
 */
export const assumedNoise: NoiseFloor = { sd: 0.035, freedom: 1, betweenOnly: true };

/** Rigs at the mains are held to vary a little less than those that hold their heat in the hand; ours. */
const assumedAtMains = 0.03;

/** What is believed of a rig before its first repeats. */
export const assumedFor = ({ batteryWh }: Pick<RigSpec, "batteryWh">): NoiseFloor =>
  batteryWh === null ? { ...assumedNoise, sd: assumedAtMains } : assumedNoise;

/** A figure that somebody gave counts as so many repeats. */
const givenFreedom = 20;

/** A floor that somebody names: how runs differ beyond what their own frames leave open. @param sd of log average fps */
export const givenNoise = (sd: number): NoiseFloor => ({ sd, freedom: givenFreedom, betweenOnly: true });

/** Runs of which one is twice as fast as another aren't repeats, whatever their settings say: another scene, another log. */
const mostApart = 2;

/**
 * Pooled SD over groups of repeats: the root of Σ(x − group mean)² / Σ(n − 1).
 * A group that holds a rate over twice another of its own is left out: it holds more than one scene. A noisy group stays in.
 *
 * @param groups average fps of runs with identical settings, a group each
 * @returns null when no group has two repeats
 */
export function noiseFloor(groups: number[][]): NoiseFloor | null {
  let squares = 0,
    freedom = 0;
  for (const group of groups) {
    if (group.length < 2 || Math.max(...group) > mostApart * Math.min(...group)) continue;
    const logs = group.map(Math.log);
    const centre = logs.reduce((sum, x) => sum + x, 0) / logs.length;
    squares += logs.reduce((sum, x) => sum + (x - centre) ** 2, 0);
    freedom += group.length - 1;
  }
  return freedom === 0 ? null : { sd: Math.sqrt(squares / freedom), freedom };
}

/** Degrees of freedom from which a rig's own floor is said to be measured. */
const enoughRepeats = 4;
/** A floor weighs no more than so many repeats: titles and scenes of one rig don't all spread alike. */
const mostFreedom = 20;

/**
 * What is believed of a rig: the assumption, moved by every repeat there is (scaled inverse χ² prior).
 * @param floor of its repeats; null without any
 */
export function rigNoise(
  floor: NoiseFloor | null,
  assumed: NoiseFloor = assumedNoise,
): { noise: NoiseFloor; measured: boolean } {
  if (!floor) return { noise: assumed, measured: false };
  const { variance, freedom } = pooledSpread(floor.freedom * floor.sd ** 2, floor.freedom, assumed);
  const measured = floor.freedom >= enoughRepeats;
  return {
    noise: {
      sd: Math.sqrt(variance),
      freedom: Math.min(mostFreedom, freedom),
      ...(measured ? {} : { betweenOnly: true }),
    },
    measured,
  };
}

/** Degrees of freedom from which runs speak for themselves. */
const ownFreedom = 4;

/**
 * The spread to reckon with: what the runs at hand show, pooled with the floor by degrees of freedom
 * (the posterior mean scale of an inverse χ² prior; Gelman et al., Bayesian Data Analysis, section 2.6, from memory).
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
