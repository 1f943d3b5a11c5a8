import fc from "fast-check";
import type { FrameTrace } from "@/core/trace";
import {
  burstAndSustained,
  coolDownMinutes,
  crashRate,
  fitHeat,
  fitScaleLaw,
  ladder,
  memoryGrowth,
  powerSweep,
  runtimeHours,
  secondsToLimit,
  type LadderRun,
  type ScaleLevel,
} from ".";

/** Laws that hold whatever the figures are. */

const native = 480 * 270;

const sweeps = fc
  .record({
    floor: fc.double({ min: 4, max: 12, noNaN: true }),
    intercept: fc.double({ min: 0.5, max: 6, noNaN: true }),
    slope: fc.double({ min: 5, max: 60, noNaN: true }),
    scales: fc.uniqueArray(fc.integer({ min: 1, max: 8 }), { minLength: 3, maxLength: 6 }),
  })
  .map(({ floor, intercept, slope, scales }) =>
    scales.map((scale): ScaleLevel => {
      const pixels = native * scale ** 2;
      const ms = Math.max(floor, intercept + (slope * pixels) / 1e6);
      return { scale, pixels, mediansMs: [ms], p99sMs: [ms * 1.15] };
    }),
  );

const quick = { resamples: 20, nativePixels: native };

describe("laws of the resolution law", () => {
  it("twice the frame times against half the target is the same answer", () => {
    fc.assert(
      fc.property(sweeps, (levels) => {
        const slower = levels.map((level) => ({
          ...level,
          mediansMs: level.mediansMs.map((ms) => 2 * ms),
          p99sMs: level.p99sMs.map((ms) => 2 * ms),
        }));
        const one = fitScaleLaw(levels, { ...quick, targetFps: 60 });
        const other = fitScaleLaw(slower, { ...quick, targetFps: 30 });
        expect(other.largestScale).toBe(one.largestScale);
        expect(other.msPerMegapixel).toBeCloseTo(2 * one.msPerMegapixel, 6);
        expect(other.floorMs).toBeCloseTo(2 * one.floorMs, 6);
      }),
      { numRuns: 40 },
    );
  });

  it("a harder target never allows a larger scale", () => {
    fc.assert(
      fc.property(sweeps, (levels) => {
        const largest = [30, 40, 60, 90].map(
          (targetFps) => fitScaleLaw(levels, { ...quick, targetFps }).largestScale ?? 0,
        );
        for (let i = 1; i < largest.length; i++) expect(largest[i]).toBeLessThanOrEqual(largest[i - 1]);
      }),
      { numRuns: 40 },
    );
  });

  it("predictions rise with the scale, and lie within their own intervals", () => {
    fc.assert(
      fc.property(sweeps, (levels) => {
        const { predicted } = fitScaleLaw(levels, { ...quick, resamples: 60, targetFps: 60 });
        predicted.forEach(({ frameTimeMs, low, high }, i) => {
          expect(low).toBeLessThanOrEqual(high);
          expect(frameTimeMs).toBeGreaterThan(0);
          if (i > 0) expect(frameTimeMs).toBeGreaterThanOrEqual(predicted[i - 1].frameTimeMs - 1e-9);
        });
      }),
      { numRuns: 30 },
    );
  });

  it("steadiness never allows more than speed", () => {
    fc.assert(
      fc.property(sweeps, (levels) => {
        const { largestScale, largestSteadyScale } = fitScaleLaw(levels, { ...quick, targetFps: 60 });
        expect(largestSteadyScale ?? 0).toBeLessThanOrEqual(largestScale ?? 0);
      }),
      { numRuns: 40 },
    );
  });
});

const modes = fc.array(
  fc.record({
    watts: fc.double({ min: 3, max: 60, noNaN: true }),
    fps: fc.double({ min: 5, max: 120, noNaN: true }),
  }),
  { minLength: 1, maxLength: 6 },
);

const asLevels = (list: { watts: number; fps: number }[]) =>
  list.map(({ watts, fps }, k) => ({
    mode: `mode ${k}`,
    nominalWatts: watts,
    runs: [{ fps, low: fps * 0.7, watts }],
  }));

