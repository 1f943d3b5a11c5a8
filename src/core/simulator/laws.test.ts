import { durationOf } from "@/core/trace";
import fc from "fast-check";
import { averageFps } from "@/core/metrics";
import {
  clockFor,
  governorClock,
  heatFactor,
  settledPower,
  simulate,
  underSettings,
  wattsAt,
  type SimDevice,
  type SimWorkload,
} from ".";

/** Laws of the simulated bench's physics: what follows whatever the figures are. */

const device: SimDevice = {
  refreshHz: 60,
  processorSpeed: 1,
  graphicsSpeed: 1,
  processorMhz: 3000,
  graphicsMhz: 1200,
  processorMaxWatts: 15,
  graphicsMaxWatts: 12,
  idleWatts: 2,
  budgetWatts: 20,
  processorFirstWatts: 10,
  spin: 0.5,
  coreShare: 0.4,
  governor: { floor: 0.3, sees: 1 },
  roomC: 21,
  degreesPerWatt: 2.5,
  settleSeconds: 60,
  limitC: 90,
  startC: 40,
  memoryMb: 8000,
};

const work: SimWorkload & { scale: number } = {
  nativeFps: 60,
  capFps: null,
  processorMs: 8,
  graphicsMs: 10,
  graphicsMsPerMegapixel: 3,
  waitMs: 0,
  megapixels: 0.2,
  scenes: [{ label: "yard", seconds: 8, processor: 1, graphics: 1, newShaders: 0 }],
  passes: 1,
  compileMs: 200,
  storageMs: 0,
  memoryStartMb: 2000,
  memoryMbPerMinute: 0,
  repeatsFrames: false,
  unevenPacing: false,
  strictSync: false,
  scale: 2,
};

const share = fc.double({ min: 0.05, max: 1, noNaN: true });
const watts = fc.double({ min: 4, max: 60, noNaN: true });
const fps = (changes: Partial<typeof work>, on: Partial<SimDevice> = {}, seed = 5) =>
  averageFps(simulate({ ...device, ...on }, { ...work, ...changes }, seed, false).trace.frameTimes);

describe("laws of power", () => {
  it("what is drawn never passes the budget by more than the least clocks take", () => {
    fc.assert(
      fc.property(watts, share, share, (budgetWatts, busyProcessor, busyGraphics) => {
        const made = settledPower({ ...device, budgetWatts }, busyProcessor, busyGraphics, 50);
        const least =
          device.idleWatts +
          wattsAt(device.processorMaxWatts, 0.15, 1) +
          wattsAt(device.graphicsMaxWatts, 0.15, 1) +
          1;
        expect(made.watts).toBeLessThanOrEqual(Math.max(budgetWatts + 0.31, least));
      }),
    );
  });

  it("clocks are shares of full ones", () => {
    fc.assert(
      fc.property(
        watts,
        share,
        share,
        fc.double({ min: 20, max: 110, noNaN: true }),
        (budgetWatts, busyProcessor, busyGraphics, celsius) => {
          const { processor, graphics } = settledPower(
            { ...device, budgetWatts },
            busyProcessor,
            busyGraphics,
            celsius,
          );
          for (const clock of [processor, graphics]) {
            expect(clock).toBeGreaterThanOrEqual(0.15);
            expect(clock).toBeLessThanOrEqual(1);
          }
        },
      ),
    );
  });

  it("hotter never clocks higher", () => {
    fc.assert(
      fc.property(share, share, (busyProcessor, busyGraphics) => {
        const at = (celsius: number) => settledPower(device, busyProcessor, busyGraphics, celsius);
        expect(at(95).processor).toBeLessThanOrEqual(at(60).processor + 1e-12);
        expect(at(95).graphics).toBeLessThanOrEqual(at(60).graphics + 1e-12);
      }),
    );
  });

  it("more for the processor alone never leaves graphics more", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 10, noNaN: true }),
        share,
        share,
        (processorFirstWatts, busyProcessor, busyGraphics) => {
          const given = (first: number) =>
            settledPower({ ...device, processorFirstWatts: first }, busyProcessor, busyGraphics, 50).graphics;
          expect(given(processorFirstWatts + 3)).toBeLessThanOrEqual(given(processorFirstWatts) + 1e-12);
        },
      ),
    );
  });

  it("a clock for a draw gives that draw back", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 30, noNaN: true }), share, (drawn, busy) => {
        expect(wattsAt(15, clockFor(drawn, 15, busy), busy)).toBeCloseTo(drawn, 9);
      }),
    );
  });

  it("governors and heat stay within their bounds, whatever they see", () => {
    fc.assert(
      fc.property(
        share,
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (floor, sees, busy) => {
          expect(governorClock({ floor, sees }, busy)).toBeGreaterThanOrEqual(floor - 1e-12);
          expect(governorClock({ floor, sees }, busy)).toBeLessThanOrEqual(1 + 1e-12);
        },
      ),
    );
    fc.assert(
      fc.property(fc.double({ min: -20, max: 200, noNaN: true }), (celsius) => {
        expect(heatFactor(celsius, 90)).toBeGreaterThanOrEqual(0.35);
        expect(heatFactor(celsius, 90)).toBeLessThanOrEqual(1);
      }),
    );
  });
});

