import fc from "fast-check";
import { averageFps, fullSpeed } from "@/core/metrics";
import { defaultMeasuring } from "@/core/metrics";
import { lastMs, WatchedRun } from "./watched";

const frames = (count: number, ms: number) => new Array<number>(count).fill(ms);

describe("a run that is watched", () => {
  it("is the same in whatever order its pieces come, and however often", () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.double({ min: 10, max: 40, noNaN: true }), { minLength: 1, maxLength: 90 }), {
          minLength: 1,
          maxLength: 12,
        }),
        fc.infiniteStream(fc.nat()),
        (pieces, chance) => {
          const run = new WatchedRun("frames", 60, defaultMeasuring);
          const sent = pieces.map((values, sequence) => ({ role: "trace" as const, sequence, values }));
          const order = [...sent, ...sent]
            .map((piece) => ({ piece, at: chance.next().value }))
            .sort((a, b) => a.at - b.at);
          for (const { piece } of order) run.take(piece);
          const whole = Float64Array.from(pieces.flat());
          const now = run.now();
          expect(now.whole.averageFps).toBeCloseTo(averageFps(whole), 6);
          const { share } = fullSpeed(whole, 60);
          if (share !== null) expect(now.whole.fullSpeedShare).toBeCloseTo(share, 6);
        },
      ),
      { numRuns: 60 },
    );
  });
  it("keeps the last half minute apart, with what the device did, on the run's own time", () => {
    const run = new WatchedRun("frames", 60, defaultMeasuring);
    run.take({ role: "trace", sequence: 0, values: frames(2000, 20) });
    run.take({ role: "trace", sequence: 1, values: frames(1500, 25) });
    run.take({ role: "temperature", sequence: 0, values: [0, 50, 60_000, 71, 77_000, 72] });
    const { whole, last, drawnLast, drawnWhole, newest, most } = run.now();
    expect([whole.durationMs, last.averageFps]).toEqual([77_500, 40]);
    expect(last.durationMs).toBeGreaterThan(lastMs - 25);
    expect(last.durationMs).toBeLessThanOrEqual(lastMs + 25);
    expect(drawnLast.range).toEqual([47_500, 77_500]);
    expect([newest.temperature, most.temperature]).toEqual([72, 72]);
    // The reading before the last half minute holds until the next.
    expect(drawnLast.channels.temperature?.mean[0]).toBe(50);
    expect(drawnLast.channels.temperature?.mean.at(-1)).toBe(72);
    expect(drawnWhole.frames.mean[0]).toBeCloseTo(20, 5);
    expect(drawnWhole.range[1]).toBeGreaterThanOrEqual(77_500);
  });
  it("takes readings of a counter, and says nothing of frames there", () => {
    const run = new WatchedRun("interval", 60, defaultMeasuring);
    run.take({ role: "trace", sequence: 0, values: [1000, 60, 1000, 30] });
    const { whole, last, drawnWhole } = run.now();
    expect(whole).toMatchObject({ averageFps: 45, fullSpeedShare: 0.5, hitches: null, longestMs: null });
    expect(last.averageFps).toBe(45);
    expect(drawnWhole.frames.mean[0]).toBeCloseTo(1000 / 60, 4);
  });
});
