import { mean } from "@/core/stats";

/**
 * Expected block length for the stationary bootstrap of a series' mean.
 *
 * Politis & White (2004) with the correction of Patton, Politis & White (2009): lag windows by the flat-top
 * kernel, the number of lags by the first run of insignificant autocorrelations (c = 2).
 *
 * @param series length n ≥ 1
 * @returns 1 … min(3√n, n/3), in values
 */
export function blockLength(series: ArrayLike<number>): number {
  const n = series.length;
  if (n < 12) return 1;
  const centre = mean(series);
  const off = Float64Array.from(series, (value) => value - centre);
  const autocovariance = (lag: number) => {
    let sum = 0;
    for (let i = lag; i < n; i++) sum += off[i] * off[i - lag];
    return sum / n;
  };
  const variance = autocovariance(0);
  if (!(variance > (Math.abs(centre) * 1e-9) ** 2)) return 1;
  const quiet = Math.max(5, Math.ceil(Math.sqrt(Math.log10(n))));
  const mostLags = Math.ceil(Math.sqrt(n)) + quiet;
  const significant = 2 * Math.sqrt(Math.log10(n) / n);
  const covariances = [variance];
  let lastLoud = 0,
    silent = 0;
  for (let lag = 1; lag <= mostLags && silent < quiet; lag++) {
    covariances.push(autocovariance(lag));
    if (Math.abs(covariances[lag] / variance) >= significant) {
      lastLoud = lag;
      silent = 0;
    } else silent++;
  }
  const window = Math.min(2 * Math.max(1, lastLoud), mostLags);
  for (let lag = covariances.length; lag <= window; lag++) covariances.push(autocovariance(lag));
  let spectrum = variance,
    slope = 0;
  for (let lag = 1; lag <= window; lag++) {
    const share = lag / window;
    const weight = share <= 0.5 ? 1 : 2 * (1 - share);
    spectrum += 2 * weight * covariances[lag];
    slope += 2 * weight * lag * covariances[lag];
  }
  const most = Math.ceil(Math.min(3 * Math.sqrt(n), n / 3));
  const length = Math.cbrt((slope * slope) / (spectrum * spectrum)) * Math.cbrt(n);
  return Math.min(most, Math.max(1, length));
}
