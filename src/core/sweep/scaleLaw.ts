import type { ScaleLaw } from "./shape";
import { lawAt, type Law } from "./law";
import { said } from "./codes";
import type { Said } from "@/core/said";
import { quantile, seeded, studentT, weightedLine, type Interval } from "@/core/stats";

/** What was measured at one internal scale: the runs' medians and 99th percentiles, ms. */
export interface ScaleLevel {
  scale: number;
  /** Rendered pixels at that scale, all screens. */
  pixels: number;
  mediansMs: number[];
  p99sMs: number[];
  /** The runs' averages; medians stand in where they aren't given. */
  meansMs?: number[];
  /**
   * Frames follow the display's refreshes, and nothing tells the work behind them: such a level says whether it
   * holds, and nothing between.
   */
  paced?: boolean;
  /** One of its runs is judged slow: such a level doesn't hold, whatever its frames come to. */
  slow?: boolean;
}

/** Least share that a law's frame time may come to: times are never zero. */
const leastMs = 1e-3;

/**
 * The best flat-then-sloped law over every split of the sorted levels, by relative squares.
 *
 * Frame times scatter in proportion to themselves, so squares are weighed by 1/ŷ² (two passes); a split that
 * contradicts itself (its slope above its flat part) costs what the law it makes leaves over.
 *
 * @param x megapixels, ascending, n ≥ 2
 * @param y ms
 */
function bestLaw(x: number[], y: number[], counts: number[]): { law: Law; squares: number; sloped: number } {
  const n = x.length;
  let best: { law: Law; squares: number; sloped: number } | null = null;
  const cost = (law: Law) =>
    y.reduce((sum, ms, i) => sum + counts[i] * Math.log(ms / Math.max(leastMs, lawAt(law, x[i]))) ** 2, 0);
  for (let flat = 0; flat <= n; flat++) {
    if (n - flat === 1) continue;
    let floor: number | null = null;
    if (flat > 0) {
      let logs = 0,
        weight = 0;
      for (let i = 0; i < flat; i++) {
        logs += counts[i] * Math.log(y[i]);
        weight += counts[i];
      }
      floor = Math.exp(logs / weight);
    }
    let law: Law = { floor, intercept: floor ?? 0, slope: 0 };
    if (flat < n) {
      const xs = x.slice(flat),
        ys = y.slice(flat),
        own = counts.slice(flat);
      let line = weightedLine(
        xs,
        ys,
        ys.map((ms, i) => own[i] / ms ** 2),
      );
      line = weightedLine(
        xs,
        ys,
        xs.map((at, i) => own[i] / Math.max(ys[i] / 4, line.intercept + line.slope * at) ** 2),
      );
      if (line.slope < 0) continue;
      law = { floor, ...line };
    }
    const squares = cost(law);
    // A flat part must earn its place: one more parameter has to save a little.
    if (!best || squares < best.squares * (flat > 0 && flat < n ? 0.97 : 1) - 1e-12)
      best = { law, squares, sloped: n - flat };
  }
  return (
    best ?? {
      law: { floor: Math.exp(y.reduce((sum, ms) => sum + Math.log(ms), 0) / n), intercept: 0, slope: 0 },
      squares: 0,
      sloped: 0,
    }
  );
}

/** Scales beyond this are nobody's. */
export const mostScale = 16;
/** Steps finer than this are no setting's. */
export const leastStep = 1 / 64;
/** Until a rig has repeats of its own, runs at one setting are believed to scatter by so much. */
const usualScatter = 0.03;
/** Degrees of freedom that the usual scatter counts for. */
const usualFreedom = 2;
/** A frame this much over what is allowed isn't caught up by an engine that works one frame ahead. */
const caughtUp = 1.5;

const logMean = (values: number[]) =>
  Math.exp(values.reduce((sum, value) => sum + Math.log(value), 0) / values.length);

export interface ScaleLawOptions {
  targetFps: number;
  resamples?: number;
  seed?: number;
  /** Share below the target that still counts. */
  tolerance?: number;
  /** Native pixels, to predict scales that were not measured; from the levels unless given. */
  nativePixels?: number;
  /** Steps of the scale setting. */
  step?: number;
  /** The engine's hold on the rate was let go for these runs. */
  letFree?: boolean;
}

/**
 * Fits the resolution law to a sweep and says the largest scale that holds the target.
 *
 * @param levels at least two distinct scales; their order doesn't matter, levels of one scale are pooled
 * @throws RangeError for fewer than two distinct scales, or steps finer than any setting has
 */
