import { scaleLinear } from "d3-scale";
import { linear } from "./linear";

/** Checked against a general-purpose library of scales. */
describe("a linear scale", () => {
  it.each([
    [
      [0, 10],
      [44, 144],
    ],
    [
      [16.6, 70.2],
      [200, 4],
    ],
    [
      [-3, 8],
      [0, 1],
    ],
  ] as const)("lays %j over %j as the library does", (domain, range) => {
    const own = linear(domain, range);
    const reference = scaleLinear(domain, range);
    for (const value of [-5, 0, 3.3, 16.6, 40, 99]) expect(own(value)).toBeCloseTo(reference(value), 9);
    for (const place of [-5, 0, 50, 100, 250])
      expect(own.invert(place)).toBeCloseTo(reference.invert(place), 9);
    for (const count of [2, 3, 4, 6, 9, 15]) expect(own.ticks(count)).toEqual(reference.ticks(count));
  });
  it("a domain without width lies at the start", () => {
    const own = linear([5, 5], [10, 90]);
    expect([own(5), own(7), own.invert(50)]).toEqual([10, 10, 5]);
  });
});
