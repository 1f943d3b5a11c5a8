import type { HeatFit } from "./heat";
import type { ScaleLaw } from "./scaleLaw";

/** Flat, then sloped: frame time by megapixels, ms. */
export interface Law {
  /** Null where no level showed it. */
  floor: number | null;
  intercept: number;
  slope: number;
}

/** Frame time of such a law, ms. */
export const lawAt = ({ floor, intercept, slope }: Law, megapixels: number) =>
  Math.max(floor ?? -Infinity, intercept + slope * megapixels);

/** Frame time that a fitted law gives so many rendered megapixels, ms. */
export const frameTimeAt = (law: ScaleLaw, megapixels: number): number =>
  lawAt(
    { floor: law.floorSeen ? law.floorMs : null, intercept: law.interceptMs, slope: law.msPerMegapixel },
    megapixels,
  );

/** What a warming curve is told by. */
export type Curve = Pick<HeatFit, "startC" | "settledC" | "settleSeconds" | "parts">;

/** Temperature on a warming curve: T∞ − (T∞ − T0)·e^(−t/τ), or the sum of its parts, °C. */
export const heatAt = ({ startC, settledC, settleSeconds, parts }: Curve, seconds: number) =>
  parts
    ? parts.reduce((sum, part) => sum + part.riseC * (1 - Math.exp(-seconds / part.settleSeconds)), startC)
    : settledC - (settledC - startC) * Math.exp(-seconds / settleSeconds);
