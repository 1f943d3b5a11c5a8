import fc from "fast-check";
import * as reference from "simple-statistics";
import {
  chiSquared,
  fTail,
  garwood,
  lag1,
  mean,
  meanInterval,
  normalQuantile,
  poissonUpper,
  quantile,
  seeded,
  standardDeviation,
  tQuantile,
  tTwoSided,
  varianceOf,
  wilson,
} from ".";

const some = fc.array(fc.double({ min: 0.01, max: 1e6, noNaN: true }), { minLength: 1, maxLength: 60 });

describe("quantile, Hyndman & Fan (1996) type 7", () => {
  it("interpolates between order statistics", () => expect(quantile([1, 2, 3, 4], 0.5)).toBe(2.5));
  it("agrees with a reference library at the median, its own definition of type 7", () => {
    fc.assert(
      fc.property(some, (values) => {
        const sorted = [...values].sort((a, b) => a - b);
        expect(quantile(sorted, 0.5)).toBeCloseTo(reference.median(sorted), 6);
      }),
    );
  });
  it("agrees with the definition x[h] + (h − ⌊h⌋)(x[h+1] − x[h]), h = (n − 1)p", () => {
    // R's documented example for type 7: quantile(1:9, 0.99) is 8.92.
    expect(quantile([1, 2, 3, 4, 5, 6, 7, 8, 9], 0.99)).toBeCloseTo(8.92, 12);
    expect(quantile([10, 20], 0.25)).toBe(12.5);
  });
  it("stays between the least and the greatest", () => {
    fc.assert(
      fc.property(some, fc.double({ min: 0, max: 1, noNaN: true }), (values, p) => {
        const sorted = [...values].sort((a, b) => a - b);
        const at = quantile(sorted, p);
        expect(at).toBeGreaterThanOrEqual(sorted[0]);
        expect(at).toBeLessThanOrEqual(sorted[sorted.length - 1]);
      }),
    );
  });
  it("refuses no values and shares outside 0…1", () => {
    expect(() => quantile([], 0.5)).toThrow(RangeError);
    expect(() => quantile([1], 1.1)).toThrow(RangeError);
  });
});

describe("mean and standard deviation, NIST StRD univariate", () => {
  const alternating = (base: number) => [
    base + 0.2,
    ...Array.from({ length: 1000 }, (_, i) => base + (i % 2 === 0 ? 0.1 : 0.3)),
  ];
  it("NumAcc1: mean 10000002, SD 1", () => {
    const values = [10000001, 10000003, 10000002];
    expect(mean(values)).toBe(10000002);
    expect(standardDeviation(values)).toBe(1);
  });
  it.each([
    [1, 1.2, 12],
    [1000000, 1000000.2, 8],
    [10000000, 10000000.2, 7],
  ])("NumAcc2…4 on base %d: mean %d, SD 0.1", (base, certified, digits) => {
    const values = alternating(base);
    expect(mean(values)).toBeCloseTo(certified, digits);
    expect(standardDeviation(values)).toBeCloseTo(0.1, digits);
  });
});

describe("intervals", () => {
  it("t, 9 degrees of freedom, 97.5 %: 2.262157 (any t table)", () =>
    expect(tQuantile(0.975, 9)).toBeCloseTo(2.262157, 6));
  it("normal, 97.5 %: 1.959964 (any table)", () => expect(normalQuantile(0.975)).toBeCloseTo(1.959964, 6));
  it("Wilson (1927), 8 of 10: 0.4902 … 0.9433", () => {
    const { low, high } = wilson(8, 10);
    expect(low).toBeCloseTo(0.4902, 4);
    expect(high).toBeCloseTo(0.9433, 4);
  });
  it("Garwood (1936), 5 events: 1.6235 … 11.6683; none: 0 … 3.6889", () => {
    expect(garwood(5).low).toBeCloseTo(1.6235, 4);
    expect(garwood(5).high).toBeCloseTo(11.6683, 4);
    expect(garwood(0)).toEqual({ low: 0, high: expect.closeTo(3.6889, 4) });
  });
  it("rule of three (Hanley & Lippman-Hand 1983): none seen, at most 2.9957 at 95 %", () =>
    expect(poissonUpper(0)).toBeCloseTo(2.9957, 4));
  it("one crash in one hour: 0.03 … 5.57 per hour (common practice)", () => {
    expect(garwood(1).low).toBeCloseTo(0.03, 2);
    expect(garwood(1).high).toBeCloseTo(5.57, 2);
  });
  it("dependent readings widen a mean's interval", () => {
    const values = Array.from({ length: 20 }, (_, i) => 50 + (i % 5));
    const width = (r: number) => {
      const { low, high } = meanInterval(values, 52, 1.5, r);
      return high - low;
    };
    expect(width(0.6)).toBeGreaterThan(width(0));
    expect(width(-0.5)).toBe(width(0));
  });
});

describe("lag-1 autocorrelation, biased estimator", () => {
  it("of values that take turns tends to −1", () =>
    expect(lag1(Array.from({ length: 1000 }, (_, i) => (i % 2 ? 16 : 50)))!).toBeCloseTo(-0.999, 3));
  it("of equal values can't be told", () => expect(lag1(new Array(50).fill(1000 / 60))).toBeNull());
  it("agrees with the sums written out", () => {
    const values = [3, 1, 4, 1, 5, 9, 2, 6];
    const centre = reference.mean(values);
    const over = values.slice(1).reduce((sum, value, i) => sum + (value - centre) * (values[i] - centre), 0);
    expect(lag1(values)).toBeCloseTo(over / values.reduce((sum, value) => sum + (value - centre) ** 2, 0), 12);
  });
});

describe("seeded randomness", () => {
  it("repeats itself, and differs by seed and by split", () => {
    const draw = (seed: number) =>
      Array.from(
        { length: 5 },
        (
          (random) => () =>
            random.uniform()
        )(seeded(seed)),
      );
    expect(draw(7)).toEqual(draw(7));
    expect(draw(7)).not.toEqual(draw(8));
    expect(seeded(7).split(1).uniform()).not.toBe(seeded(7).split(2).uniform());
  });
  it("normal draws have mean 0 and SD 1 within sampling error", () => {
    const random = seeded(42);
    const values = Array.from({ length: 20_000 }, () => random.normal());
    expect(Math.abs(mean(values))).toBeLessThan(0.03);
    expect(Math.abs(standardDeviation(values) - 1)).toBeLessThan(0.03);
  });
});

describe("χ² draws (Marsaglia & Tsang 2000)", () => {
  it.each([[1], [3], [12]])(
    "with %d degrees of freedom have that mean and twice that variance (textbook)",
    (freedom) => {
      const random = seeded(freedom);
      const drawn = Float64Array.from({ length: 20_000 }, () => chiSquared(random, freedom));
      expect(mean(drawn) / freedom).toBeCloseTo(1, 1);
      expect(varianceOf(drawn) / (2 * freedom)).toBeGreaterThan(0.9);
      expect(varianceOf(drawn) / (2 * freedom)).toBeLessThan(1.1);
    },
  );
});

it("tails: |t| of 2.262157 with 9 degrees of freedom is one in twenty; F of 4.9646 with 1 and 10 too (any table)", () => {
  expect(tTwoSided(2.262157, 9)).toBeCloseTo(0.05, 6);
  expect(fTail(4.9646, 1, 10)).toBeCloseTo(0.05, 4);
});
