import fc from "fast-check";
import { averageFps, defaultMeasuring, fullSpeed, windowRates } from ".";

const even = (fps: number, seconds: number) => new Float64Array(Math.round(fps * seconds)).fill(1000 / fps);
const logs = fc
  .array(fc.double({ min: 1, max: 300, noNaN: true }), { minLength: 5, maxLength: 250 })
  .map((list) => Float64Array.from(list));

/** The definition written out: for every frame, add up what ends in the window it opens. */
function slowRates(frameTimes: Float64Array, windowMs: number): number[] {
  return [...frameTimes].map((_, i) => {
    let room = windowMs,
      frames = 0;
    for (let j = i; j < frameTimes.length; j++) {
      if (frameTimes[j] > room) return ((frames + room / frameTimes[j]) * 1000) / windowMs;
      room -= frameTimes[j];
      frames++;
    }
    return room <= 1e-6 ? (frames * 1000) / windowMs : NaN;
  });
}

describe("rates of the windows that frames open", () => {
  it("agree with the definition written out", () => {
    fc.assert(
      fc.property(logs, fc.constantFrom(200, 500, 1000), (frameTimes, windowMs) => {
        const quick = windowRates(frameTimes, windowMs);
        slowRates(frameTimes, windowMs).forEach((rate, i) => {
          if (Number.isNaN(rate)) expect(quick[i]).toBeNaN();
          else expect(quick[i]).toBeCloseTo(rate, 6);
        });
      }),
    );
  });

  it("of an even run are the run's own rate", () => {
    for (const fps of [20, 24, 30, 50, 59.94, 60, 120]) {
      const rates = [...windowRates(even(fps, 5), 1000)].filter((rate) => !Number.isNaN(rate));
      for (const rate of rates) expect(rate).toBeCloseTo(fps, 6);
    }
  });

  it("count a frame longer than the window by its fraction", () => {
    expect(windowRates(Float64Array.of(4000, 4000), 1000)[0]).toBeCloseTo(0.25, 12);
  });
});

describe("laws of full-speed time", () => {
  it("lies between 0 and 1, and falls as the target rises", () => {
    fc.assert(
      fc.property(logs, (frameTimes) => {
        const shares = [1, 10, 30, 60, 1000].map((target) => fullSpeed(frameTimes, target).share);
        shares.forEach((share, i) => {
          if (share === null) return;
          expect(share).toBeGreaterThanOrEqual(-1e-12);
          expect(share).toBeLessThanOrEqual(1 + 1e-12);
          if (i > 0 && shares[i - 1] !== null) expect(share).toBeLessThanOrEqual(shares[i - 1]! + 1e-9);
        });
      }),
    );
  });

  it("a wider tolerance never lowers it", () => {
    fc.assert(
      fc.property(logs, (frameTimes) => {
        const narrow = fullSpeed(frameTimes, 30, { ...defaultMeasuring, tolerance: 0.01 }).share;
        const wide = fullSpeed(frameTimes, 30, { ...defaultMeasuring, tolerance: 0.1 }).share;
        if (narrow !== null) expect(wide!).toBeGreaterThanOrEqual(narrow - 1e-12);
      }),
    );
  });

  it("scaling frame times and target together changes nothing but the window", () => {
    const frameTimes = Float64Array.from([...even(60, 3), ...even(30, 3), ...even(60, 3)]);
    const halved = frameTimes.map((ms) => ms * 2);
    const one = fullSpeed(frameTimes, 60).share!;
    const other = fullSpeed(halved, 30, { ...defaultMeasuring, windowMs: 2000 }).share!;
    expect(other).toBeCloseTo(one, 9);
  });

  it("what is below and above in turn gives as many dips as sags", () => {
    const sags = Array.from({ length: 4 }, () => [...even(60, 4), ...even(30, 2)]).flat();
    const made = fullSpeed(Float64Array.from([...sags, ...even(60, 4)]), 60);
    expect(made.dips!.count).toBe(4);
    expect(made.stretches).toHaveLength(4);
    expect(made.dips!.deepestFps).toBeCloseTo(30, 6);
  });

  it("average and full-speed time are two things", () => {
    const fast = Float64Array.from([...even(120, 5), ...even(30, 5)]);
    expect(averageFps(fast)).toBeGreaterThan(60);
    expect(fullSpeed(fast, 60).share!).toBeLessThan(0.65);
  });
});
