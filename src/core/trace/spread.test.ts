import { frameSpread } from "./spread";
import type { Trace } from "./types";

const frames = (frameTimes: number[]): Trace => ({
  form: "frames",
  frameTimes: Float64Array.from(frameTimes),
  channels: [],
  marks: [],
});

describe("how frame times are spread", () => {
  it("the curve is the quantiles of Hyndman and Fan's type 7", () => {
    // Their 1 to 11: the quartiles are 3.5, 6 and 8.5 (R's default, from memory).
    const spread = frameSpread(frames([11, 1, 10, 2, 9, 3, 8, 4, 7, 5, 6]));
    const at = (share: number) => spread?.curve.find((each) => each.share === share)?.ms;
    expect([at(0), at(0.25), at(0.5), at(0.75), at(1)]).toEqual([1, 3.5, 6, 8.5, 11]);
  });
  it("every frame stands in one bin, those outside the range in the outermost", () => {
    const spread = frameSpread(frames([5, 16, 17, 17, 400]), [10, 20]);
    expect(spread?.histogram.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 12);
    expect([spread?.histogram[0]?.share, spread?.histogram.at(-1)?.share]).toEqual([0.2, 0.2]);
  });
  it("readings have no frames to spread, and equal frames are no error", () => {
    expect(
      frameSpread({
        form: "interval",
        durations: Float64Array.of(1),
        rates: Float64Array.of(60),
        channels: [],
        marks: [],
      }),
    ).toBeNull();
    expect(frameSpread(frames([16, 16, 16]))?.curve.every(({ ms }) => ms === 16)).toBe(true);
  });
});
