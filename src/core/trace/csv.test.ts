import fc from "fast-check";
import { readLog, traceCsv, type Trace } from ".";
import { readingOf } from "@/testing/readingOf";

/** The trace that the file is read as. */
const again = (trace: Trace): Trace => readingOf(readLog(traceCsv(trace))).trace;

describe("a run as CSV is a log that can be read again", () => {
  it("frames, telemetry and scenes", () => {
    const frameTimes = Float64Array.from({ length: 1200 }, (_, i) => 16 + (i % 7) * 0.3125);
    const end = frameTimes.reduce((sum, ms) => sum + ms, 0);
    const back = again({
      form: "frames",
      frameTimes,
      channels: [
        { role: "gpu", times: Float64Array.of(0, 10_000), values: Float64Array.of(62.5, 97) },
        { role: "temperature", times: Float64Array.of(0), values: Float64Array.of(71.25) },
      ],
      marks: [
        { label: "gate, east", startMs: 0, endMs: 9000 },
        { label: 'the "stair"', startMs: 9000, endMs: end },
      ],
    });
    expect(back.form === "frames" && [...back.frameTimes]).toEqual([...frameTimes]);
    expect(back.channels.map(({ role }) => role)).toEqual(["gpu", "temperature"]);
    expect(back.channels[0]!.values.at(0)).toBe(62.5);
    expect(back.channels[0]!.values.at(-1)).toBe(97);
    expect(back.marks.map(({ label }) => label)).toEqual(["gate, east", 'the "stair"']);
    expect(back.marks[1]!.startMs).toBeCloseTo(9000, -2);
  });
  it("any frame times, to a ten-thousandth of a millisecond", () =>
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 1, max: 200, noNaN: true }), { minLength: 60, maxLength: 200 }),
        (times) => {
          const back = again({ form: "frames", frameTimes: Float64Array.from(times), channels: [], marks: [] });
          if (back.form !== "frames") throw new Error("not frames");
          expect(back.frameTimes.length).toBe(times.length);
          times.forEach((ms, i) => expect(Math.abs(back.frameTimes[i] - ms)).toBeLessThanOrEqual(0.00005001));
        },
      ),
      { numRuns: 40 },
    ));
  it("a counter's readings with the time of each", () => {
    const back = again({
      form: "interval",
      durations: Float64Array.from({ length: 30 }, () => 1000),
      rates: Float64Array.from({ length: 30 }, (_, i) => 55 + (i % 5)),
      channels: [],
      marks: [],
    });
    expect(back.form === "interval" && [...back.rates].slice(-29)).toEqual(
      Array.from({ length: 29 }, (_, i) => 55 + ((i + 1) % 5)),
    );
  });
});
