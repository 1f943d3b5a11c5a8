import fc from "fast-check";
import { durationOf, endsOf, type FrameTrace } from "@/core/trace";
import { beginOf, joined, type Growth } from ".";

const traceOf = (frameTimes: number[]): FrameTrace => ({
  form: "frames",
  frameTimes: Float64Array.from(frameTimes),
  channels: [],
  marks: [],
});

describe("a log and what was read meanwhile, on one clock", () => {
  it("begins where the look that waited least says: never before it did, and late by that wait at most", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 4, max: 200, noNaN: true }), { minLength: 5, maxLength: 200 }),
        fc.double({ min: -5000, max: 5000, noNaN: true }),
        fc.integer({ min: 1, max: 5 }),
        fc.array(fc.double({ min: 0, max: 900, noNaN: true }), { minLength: 1, maxLength: 8 }),
        (frames, begun, headLines, waits) => {
          const trace = traceOf(frames);
          const ends = endsOf(trace);
          const step = Math.max(1, Math.floor(frames.length / waits.length));
          // Written in pieces, each seen a while after its last row was made.
          const seen: Growth[] = [];
          const delays: number[] = [];
          for (let rows = step, k = 0; ; rows += step, k++) {
            const to = rows + step > frames.length ? frames.length : rows;
            const delay = waits[k % waits.length] ?? 0;
            delays.push(delay);
            seen.push({ atMs: begun + (ends[to - 1] ?? 0) + delay, lines: headLines + to });
            if (to === frames.length) break;
          }
          const begin = beginOf(trace, seen) ?? NaN;
          expect(begin).toBeGreaterThanOrEqual(begun - 1e-6);
          expect(begin).toBeLessThanOrEqual(begun + Math.min(...delays) + 1e-6);
        },
      ),
    );
  });
  it("a log that nobody saw grow began nobody knows when", () => {
    expect(beginOf(traceOf([16, 16]), [])).toBeNull();
    expect(beginOf(traceOf([16, 16]), [{ atMs: 5, lines: 0 }])).toBeNull();
  });
  it("takes what was read while it ran, keeps what the log says itself, and makes nothing up", () => {
    const trace: FrameTrace = {
      ...traceOf(new Array<number>(100).fill(20)),
      channels: [{ role: "watts", times: Float64Array.of(0), values: Float64Array.of(4) }],
    };
    const samples = [-500, 0, 500, 1500, 2500].map((atMs) => ({
      atMs: 1000 + atMs,
      channels: { watts: 9, temperature: 50 + atMs / 1000, ...(atMs === 500 ? { battery: 80 } : {}) },
    }));
    const made = joined(trace, samples, 1000);
    expect(durationOf(made)).toBe(2000);
    expect(made.channels.map(({ role, times, values }) => [role, [...times], [...values]])).toEqual([
      ["watts", [0], [4]],
      ["temperature", [0, 500, 1500], [50, 50.5, 51.5]],
      ["battery", [500], [80]],
    ]);
    expect(joined(trace, [], 0)).toEqual(trace);
  });
});
