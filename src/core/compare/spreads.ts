import type { NoiseFloor } from "./shape";

/** A spread of one run that is possible, and how likely it is before the runs are looked at. */
export interface Spread {
  sd: number;
  weight: number;
}

/** Spreads that are reckoned with, as SDs of log rate, and the steps between them. */
const least = 0.0005,
  most = 3,
  points = 44;
/** What is too unlikely to matter. */
const negligible = 1e-6;
/** Freedom from which a floor is of measured titles, and may be another title's. */
const measuredFrom = 2;
/**
 * One title in five doesn't spread as the rig's others do: about three times as much, nine in ten between 1.3
 * and 7 times. Ours; it lets the runs of a title contradict the floor of calmer ones.
 */
const unlikeOthers = { weight: 0.2, times: 3, logSd: 0.5 };

function weighed(spreads: Spread[]): Spread[] {
  const total = spreads.reduce((sum, { weight }) => sum + weight, 0);
  return spreads
    .map(({ sd, weight }) => ({ sd, weight: weight / total }))
    .filter(({ weight }) => weight > negligible);
}

/** Density of a log-normal over log SD, up to a factor. */
const logNormal = (sd: number, median: number, logSd: number) =>
  Math.exp(-0.5 * (Math.log(sd / median) / logSd) ** 2) / logSd;

/** What a run's own frames say of its spread is worth so many repeats, for every run. */
const withinFreedom = 2;

/**
 * A floor with what the runs' own frames leave open; freedom after Satterthwaite (1946). A measured floor holds
 * both already.
 *
 * @param within variance that a run's own frames leave open
 * @param runs that were measured
 */
export function withFrames({ sd, freedom, betweenOnly }: NoiseFloor, within: number, runs: number): NoiseFloor {
  const between = sd ** 2;
  const ofFrames = withinFreedom * runs;
  if (betweenOnly)
    return {
      sd: Math.sqrt(between + within),
      freedom: (between + within) ** 2 / (between ** 2 / freedom + within ** 2 / ofFrames),
    };
  return within > between ? { sd: Math.sqrt(within), freedom: Math.min(freedom, ofFrames) } : { sd, freedom };
}

/**
 * The spread of one run before the runs at hand speak: log-normal about the floor, as sure as its repeats make
 * it (the log of an SD of ν degrees of freedom varies by about 1/2ν), with a chance that this title doesn't
 * spread as others do.
 */
export function believedSpreads({ sd: median, freedom }: Pick<NoiseFloor, "sd" | "freedom">): Spread[] {
  const logSd = Math.sqrt(1 / (2 * freedom));
  const unlike = freedom > measuredFrom ? unlikeOthers.weight : 0;
  const step = Math.log(most / least) / (points - 1);
  return weighed(
    Array.from({ length: points }, (_, index) => {
      const sd = least * Math.exp(step * index);
      const own = logNormal(sd, median, logSd);
      const other = logNormal(sd, unlikeOthers.times * median, unlikeOthers.logSd);
      return { sd, weight: (1 - unlike) * own + unlike * other };
    }),
  );
}

/**
 * Spreads of which nothing is known beforehand, all as likely on a log scale: from what one frame or window
 * comes to, up to several times what the runs show.
 *
 * @param within variance that a run's own frames leave open, over 0
 * @param range largest less smallest value of the runs
 */
export function anySpreads(within: number, range: number): Spread[] {
  const low = Math.sqrt(within),
    high = 4 * Math.max(low, range);
  const step = Math.log(high / low) / (points - 1);
  return weighed(
    Array.from({ length: points }, (_, index) => ({ sd: low * Math.exp(step * index), weight: 1 })),
  );
}
