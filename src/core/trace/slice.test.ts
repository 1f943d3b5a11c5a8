import fc from "fast-check";
import {
  channelColumns,
  durationOf,
  endsOf,
  firstEndAfter,
  frameColumns,
  interleave,
  separate,
  sliceTrace,
  traceFrom,
  valuesOf,
  type Channel,
  type FrameTrace,
  type IntervalTrace,
} from ".";

const frames = (...frameTimes: number[]): FrameTrace => ({
  form: "frames",
  frameTimes: Float64Array.from(frameTimes),
  channels: [],
  marks: [],
});
const channel = (times: number[], values: number[]): Channel => ({
  role: "watts",
  times: Float64Array.from(times),
  values: Float64Array.from(values),
});

describe("where things end", () => {
  it("sums frame times, and the durations of readings", () => {
    expect([...endsOf(frames(10, 20, 30))]).toEqual([10, 30, 60]);
    const readings: IntervalTrace = {
      form: "interval",
      durations: Float64Array.of(1000, 500),
      rates: Float64Array.of(60, 30),
      channels: [],
      marks: [],
    };
    expect(durationOf(readings)).toBe(1500);
  });

  it.each<[number, number]>([
    [-1, 0],
    [0, 0],
    [9.9, 0],
    [10, 1],
    [29, 1],
    [30, 2],
    [60, 3],
    [99, 3],
  ])("the first end after %d ms is number %d", (ms, index) => {
    expect(firstEndAfter(Float64Array.of(10, 30, 60), ms)).toBe(index);
  });

  it("agrees with a plain search", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.1, max: 50, noNaN: true }), { minLength: 1, maxLength: 40 }),
        fc.double({ min: -5, max: 2500, noNaN: true }),
        (steps, ms) => {
          const ends = endsOf(frames(...steps));
          const plain = [...ends].findIndex((end) => end > ms);
          expect(firstEndAfter(ends, ms)).toBe(plain < 0 ? ends.length : plain);
        },
      ),
    );
  });
});

describe("a stretch of a trace", () => {
  const whole: FrameTrace = {
    ...frames(10, 20, 30, 40),
    channels: [channel([10, 30, 60, 100], [1, 2, 3, 4])],
    marks: [
      { label: "first", startMs: 0, endMs: 30 },
      { label: "second", startMs: 30, endMs: 100 },
    ],
  };

  it("holds the frames that lie in it, whole", () => {
    expect([...(sliceTrace(whole, 10, 60) as FrameTrace).frameTimes]).toEqual([20, 30]);
    expect([...(sliceTrace(whole, 0, 1000) as FrameTrace).frameTimes]).toEqual([10, 20, 30, 40]);
    expect((sliceTrace(whole, 100, 200) as FrameTrace).frameTimes).toHaveLength(0);
  });

  it("sets channels and marks back to its own start", () => {
    const part = sliceTrace(whole, 10, 60);
    expect([...part.channels[0].times]).toEqual([0, 20, 50]);
    expect(part.marks).toEqual([
      { label: "first", startMs: 0, endMs: 20 },
      { label: "second", startMs: 20, endMs: 50 },
    ]);
  });

  it("of readings holds readings", () => {
    const readings: IntervalTrace = {
      form: "interval",
      durations: new Float64Array(10).fill(1000),
      rates: Float64Array.from({ length: 10 }, (_, i) => 50 + i),
      channels: [],
      marks: [],
    };
    const part = sliceTrace(readings, 2000, 5000) as IntervalTrace;
    expect([...part.rates]).toEqual([52, 53, 54]);
  });
});

describe("bytes of a trace", () => {
  it("pairs and parts without loss at Float32", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.float({ noNaN: true, noDefaultInfinity: true }),
            fc.float({ noNaN: true, noDefaultInfinity: true }),
          ),
          { maxLength: 50 },
        ),
        (pairs) => {
          const a = Float64Array.from(pairs, ([left]) => left),
            b = Float64Array.from(pairs, ([, right]) => right);
          expect(separate(interleave(a, b))).toEqual([a, b]);
        },
      ),
    );
  });

  it("of readings come back as readings", () => {
    const readings: IntervalTrace = {
      form: "interval",
      durations: Float64Array.of(1000, 500),
      rates: Float64Array.of(60, 0),
      channels: [],
      marks: [],
    };
    expect(traceFrom("interval", valuesOf(readings), [], [])).toEqual(readings);
  });
});

describe("columns of pixels", () => {
  it("of a channel hold until the next reading", () => {
    const { mean, low, high } = channelColumns(channel([0, 50], [10, 20]), 0, 100, 10);
    expect([...mean.slice(0, 4)]).toEqual([10, 10, 10, 10]);
    expect([...mean.slice(5)]).toEqual([20, 20, 20, 20, 20]);
    expect([low[4], high[4]]).toEqual([10, 20]);
  });

  it("are empty before a channel's first reading", () => {
    const { mean } = channelColumns(channel([500], [1]), 0, 400, 4);
    expect([...mean].every(Number.isNaN)).toBe(true);
  });

  it("weigh frames by the time they fill", () => {
    const trace = frames(75, 25);
    const { mean, low, high } = frameColumns(trace, endsOf(trace), 0, 100, 1);
    expect(mean[0]).toBeCloseTo((75 * 75 + 25 * 25) / 100, 3);
    expect([low[0], high[0]]).toEqual([25, 75]);
  });

  it("show a counter's readings as the frame time they stand for", () => {
    const readings: IntervalTrace = {
      form: "interval",
      durations: Float64Array.of(1000, 1000),
      rates: Float64Array.of(50, 25),
      channels: [],
      marks: [],
    };
    const { mean } = frameColumns(readings, endsOf(readings), 0, 2000, 2);
    expect([...mean]).toEqual([20, 40]);
  });
});
