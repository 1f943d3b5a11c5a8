import { words } from "@/core/words";
import { seeded } from "@/core/stats";
import type { FrameTrace } from "@/core/trace";
import { armOrder, assumedNoise, compareArms, effectiveFps, noiseFloor, rigNoise, stillToRun } from ".";

const run = (fps: number, seed: number): FrameTrace => {
  const random = seeded(seed);
  return {
    form: "frames",
    frameTimes: Float64Array.from({ length: fps * 30 }, () => (1000 / fps) * Math.exp(0.05 * random.normal())),
    channels: [],
    marks: [],
  };
};
const arm = (fps: number, seed: number) =>
  [0, 1, 2, 3].map((k) => run(fps * (1 + 0.004 * (k - 1.5)), seed + k));
const options = { targetFps: 60, nativeFps: 60, resamples: 200, noise: { sd: 0.01, freedom: 20 } };

describe("any number of arms", () => {
  const made = compareArms([arm(40, 1), arm(52, 10), arm(40.2, 20)], options);
  it("every pair, with the correction for many looks named", () => {
    expect(made.pairs.map(({ a, b, decision }) => [a, b, decision])).toEqual([
      [0, 1, "better"],
      [0, 2, expect.stringMatching(/undecided|no difference/)],
      [1, 2, "worse"],
    ]);
    expect(made.notes.map(words).join()).toMatch(/Holm 1979/);
  });
  it("one wins, and two that can't be told apart stay a tie", () => {
    expect(made.best).toEqual([1]);
    const tie = compareArms([arm(40, 1), arm(52, 10), arm(52.1, 20)], options);
    expect(tie.best.sort()).toEqual([1, 2]);
  });
  it("two arms need no correction", () =>
    expect(compareArms([arm(40, 1), arm(52, 10)], options)).toMatchObject({
      notes: [],
      pairs: [{ decision: "better" }],
    }));
  it("refuses one arm alone", () => expect(() => compareArms([arm(40, 1)], options)).toThrow(RangeError));
  it("corrected p is never smaller than the plain one", () => {
    for (const { p, comparison } of made.pairs) expect(p).toBeGreaterThanOrEqual(comparison.p - 1e-12);
  });
});

describe("runs held by a cap", () => {
  const capped = (fps: number, seed: number): FrameTrace => {
    const random = seeded(seed);
    return {
      form: "frames",
      frameTimes: Float64Array.from({ length: 1500 }, () => 1000 / fps + 0.05 * random.normal()),
      channels: [],
      marks: [],
    };
  };
  it("are no different, and it says that what they could do free isn't seen", () => {
    const { pairs } = compareArms(
      [
        [capped(60, 1), capped(60, 2), capped(60, 3)],
        [capped(60, 4), capped(60, 5), capped(60, 6)],
      ],
      { ...options, noise: { sd: 0.02, freedom: 60 } },
    );
    expect(pairs[0].decision).toBe("no difference");
    expect(pairs[0].comparison.notes.map(words).join()).toMatch(/could do free/);
  });
});

describe("the order of runs", () => {
  it("favours no arm: 0 1 2, 2 1 0", () => expect(armOrder(3, 2)).toEqual([0, 1, 2, 2, 1, 0]));
  it("what is left is the plan less what was run, in whatever order", () => {
    expect(stillToRun(2, 3, [0, 1, 1])).toEqual([0, 0, 1]);
    expect(stillToRun(2, 2, [1, 1, 1])).toEqual([0, 0]);
    expect(stillToRun(2, 1, [0, 1])).toEqual([]);
  });
});

it("a rig's own noise is said to be measured from four degrees of freedom on, and every repeat moves what is believed before", () => {
  const few = rigNoise(noiseFloor([[60, 61, 60.5]]));
  expect(few.measured).toBe(false);
  expect(few.noise.sd).toBeLessThan(assumedNoise.sd);
  expect(rigNoise(null)).toEqual({ noise: assumedNoise, measured: false });
  expect(
    rigNoise(
      noiseFloor([
        [60, 61, 60.5],
        [40, 41, 40.4],
      ]),
    ),
  ).toMatchObject({ measured: true, noise: { freedom: expect.closeTo(4 + assumedNoise.freedom, 9) } });
});
it("runs of several scenes under one setting don't pass for repeats", () => {
  const quiet = [
    [60, 61, 60.5],
    [40, 41, 40.4],
  ];
  expect(noiseFloor([...quiet, [108, 44, 22, 9, 4]])).toEqual(noiseFloor(quiet));
});
it("71 % reported of 60 counts as 42.6 fps, whatever the counter shows", () => {
  expect(effectiveFps({ reportedSpeedPercent: 71, averageFps: 60 }, 60)).toBeCloseTo(42.6, 9);
  expect(effectiveFps({ reportedSpeedPercent: null, averageFps: 51 }, 60)).toBe(51);
});