describe("laws of a power sweep", () => {
  it("the sweet spot holds the target where any mode does, on the least watts of those", () => {
    fc.assert(
      fc.property(modes, fc.double({ min: 20, max: 90, noNaN: true }), (list, target) => {
        const { rows, sweetSpot } = powerSweep(asLevels(list), target);
        const holding = rows.filter(({ holds }) => holds);
        const spot = rows[sweetSpot!];
        if (holding.length > 0) {
          expect(spot.holds).toBe(true);
          expect(spot.watts).toBe(Math.min(...holding.map(({ watts }) => watts!)));
        } else {
          // As fast as the fastest within the margin, or the noise of one run each, on no more watts than the
          // fastest.
          const fastest = rows.reduce((a, b) => (b.fps > a.fps ? b : a));
          expect(Math.log(fastest.fps / spot.fps)).toBeLessThanOrEqual(2 * 0.035 * Math.SQRT2 + 1e-9);
          expect(spot.watts).toBeLessThanOrEqual(fastest.watts!);
        }
      }),
    );
  });

  it("something is always on the front, and nothing on it is beaten", () => {
    fc.assert(
      fc.property(modes, (list) => {
        const { rows } = powerSweep(asLevels(list), 60);
        const front = rows.filter(({ onFront }) => onFront);
        expect(front.length).toBeGreaterThan(0);
        for (const row of front) {
          expect(rows.some((other) => other.fps > row.fps + 1e-9 && other.watts! < row.watts! - 1e-9)).toBe(
            false,
          );
        }
      }),
    );
  });

  it("the order in which modes are listed changes nothing but the listing", () => {
    fc.assert(
      fc.property(modes, (list) => {
        const levels = asLevels(list);
        const there = powerSweep(levels, 60);
        const back = powerSweep([...levels].reverse(), 60);
        const spot = (sweep: typeof there) => sweep.rows[sweep.sweetSpot!];
        expect(spot(back).fps).toBeCloseTo(spot(there).fps, 9);
        expect(back.slowerWithMore.length).toBe(there.slowerWithMore.length);
      }),
    );
  });

  it("hours fall as watts rise, and rise with the battery", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 100, noNaN: true }),
        fc.double({ min: 1, max: 60, noNaN: true }),
        (wh, watts) => {
          const hours = runtimeHours(wh, watts)!;
          expect(runtimeHours(wh, watts * 2)!).toBeCloseTo(hours / 2, 9);
          expect(runtimeHours(wh * 2, watts)!).toBeCloseTo(hours * 2, 9);
          expect(runtimeHours(wh, watts, 0.9, 1)!).toBeLessThan(hours);
        },
      ),
    );
  });
});

const warmings = fc.record({
  start: fc.double({ min: 25, max: 45, noNaN: true }),
  rise: fc.double({ min: 10, max: 50, noNaN: true }),
  tau: fc.double({ min: 40, max: 150, noNaN: true }),
});

const times = Array.from({ length: 500 }, (_, i) => 1000 * (i + 1));
const warm = ({ start, rise, tau }: { start: number; rise: number; tau: number }) =>
  times.map((ms) => start + rise * (1 - Math.exp(-ms / 1000 / tau)));

describe("laws of heat", () => {
  it("an exact warming is found whatever its figures", () => {
    fc.assert(
      fc.property(warmings, (truth) => {
        const fit = fitHeat(times, warm(truth))!;
        expect(fit.settledC).toBeCloseTo(truth.start + truth.rise, 0);
        expect(Math.abs(fit.settleSeconds / truth.tau - 1)).toBeLessThan(0.05);
      }),
      { numRuns: 40 },
    );
  });

  it("a hotter room moves everything by as much, and the time constant not at all", () => {
    fc.assert(
      fc.property(warmings, fc.double({ min: -10, max: 20, noNaN: true }), (truth, warmer) => {
        const one = fitHeat(times, warm(truth))!;
        const other = fitHeat(times, warm({ ...truth, start: truth.start + warmer }))!;
        expect(other.settledC - one.settledC).toBeCloseTo(warmer, 2);
        expect(other.settleSeconds).toBeCloseTo(one.settleSeconds, 1);
      }),
      { numRuns: 30 },
    );
  });

  it("a higher limit is reached later, or never", () => {
    fc.assert(
      fc.property(warmings, ({ start, rise, tau }) => {
        const fit = { startC: start, settledC: start + rise, settleSeconds: tau };
        const reached = [0.2, 0.5, 0.8, 0.95].map((share) => secondsToLimit(fit, start + share * rise)!);
        for (let i = 1; i < reached.length; i++) expect(reached[i]).toBeGreaterThan(reached[i - 1]);
        expect(secondsToLimit(fit, start + rise + 1)).toBeNull();
      }),
    );
  });

  it("cooling takes longer from hotter, and no time from near the start", () => {
    fc.assert(
      fc.property(warmings, ({ start, rise, tau }) => {
        expect(coolDownMinutes(start, start + rise, tau)).toBeLessThan(
          coolDownMinutes(start, start + rise + 5, tau),
        );
        expect(coolDownMinutes(start, start + 1.5, tau)).toBe(0);
      }),
    );
  });

  it("an even run bursts as it sustains", () => {
    fc.assert(
      fc.property(fc.double({ min: 15, max: 120, noNaN: true }), (fps) => {
        const trace: FrameTrace = {
          form: "frames",
          frameTimes: new Float64Array(Math.round(fps * 200)).fill(1000 / fps),
          channels: [],
          marks: [],
        };
        const { burst, sustained } = burstAndSustained(trace)!;
        expect(burst).toBeCloseTo(fps, 6);
        expect(sustained).toBeCloseTo(fps, 6);
      }),
      { numRuns: 30 },
    );
  });
});

