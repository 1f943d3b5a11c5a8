import type { Looked } from "./shape";
import { lag1, mean, standardDeviation, tQuantile, unbiasedLag1 } from "@/core/stats";

/** A counter shows the frames of about one second: readings nearer to one another are one look, ms. */
export const counterWindowMs = 1000;
/** Clocks and hands are a little early: a reading so long after a look's first is another look, ms. */
export const apartForOneLook = 0.9 * counterWindowMs;

/** Most decimals that a counter shows. */
const mostDecimals = 2;

/**
 * The last digit of readings: 1 for whole numbers, 0.1 or 0.01 where a counter shows decimals, fps.
 * @param rates kept with 32 bits, so that decimals are known to a thousandth
 */
export function unitOf(rates: ArrayLike<number>): number {
  for (let decimals = 0; decimals < mostDecimals; decimals++) {
    const scale = 10 ** decimals;
    if (
      Array.prototype.every.call(
        rates,
        (rate: number) => Math.abs(rate * scale - Math.round(rate * scale)) < 1e-3,
      )
    )
      return 1 / scale;
  }
  return 10 ** -mostDecimals;
}

/** Whether readings are whole numbers throughout, as a counter without decimals shows them. */
export const areWhole = (rates: ArrayLike<number>): boolean => rates.length > 0 && unitOf(rates) === 1;

/**
 * Readings as looks: those within a counter's window of one another are one, with their mean.
 * @param durations ms that each reading stands for: the time since the one before; length N ≥ 1
 * @param rates     fps, length N
 */
export function looksOf(durations: ArrayLike<number>, rates: ArrayLike<number>): number[] {
  const looks: number[][] = [];
  let since = Infinity;
  for (let i = 0; i < rates.length; i++) {
    since += durations[i] ?? 0;
    if (i === 0 || since >= apartForOneLook - 1e-6) {
      looks.push([]);
      since = 0;
    }
    looks.at(-1)?.push(rates[i] ?? 0);
  }
  return looks.map(mean);
}

/** From so many looks on, how they follow one another is read off them; fewer can't show it. */
const enoughToFollow = 8;
/** The least degrees of freedom from so many looks on: the mean is spent, and how they follow one another. */
const leastFreedom = enoughToFollow - 2;
/** However closely looks follow one another, so much is the most that is believed. */
const mostFollowing = 0.8;

/** How much the spread of a mean is larger because looks follow one another: (1 + r)/(1 − r) of an AR(1) series. */
function following(looks: number[]): number {
  const n = looks.length;
  const raw = n < enoughToFollow ? null : lag1(looks);
  if (raw === null) return 1;
  const r = Math.max(0, Math.min(mostFollowing, unbiasedLag1(raw, n)));
  return (1 + r) / (1 - r);
}

/**
 * Whether a display is seen to cut off a steady rate that lies between two numbers: readings sit on the number
 * under the target, and none on the one over it.
 */
function cutsOff(looks: number[], target: number, unit: number): boolean {
  const under = unit * Math.floor(target / unit);
  if (looks.length < 5 || target - under < 0.2 * unit) return false;
  const near = (rate: number) => looks.filter((look) => Math.abs(look - rate) < 1e-3).length / looks.length;
  return near(under) >= 0.8 && near(under + unit) === 0;
}

/**
 * What readings leave open of the average rate: 95 % by Student's t of the looks, and what the last digit hides: half
 * of it to each side; where a display is seen to cut off, all of it upwards. Frames counted in a window are known to
 * one, and that error is another at every look: it doesn't follow from look to look, whatever the rate does.
 * A single look is known to its own digit to both sides.
 *
 * @param average  of the readings over their time, fps
 * @param target   the rate that a cap or the title may hold it at, fps
 */
export function lookedAverage(
  durations: ArrayLike<number>,
  rates: ArrayLike<number>,
  average: number,
  target: number,
): Looked {
  const unit = unitOf(rates);
  const looks = looksOf(durations, rates);
  const n = looks.length;
  if (n < 2)
    return { looks: n, effective: n, interval: { low: Math.max(0, average - unit), high: average + unit } };
  const sd = standardDeviation(looks);
  const counting = Math.min(sd * sd, (unit / 2) ** 2);
  const spread = counting + (sd * sd - counting) * following(looks);
  const effective = spread > 0 ? (n * sd * sd) / spread : n;
  const freedom = n < enoughToFollow ? n - 1 : Math.max(leastFreedom, effective - 1);
  const half = tQuantile(0.975, freedom) * Math.sqrt(spread / n);
  const hidden = cutsOff(looks, target, unit) ? { under: 0, over: unit } : { under: unit / 2, over: unit / 2 };
  return {
    looks: n,
    effective,
    interval: { low: Math.max(0, average - half - hidden.under), high: average + half + hidden.over },
  };
}