export function fitScaleLaw(
  levels: ScaleLevel[],
  {
    targetFps,
    resamples = 400,
    seed = 1,
    tolerance = 0.01,
    nativePixels,
    step = 1,
    letFree = false,
  }: ScaleLawOptions,
): ScaleLaw {
  const pooled = pool(levels);
  if (pooled.length < 2) throw new RangeError("a law needs two distinct scales");
  if (!(step >= leastStep)) throw new RangeError(`a scale has no steps of ${step}`);
  const x = pooled.map(({ pixels }) => pixels / 1e6);
  const counts = pooled.map(({ mediansMs }) => mediansMs.length);
  const y = pooled.map(({ mediansMs }) => logMean(mediansMs));
  const steady = pooled.map(({ p99sMs }) => logMean(p99sMs));
  const means = pooled.map(({ mediansMs, meansMs }) => logMean(meansMs ?? mediansMs));
  const { law, squares, sloped } = bestLaw(x, y, counts);
  const parameters = law.floor !== null && law.slope > 0 ? 3 : law.slope > 0 ? 2 : 1;
  const freedom = Math.max(0, x.length - parameters);
  // What levels scatter about the law, pooled with what runs scatter anyway.
  const scatter = Math.sqrt((squares + usualFreedom * usualScatter ** 2) / (freedom + usualFreedom));
  const random = seeded(seed);
  // Residuals of a law fitted to few levels come out small: degrees of freedom correct the size, Student's t
  // the tails.
  const laws = Array.from(
    { length: resamples },
    () =>
      bestLaw(
        x,
        x.map(
          (at, i) =>
            lawAt(law, at) *
            Math.exp((scatter * studentT(random, freedom + usualFreedom)) / Math.sqrt(counts[i])),
        ),
        counts,
      ).law,
  );
  const slopes = Float64Array.from(laws, ({ slope }) => slope).sort();
  const slopeInterval = between(slopes);
  const limit = 1000 / (targetFps * (1 - tolerance));
  const unit = nativePixels ?? pooled[0].pixels / pooled[0].scale ** 2;
  const measured = pooled.map(({ scale }) => scale);
  const most = Math.min(mostScale, Math.ceil(measured[measured.length - 1]) + 2);
  const scales: number[] = [];
  for (let k = 1; k * step <= most + 1e-9; k++) scales.push(k * step);
  const pixelsAt = (scale: number) => (unit * scale ** 2) / 1e6;
  const largest = (from: Law) => scales.filter((scale) => lawAt(from, pixelsAt(scale)) <= limit).at(-1) ?? null;
  const pixelShare = law.slope * x[x.length - 1];
  const limitedByPixels = slopeInterval.low > 0 && pixelShare > 0.05 * lawAt(law, x[x.length - 1]);
  const steadyLaw = bestLaw(x, steady, counts).law,
    meanLaw = bestLaw(x, means, counts).law;
  const notes: Said[] = [];
  // With the display's pace on top, or one sloped level only, the law says nothing between or beyond what was
  // measured.
  const isPaced = pooled.some(({ paced }) => paced);
  const isThin = law.floor !== null && law.slope > 0 && sloped <= 2;
  const onlyMeasured = isPaced || isThin;
  if (isPaced) notes.push(said(letFree ? "resolution.pacedFree" : "resolution.pacedOnly"));
  else if (isThin) notes.push(said("resolution.oneSloped"));
  /** Whether a measured level's runs are fast enough, slow moments aside. */
  const isFast = (at: number) => y[at] <= limit && means[at] <= limit && pooled[at].slow !== true;
  /** Whether a scale holds: by its own runs where it has any, else by the law of each figure. */
  const holds = (scale: number): boolean => {
    const at = measured.indexOf(scale);
    if (at >= 0) return isFast(at) && steady[at] <= caughtUp * limit;
    // What a smaller picture couldn't hold, a larger one doesn't.
    const failed = measured.some((other, i) => other < scale && !isFast(i));
    if (onlyMeasured || failed) return false;
    const by = (from: Law) => lawAt(from, pixelsAt(scale));
    return by(law) <= limit && by(meanLaw) <= limit && by(steadyLaw) <= caughtUp * limit;
  };
  if (x.length < 3) notes.push(said("resolution.twoScales"));
  if (!limitedByPixels) notes.push(said("resolution.notTheLimit"));
  const steps = [...laws.map((from) => largest(from) ?? 0)].sort((a, b) => a - b);
  const candidates = [...new Set([...scales, ...measured])].sort((a, b) => a - b);
  const found = (limitedByPixels && !onlyMeasured ? candidates : measured).filter(holds).at(-1) ?? null;
  if (limitedByPixels && found !== null && found > measured[measured.length - 1])
    notes.push(said("resolution.beyond", { found, most: measured[measured.length - 1] }));
  // A level that only its slowest moments rule out is told of: they needn't go with the picture.
  const passedOver = measured.findIndex(
    (scale, at) => (found === null || scale > found) && isFast(at) && steady[at] > caughtUp * limit,
  );
  if (passedOver >= 0 && found !== null)
    notes.push(
      said("resolution.passedOver", {
        scale: measured[passedOver],
        ms: steady[passedOver],
        allowedMs: caughtUp * limit,
        keptMs: steady[measured.indexOf(found)] ?? null,
      }),
    );
  const least = { median: y[0], average: means[0], "99th percentile": steady[0] / caughtUp };
  const worst = (["median", "average", "99th percentile"] as const).find((what) => least[what] > limit);
  return {
    failing:
      found === null && worst
        ? {
            scale: measured[0],
            what: worst,
            ms: worst === "99th percentile" ? steady[0] : least[worst],
            allowedMs: worst === "99th percentile" ? caughtUp * limit : limit,
          }
        : null,
    floorMs: law.floor ?? Math.max(0, law.intercept),
    floorSeen: law.floor !== null,
    interceptMs: law.intercept,
    msPerMegapixel: law.slope,
    msPerMegapixelInterval: [slopeInterval.low, slopeInterval.high],
    largestScale: found,
    largestSteadyScale:
      limitedByPixels && !onlyMeasured
        ? largest(steadyLaw)
        : (measured.filter((scale, i) => steady[i] <= limit && holds(scale)).at(-1) ?? null),
    largestScaleInterval: onlyMeasured
      ? openBetween(found, measured, scales)
      : limitedByPixels
        ? withMeasured(
            [steps[Math.floor(0.025 * (steps.length - 1))], steps[Math.ceil(0.975 * (steps.length - 1))]],
            found,
          )
        : null,
    limitedByPixels,
    scatter,
    notes,
    predicted: candidates
      .filter((scale) => !onlyMeasured || measured.includes(scale))
      .map((scale) => {
        const megapixels = pixelsAt(scale);
        const draws = Float64Array.from(
          laws,
          (from) =>
            Math.max(leastMs, lawAt(from, megapixels)) *
            Math.exp(scatter * studentT(random, freedom + usualFreedom)),
        ).sort();
        const at = lawAt(law, megapixels);
        return { scale, frameTimeMs: at, ...between(draws), holds: holds(scale) };
      }),
  };
}

