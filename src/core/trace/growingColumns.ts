import type { PixelColumns } from "./pixels";

/** Columns at most, and how long each is at first, ms. */
const mostColumns = 600,
  firstMs = 50;

/**
 * Columns of pixels of something that grows: least, greatest and time-weighted mean. When there is no room for more,
 * each two become one of twice the length, so that what is added costs the same however much there is.
 */
export class GrowingColumns {
  private eachMs = firstMs;
  private low: number[] = [];
  private high: number[] = [];
  private sum: number[] = [];
  private weight: number[] = [];

  /** Adds a value that holds from one moment to another, ms from the start, the second greater. */
  add(fromMs: number, toMs: number, value: number): void {
    while (toMs > this.eachMs * mostColumns) this.halve();
    const last = Math.max(Math.ceil(toMs / this.eachMs) - 1, Math.floor(fromMs / this.eachMs));
    for (let at = Math.floor(fromMs / this.eachMs); at <= last; at++) {
      const ms = Math.min(toMs, (at + 1) * this.eachMs) - Math.max(fromMs, at * this.eachMs);
      this.join(at, value, value, value * ms, ms);
    }
  }

  private join(at: number, low: number, high: number, sum: number, weight: number): void {
    this.low[at] = Math.min(this.low[at] ?? low, low);
    this.high[at] = Math.max(this.high[at] ?? high, high);
    this.sum[at] = (this.sum[at] ?? 0) + sum;
    this.weight[at] = (this.weight[at] ?? 0) + weight;
  }

  private halve(): void {
    const { low, high, sum, weight } = this;
    this.eachMs *= 2;
    [this.low, this.high, this.sum, this.weight] = [[], [], [], []];
    for (let at = 0; at < weight.length; at++)
      if (weight[at] !== undefined)
        this.join(at >> 1, low[at] ?? 0, high[at] ?? 0, sum[at] ?? 0, weight[at] ?? 0);
  }

  /** What is drawn from the start to a moment: columns of one length, the last as far as it goes; NaN where nothing is. */
  until(durationMs: number): { endMs: number; columns: PixelColumns } {
    const count = Math.max(1, Math.ceil(durationMs / this.eachMs));
    const filled = (value: (at: number) => number | undefined) =>
      Float32Array.from({ length: count }, (_, at) => value(at) ?? NaN);
    return {
      endMs: count * this.eachMs,
      columns: {
        low: filled((at) => this.low[at]),
        high: filled((at) => this.high[at]),
        mean: filled((at) => (this.sum[at] ?? NaN) / (this.weight[at] ?? NaN)),
      },
    };
  }
}
