import { linearRegression } from "simple-statistics";
import { betaQuantile, seeded, theilSen, thinned, weightedLine } from ".";

// NIST StRD linear regression, Norris: (x, y), 36 points; certified slope and intercept.
const norris = [
  [0.2, 0.1],
  [337.4, 338.8],
  [118.2, 118.1],
  [884.6, 888],
  [10.1, 9.2],
  [226.5, 228.1],
  [666.3, 668.5],
  [996.3, 998.5],
  [448.6, 449.1],
  [777, 778.9],
  [558.2, 559.2],
  [0.4, 0.3],
  [0.6, 0.1],
  [775.5, 778.1],
  [666.9, 668.8],
  [338, 339.3],
  [447.5, 448.9],
  [11.6, 10.8],
  [556, 557.7],
  [228.1, 228.3],
  [995.8, 998],
  [887.6, 888.8],
  [120.2, 119.6],
  [0.3, 0.3],
  [0.3, 0.6],
  [556.8, 557.6],
  [339.1, 339.3],
  [887.2, 888],
  [999, 998.5],
  [779, 778.9],
  [11.1, 10.2],
  [118.3, 117.6],
  [229.2, 228.9],
  [669.1, 668.4],
  [448.9, 449.2],
  [0.5, 0.2],
];
const x = norris.map(([at]) => at),
  y = norris.map(([, value]) => value);

describe("weighted line", () => {
  it("gives NIST's certified Norris line", () => {
    const { slope, intercept } = weightedLine(
      x,
      y,
      x.map(() => 1),
    );
    expect(slope).toBeCloseTo(1.00211681802045, 10);
    expect(intercept).toBeCloseTo(-0.262323073774029, 9);
  });
  it("whole weights are repeats, as a reference library sees them", () => {
    const weights = x.map((_, i) => 1 + (i % 3));
    const { m, b } = linearRegression(norris.flatMap((point, i) => new Array(weights[i]).fill(point)));
    const made = weightedLine(x, y, weights);
    expect(made.slope).toBeCloseTo(m, 10);
    expect(made.intercept).toBeCloseTo(b, 8);
  });
  it("is flat through the mean where all x are one", () =>
    expect(weightedLine([2, 2], [1, 3], [1, 1])).toEqual({ slope: 0, intercept: 2 }));
});

describe("Theil–Sen (Sen 1968)", () => {
  it("stays with the line while 29 % of the points are wild", () => {
    const wild = x.map((at, i) => (i % 7 < 2 ? 5000 : 2 * at + 1));
    expect(theilSen(x, wild).slope).toBeGreaterThan(1.8);
    expect(
      theilSen(
        x,
        x.map((at) => 2 * at + 1),
      ).slope,
    ).toBeCloseTo(2, 12);
  });
  it("its interval holds the truth about 95 % of the time", () => {
    let held = 0;
    for (let seed = 0; seed < 300; seed++) {
      const random = seeded(seed);
      const at = Array.from({ length: 25 }, (_, i) => i);
      const { low, high } = theilSen(
        at,
        at.map((i) => 0.7 * i + random.normal()),
      );
      if (low <= 0.7 && 0.7 <= high) held++;
    }
    expect(held / 300).toBeGreaterThan(0.92);
  });
  it("needs two distinct places", () => expect(() => theilSen([1, 1], [2, 3])).toThrow(RangeError));
});

it("thinning keeps means: what was averaged averages the same", () => {
  const made = thinned([1, 2, 3, 4, 5, 6], [10, 20, 30, 40, 50, 60], 3);
  expect([...made.times]).toEqual([1.5, 3.5, 5.5]);
  expect([...made.values]).toEqual([15, 35, 55]);
  expect([...thinned([1, 2], [3, 4], 10).values]).toEqual([3, 4]);
});

it("the beta quantile of an even start is the share itself", () =>
  expect(betaQuantile(0.3, 1, 1)).toBeCloseTo(0.3, 9));
