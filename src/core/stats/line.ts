/** A least-squares line: y = intercept + slope · x. */
export interface Line {
  intercept: number;
  slope: number;
}

/**
 * Weighted least-squares line.
 * @param x length n ≥ 1
 * @param weights length n, all > 0; none give the ordinary line
 * @returns slope 0 through the mean where all x are equal
 * @example weightedLine([0, 1], [1, 3], [1, 1]) // → { intercept: 1, slope: 2 }
 */
export function weightedLine(x: ArrayLike<number>, y: ArrayLike<number>, weights?: ArrayLike<number>): Line {
  let weight = 0,
    meanX = 0,
    meanY = 0;
  for (let i = 0; i < x.length; i++) {
    const w = weights ? weights[i] : 1;
    weight += w;
    meanX += (w / weight) * (x[i] - meanX);
    meanY += (w / weight) * (y[i] - meanY);
  }
  let squares = 0,
    products = 0;
  for (let i = 0; i < x.length; i++) {
    const off = x[i] - meanX,
      w = weights ? weights[i] * off : off;
    squares += w * off;
    products += w * (y[i] - meanY);
  }
  const slope = squares > 0 ? products / squares : 0;
  return { slope, intercept: meanY - slope * meanX };
}
