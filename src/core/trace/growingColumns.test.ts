import fc from "fast-check";
import { GrowingColumns } from "./growingColumns";
import { frameColumns } from "./pixels";
import { endsOf } from "./slice";

describe("columns of what grows", () => {
  it("are those of the whole, with as many columns, however long it became", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 5, max: 300, noNaN: true }), { minLength: 1, maxLength: 2500 }),
        (frames) => {
          const growing = new GrowingColumns();
          let at = 0;
          for (const ms of frames) growing.add(at, (at += ms), ms);
          const { endMs, columns } = growing.until(at);
          const whole = {
            form: "frames" as const,
            frameTimes: Float64Array.from(frames),
            channels: [],
            marks: [],
          };
          const made = frameColumns(whole, endsOf(whole), 0, endMs, columns.mean.length);
          for (const key of ["low", "high", "mean"] as const)
            for (let column = 0; column < columns.mean.length; column++)
              expect(columns[key][column]).toBeCloseTo(made[key][column] ?? NaN, 2);
          expect(columns.mean.length).toBeLessThanOrEqual(600);
          expect(endMs).toBeGreaterThanOrEqual(at);
        },
      ),
      { numRuns: 40 },
    );
  });
  it("leave a gap where nothing is", () => {
    const growing = new GrowingColumns();
    growing.add(0, 50, 7);
    growing.add(100, 150, 9);
    expect([...growing.until(200).columns.mean]).toEqual([7, NaN, 9, NaN]);
  });
});
