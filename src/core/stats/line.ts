/** A least-squares line: y = intercept + slope · x. */
export interface Line {
  intercept: number;
  slope: number;
}

/**
 * Weighted least-squares line.
 * @param x length n ≥ 1
 * @param weights length n, all > 0; equal ones give the ordinary line
 * @returns slope 0 through the mean where all x are equal
 * @example weightedLine([0, 1], [1, 3], [1, 1]) // → { intercept: 1, slope: 2 }
 */
export function weightedLine(x: ArrayLike<number>, y: ArrayLike<number>, weights: ArrayLike<number>): Line {
  let weight = 0, meanX = 0, meanY = 0;
  for (let i = 0; i < x.length; i++) {
    weight += weights[i];
    meanX += (weights[i] / weight) * (x[i] - meanX);
    meanY += (weights[i] / weight) * (y[i] - meanY);
  }
  let squares = 0, products = 0;
  for (let i = 0; i < x.length; i++) {
    squares += weights[i] * (x[i] - meanX) ** 2;
    products += weights[i] * (x[i] - meanX) * (y[i] - meanY);
  }
  const slope = squares > 0 ? products / squares : 0;
  return { slope, intercept: meanY - slope * meanX };
}
