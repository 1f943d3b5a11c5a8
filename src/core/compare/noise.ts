import jstat from "jstat";

/** How much a rig varies by itself: SD of log average fps over repeats of identical settings, and the degrees of freedom behind it. */
export interface NoiseFloor {
  sd: number;
  freedom: number;
  /** True for a figure that someone gave: it says how runs differ beyond what their own frames leave open. A measured floor holds both. */
  betweenOnly?: boolean;
}

/** Until a rig has repeats of its own: 2 %, weighed as sixty repeats would be; runs that show far more are believed instead. */
export const assumedNoise: NoiseFloor = { sd: 0.02, freedom: 60, betweenOnly: true };

/** Runs that differ by more than this SD of logs aren't repeats, whatever their settings say: another scene, another log. */
const mostSpread = 0.1;

/**
 * Pooled SD over groups of repeats: the root of Σ(x − group mean)² / Σ(n − 1).
 * Groups that spread by more than 10 % are left out: they hold more than one scene.
 *
 * @param groups average fps of runs with identical settings, a group each
 * @returns null when no group has two repeats
 */
export function noiseFloor(groups: number[][]): NoiseFloor | null {
  let squares = 0,
    freedom = 0;
  for (const group of groups) {
    if (group.length < 2) continue;
    const logs = group.map(Math.log);
    const centre = logs.reduce((sum, x) => sum + x, 0) / logs.length;
    const own = logs.reduce((sum, x) => sum + (x - centre) ** 2, 0);
    if (own > mostSpread ** 2 * (group.length - 1)) continue;
    squares += own;
    freedom += group.length - 1;
  }
  return freedom === 0 ? null : { sd: Math.sqrt(squares / freedom), freedom };
}

/** Degrees of freedom from which a rig's own floor is believed. */
const enoughRepeats = 4;

/** A rig's own floor where its repeats are enough, else the assumed one. @param floor of its repeats; null without any */
export function rigNoise(floor: NoiseFloor | null): { noise: NoiseFloor; measured: boolean } {
  return floor && floor.freedom >= enoughRepeats
    ? { noise: floor, measured: true }
    : { noise: assumedNoise, measured: false };
}

/** Runs that vary so much more than the rig's floor that chance explains it in fewer than one case of a hundred speak for themselves. */
const surprise = 0.01;

/**
 * The spread to reckon with: what the runs at hand show, pooled with the floor by degrees of freedom,
 * unless they show far more than the floor (one-sided F test at 1 %).
 *
 * @param squares sum of squared deviations of the runs at hand
 * @param freedom their degrees of freedom; 0 borrows the floor whole
 */
export function reckonedSpread(
  squares: number,
  freedom: number,
  floor: NoiseFloor,
): { variance: number; freedom: number; borrowed: boolean } {
  const own = freedom > 0 ? squares / freedom : 0;
  const floorVariance = floor.sd ** 2;
  if (freedom > 0 && 1 - jstat.centralF.cdf(own / floorVariance, freedom, floor.freedom) < surprise)
    return { variance: own, freedom, borrowed: false };
  return {
    variance: (squares + floor.freedom * floorVariance) / (freedom + floor.freedom),
    freedom: freedom + floor.freedom,
    borrowed: freedom < 4,
  };
}
