/**
 * Readings thinned to at most `most` means of neighbours: what follows one another closely tells little new.
 * @param times ascending; length M
 * @param values length M
 */
export function thinned(
  times: ArrayLike<number>,
  values: ArrayLike<number>,
  most: number,
): { times: Float64Array; values: Float64Array } {
  const count = Math.min(most, times.length);
  const made = { times: new Float64Array(count), values: new Float64Array(count) };
  for (let k = 0; k < count; k++) {
    const from = Math.floor((k * times.length) / count),
      to = Math.floor(((k + 1) * times.length) / count);
    for (let i = from; i < to; i++) {
      made.times[k] += times[i] / (to - from);
      made.values[k] += values[i] / (to - from);
    }
  }
  return made;
}