describe("laws of memory and crashes", () => {
  it("memory twice as fast meets its wall in half the time", () => {
    fc.assert(
      fc.property(fc.double({ min: 20, max: 400, noNaN: true }), (slope) => {
        const growing = (factor: number) =>
          memoryGrowth(
            times,
            times.map((ms) => 2000 + (factor * slope * ms) / 60_000),
            8000,
          )!;
        expect(growing(2).minutesToLimit!).toBeCloseTo(growing(1).minutesToLimit! / 2, 1);
        expect(growing(2).mbPerMinute).toBeCloseTo(2 * growing(1).mbPerMinute, 6);
      }),
      { numRuns: 30 },
    );
  });

  it("more room, more time", () => {
    const values = times.map((ms) => 2000 + ms / 300);
    const minutes = [4000, 8000, 12_000].map((limit) => memoryGrowth(times, values, limit)!.minutesToLimit!);
    expect(minutes[0]).toBeLessThan(minutes[1]);
    expect(minutes[1]).toBeLessThan(minutes[2]);
    expect(memoryGrowth(times, values, null)!.minutesToLimit).toBeNull();
  });

  it("the interval of a crash rate holds the rate, and narrows with time", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 30 }),
        fc.double({ min: 0.1, max: 50, noNaN: true }),
        (crashes, hours) => {
          const { perHour, low, high, ruledOutAbove } = crashRate(crashes, hours);
          expect(low).toBeLessThanOrEqual(perHour);
          expect(high).toBeGreaterThan(perHour);
          expect(ruledOutAbove).toBeLessThanOrEqual(high);
          expect(crashRate(crashes, hours * 2).high).toBeCloseTo(high / 2, 6);
        },
      ),
    );
  });
});

describe("laws of the clock ladder", () => {
  const plan = { steps: ["a", "b", "c", "d"], soakMinutes: 5, limitC: 90 };
  const soaks = fc.array(
    fc.record({
      step: fc.integer({ min: 0, max: 3 }),
      minutes: fc.double({ min: 1, max: 12, noNaN: true }),
      crashed: fc.boolean(),
      artefacts: fc.constant(false),
      hottestC: fc.double({ min: 50, max: 95, noNaN: true }),
      throttled: fc.constant(false),
    }),
    { maxLength: 10 },
  );

  it("never asks for a step at or above one that was given up", () => {
    fc.assert(
      fc.property(soaks, (runs: LadderRun[]) => {
        const { failed, lastClean, next } = ladder(plan, runs);
        if (failed) {
          if (next.step !== null) expect(next.step).toBeLessThan(failed.step);
          if (lastClean !== null) expect(lastClean).toBeLessThan(failed.step);
        }
      }),
    );
  });

  it("never skips a step on the way up", () => {
    fc.assert(
      fc.property(soaks, (runs: LadderRun[]) => {
        const { lastClean, next } = ladder(plan, runs);
        if (next.kind === "soak") expect(next.step).toBe(lastClean === null ? 0 : lastClean + 1);
      }),
    );
  });

  it("doing what it says always ends", () => {
    const runs: LadderRun[] = [];
    for (let turn = 0; turn < 20; turn++) {
      const { next } = ladder(plan, runs);
      if (next.kind === "done") break;
      runs.push({
        step: next.step,
        minutes: next.minutes,
        crashed: next.step === 2,
        artefacts: false,
        hottestC: 70,
        throttled: false,
      });
    }
    const { next, lastClean } = ladder(plan, runs);
    expect(next.kind).toBe("done");
    expect(lastClean).toBe(1);
  });
});
