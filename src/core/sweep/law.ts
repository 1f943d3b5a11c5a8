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