describe("laws of a simulated run", () => {
  it("more work is never faster", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), (seed) => {
        expect(fps({ graphicsMs: 20 }, {}, seed)).toBeLessThan(fps({ graphicsMs: 10 }, {}, seed));
        expect(fps({ scale: 6 }, {}, seed)).toBeLessThan(fps({ scale: 2 }, {}, seed));
        expect(fps({ waitMs: 6 }, {}, seed)).toBeLessThan(fps({}, {}, seed));
      }),
      { numRuns: 8 },
    );
  });

  it("a bigger budget, all else equal, is never slower", () => {
    const rates = [10, 14, 20, 40].map((budgetWatts) => fps({}, { budgetWatts }));
    for (let i = 1; i < rates.length; i++) expect(rates[i]).toBeGreaterThanOrEqual(rates[i - 1] * 0.999);
  });

  it("a cap is kept, and no frame is shown for no time", () => {
    fc.assert(
      fc.property(fc.constantFrom(20, 30, 60), fc.integer({ min: 1, max: 500 }), (capFps, seed) => {
        const { trace } = simulate(device, { ...work, capFps, graphicsMs: 3 }, seed, false);
        expect(averageFps(trace.frameTimes)).toBeLessThanOrEqual(capFps * 1.01);
        expect(Math.min(...trace.frameTimes)).toBeGreaterThan(0);
      }),
      { numRuns: 12 },
    );
  });

  it("readings are within what sensors show, and times only go forward", () => {
    const { trace } = simulate(device, { ...work, passes: 3 }, 9, true);
    for (const { role, times, values } of trace.channels) {
      for (let i = 1; i < times.length; i++) expect(times[i]).toBeGreaterThan(times[i - 1]);
      if (role === "cpu" || role === "cpuBusiest" || role === "gpu") {
        expect(Math.min(...values)).toBeGreaterThanOrEqual(0);
        expect(Math.max(...values)).toBeLessThanOrEqual(100);
      }
    }
  });

  it("marks follow one another without gaps and end with the run", () => {
    const { trace } = simulate(device, { ...work, passes: 4 }, 9, false);
    trace.marks.forEach((mark, i) => {
      if (i > 0) expect(mark.startMs).toBeCloseTo(trace.marks[i - 1].endMs, 9);
    });
    const whole = durationOf(trace);
    expect(trace.marks.at(-1)!.endMs).toBeCloseTo(whole, 6);
  });

  it("a setting's factors multiply, in whatever order they are set", () => {
    const effects = { a: { on: { processor: 0.5, wait: 2 } }, b: { on: { processor: 0.8, graphics: 0.9 } } };
    const one = underSettings(work, { a: "on", b: "on" }, effects);
    const other = underSettings(work, { b: "on", a: "on" }, effects);
    expect(one.processorMs).toBeCloseTo(work.processorMs * 0.4, 12);
    expect(other).toEqual(one);
  });
});
