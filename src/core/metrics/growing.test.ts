import fc from "fast-check";
import { durationOf, type FrameTrace } from "@/core/trace";
import { averageFps } from "./rate";
import { fullSpeed, fullSpeedOfReadings } from "./fullSpeed";
import { GrowingFigures } from "./growing";
import { hitches } from "./hitches";
import { defaultMeasuring } from "./rules";

/* Figures while a run grows are held against the same figures of the whole, however it was cut. */

/** Cuts a list into pieces of so many values, one after another. */
function cut<Value>(values: Value[], sizes: number[], grain = 1): Value[][] {
  const pieces: Value[][] = [];
  for (let at = 0, turn = 0; at < values.length; turn++) {
    const size = grain * (sizes[turn % sizes.length] ?? 1);
    pieces.push(values.slice(at, at + size));
    at += size;
  }
  return pieces;
}
const sizes = fc.array(fc.integer({ min: 1, max: 400 }), { minLength: 1, maxLength: 8 });
const frame = fc.oneof(
  { weight: 12, arbitrary: fc.double({ min: 15, max: 22, noNaN: true }) },
  { weight: 2, arbitrary: fc.double({ min: 22, max: 60, noNaN: true }) },
  { weight: 1, arbitrary: fc.double({ min: 60, max: 900, noNaN: true }) },
);

describe("figures while a run grows", () => {
  it("are those of all frames that have come, however they came", () => {
    fc.assert(
      fc.property(fc.array(frame, { minLength: 1, maxLength: 900 }), sizes, (frames, by) => {
        const growing = new GrowingFigures("frames", 60);
        for (const piece of cut(frames, by)) growing.add(piece);
        const whole: FrameTrace = {
          form: "frames",
          frameTimes: Float64Array.from(frames),
          channels: [],
          marks: [],
        };
        const figures = growing.soFar();
        expect(figures.durationMs).toBeCloseTo(durationOf(whole), 6);
        expect(figures.averageFps).toBeCloseTo(averageFps(whole.frameTimes), 9);
        expect(figures.longestMs).toBe(Math.max(...frames));
        const { share, dips } = fullSpeed(whole.frameTimes, 60);
        if (share === null) expect(figures.fullSpeedShare).toBeNull();
        else expect(figures.fullSpeedShare).toBeCloseTo(share, 6);
        expect(figures.dips).toBe(dips?.count ?? 0);
        // The last frames wait for those after them.
        const reach = defaultMeasuring.hitchNeighbours >> 1;
        expect(figures.hitches).toBe(
          hitches(whole.frameTimes).filter(({ index }) => index < frames.length - reach).length,
        );
      }),
      { numRuns: 150 },
    );
  });
  it("are those of all readings that have come, also where a counter shows decimals later", () => {
    const reading = fc.tuple(fc.constantFrom(1000, 1500), fc.constantFrom(60, 59, 58, 59.4, 59.94, 12));
    fc.assert(
      fc.property(
        fc.array(reading, { minLength: 1, maxLength: 80 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 5 }),
        (readings, by) => {
          const growing = new GrowingFigures("interval", 60);
          for (const piece of cut(readings.flat(), by, 2)) growing.add(piece);
          const durations = Float64Array.from(readings.map(([ms]) => ms));
          const rates = Float64Array.from(readings.map(([, fps]) => fps));
          const { share, dips } = fullSpeedOfReadings(durations, rates, 60);
          const figures = growing.soFar();
          expect(figures.fullSpeedShare).toBeCloseTo(share ?? -1, 9);
          expect(figures.dips).toBe(dips?.count);
          expect(figures.hitches).toBeNull();
        },
      ),
    );
  });
  it("are none before anything came", () => {
    expect(new GrowingFigures("frames", 60).soFar()).toEqual({
      durationMs: 0,
      averageFps: null,
      fullSpeedShare: null,
      dips: 0,
      hitches: 0,
      longestMs: null,
    });
  });
});
