import { normalMixture } from ".";

describe("a mixture of normals", () => {
  it("of one part is the normal: 1.959964 at 97.5 % (handbook table)", () => {
    const { quantile, below } = normalMixture([{ weight: 3, at: 2, sd: 0.5 }]);
    expect(quantile(0.975)).toBeCloseTo(2 + 0.5 * 1.959964, 6);
    expect(below(2)).toBeCloseTo(0.5, 9);
  });
  it("gives back the share of every quantile, also between parts that lie far apart", () => {
    const { quantile, below } = normalMixture([
      { weight: 0.5, at: -10, sd: 0.1 },
      { weight: 0.3, at: 0, sd: 2 },
      { weight: 0.2, at: 40, sd: 0.01 },
    ]);
    for (const share of [0.01, 0.025, 0.3, 0.501, 0.7, 0.85, 0.975])
      expect(below(quantile(share))).toBeCloseTo(share, 6);
  });
});