/**
 * Where only measured levels speak: from the largest that holds to the one before the smallest that doesn't.
 */
function openBetween(held: number | null, measured: number[], scales: number[]): [number, number] | null {
  const failing = measured.find((scale) => scale > (held ?? 0));
  if (held === null || failing === undefined) return null;
  return [held, scales.filter((scale) => scale < failing).at(-1) ?? held];
}

/** An interval that doesn't leave out what was found. */
const withMeasured = ([low, high]: [number, number], held: number | null): [number, number] => [
  Math.min(low, held ?? 0),
  Math.max(high, held ?? 0),
];

function between(sorted: Float64Array): Interval {
  return { low: quantile(sorted, 0.025), high: quantile(sorted, 0.975) };
}

function pool(levels: ScaleLevel[]): ScaleLevel[] {
  const byScale = new Map<number, ScaleLevel>();
  for (const level of levels) {
    if (level.mediansMs.length === 0) continue;
    const held = byScale.get(level.scale);
    byScale.set(
      level.scale,
      held
        ? {
            ...held,
            mediansMs: [...held.mediansMs, ...level.mediansMs],
            p99sMs: [...held.p99sMs, ...level.p99sMs],
            paced: held.paced === true || level.paced === true,
            slow: held.slow === true || level.slow === true,
            ...(held.meansMs && level.meansMs ? { meansMs: [...held.meansMs, ...level.meansMs] } : {}),
          }
        : level,
    );
  }
  return [...byScale.values()].sort((a, b) => a.scale - b.scale);
}
