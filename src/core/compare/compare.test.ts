import { words } from "@/core/words";
import { mean, quantile, seeded } from "@/core/stats";
import { summarise } from "@/core/metrics";
import type { FrameTrace, IntervalTrace } from "@/core/trace";
import {
  RunCells,
  assumedNoise,
  blockLength,
  comparable,
  compare,
  decide,
  furtherRuns,
  holm,
  honesty,
  noiseFloor,
  reckonedSpread,
  runOrder,
} from ".";

function autoregressive(n: number, phi: number, seed: number): Float64Array {
  const random = seeded(seed);
  let state = random.normal() / Math.sqrt(1 - phi * phi);
  return Float64Array.from({ length: n }, () => (state = phi * state + random.normal()));
}
const run = (fps: number, seed: number, seconds = 60): FrameTrace => ({
  form: "frames",
  frameTimes: autoregressive(Math.round(fps * seconds), 0.5, seed).map(
    (x) => (1000 / fps) * Math.exp(0.04 * x),
  ),
  channels: [],
  marks: [],
});
const arm = (...rates: number[]) => rates.map((fps, k) => run(fps, Math.round(fps * 1000) + k));

describe("block length (Politis & White 2004; Patton, Politis & White 2009)", () => {
  it("of an AR(1) series nears its theoretical optimum (2φ/(1 − φ²))^⅔ · n^⅓", () => {
    // The formula follows from the AR(1) autocovariances by arithmetic: Σ|k|R(k) = 2φR(0)/(1 − φ)², ΣR(k) = R(0)(1 + φ)/(1 − φ).
    for (const phi of [0.3, 0.5, 0.8]) {
      const optimum = ((2 * phi) / (1 - phi * phi)) ** (2 / 3) * Math.cbrt(2000);
      const found = mean(Array.from({ length: 60 }, (_, seed) => blockLength(autoregressive(2000, phi, seed))));
      expect(found / optimum).toBeGreaterThan(0.75);
      expect(found / optimum).toBeLessThan(1.3);
    }
  });
  it("is short for independent values and 1 for equal ones", () => {
    expect(
      mean(Array.from({ length: 40 }, (_, seed) => blockLength(autoregressive(2000, 0, seed)))),
    ).toBeLessThan(6);
    expect(blockLength(new Float64Array(500).fill(16.7))).toBe(1);
    expect(blockLength([1, 2, 3])).toBe(1);
  });
});

describe("stationary bootstrap (Politis & Romano 1994)", () => {
  it("95 % intervals of an AR(1) mean cover at least 90 % at n = 2,000, φ = 0.5 (by simulation)", () => {
    let covered = 0;
    const repeats = 200;
    for (let repeat = 0; repeat < repeats; repeat++) {
      const cells = new RunCells(
        autoregressive(2000, 0.5, 7000 + repeat).map((x) => 20 + x),
        60,
      );
      const random = seeded(repeat);
      const means = Float64Array.from({ length: 300 }, () => 1000 / cells.resampled(random).averageFps).sort();
      if (quantile(means, 0.025) <= 20 && quantile(means, 0.975) >= 20) covered++;
    }
    expect(covered / repeats).toBeGreaterThanOrEqual(0.9);
  });
  it("cut into cells, a run has the figures it has whole", () => {
    const trace = run(58, 3);
    const whole = summarise(trace, { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 });
    const cells = new RunCells(trace.frameTimes, 60).figures();
    expect(cells.averageFps).toBeCloseTo(whole.averageFps, 9);
    expect(cells.worstTimeLow!).toBeCloseTo(whole.lows!.worstTime.one, 9);
    expect(cells.fullSpeedTime!).toBeCloseTo(whole.fullSpeedTimePercent!, 9);
    expect(cells.hitchesPerMinute!).toBeCloseTo(whole.hitches!.perMinute, 9);
  });
});

describe("a comparison", () => {
  it("17 fps at governor clocks, 37 at forced clocks: +118 % (common practice)", () => {
    const made = compare(arm(17, 17.1, 16.9), arm(37, 37.2, 36.8), { targetFps: 60 });
    expect(made.decision).toBe("better");
    expect(made.averageFps.ratio).toBeCloseTo(37 / 17, 1);
    expect(made.averageFps.low).toBeGreaterThan(2);
  });
  it("the mirror is worse, and exchanging the sides inverts the ratio", () => {
    const a = arm(50, 51, 50.5),
      b = arm(45, 44, 44.5);
    const there = compare(a, b, { targetFps: 60 }),
      back = compare(b, a, { targetFps: 60 });
    expect([there.decision, back.decision]).toEqual(["worse", "better"]);
    expect(there.averageFps.ratio * back.averageFps.ratio).toBeCloseTo(1, 9);
  });
  it("many runs without a difference are no difference; few are undecided, with the runs still needed", () => {
    const many = (seed: number) => Array.from({ length: 24 }, (_, k) => run(60, seed + k, 20));
    expect(compare(many(100), many(500), { targetFps: 60, noise: { sd: 0.005, freedom: 20 } }).decision).toBe(
      "no difference",
    );
    const few = compare(arm(60, 60.6), arm(61.5, 61.9), { targetFps: 60 });
    expect(few.decision).toBe("undecided");
    expect(few.moreRunsPerSide).toBeGreaterThan(0);
    expect(few.notes.map(words).join()).toMatch(/borrowed from the rig's noise floor/);
  });
  it("repeats itself for a seed", () =>
    expect(compare(arm(50, 51), arm(52, 53), { targetFps: 60, seed: 9 })).toEqual(
      compare(arm(50, 51), arm(52, 53), { targetFps: 60, seed: 9 }),
    ));
  it("rounds cancel an afternoon's drift that hides the gain without them", () => {
    const slowing = [1, 0.98, 0.96, 0.94, 0.92, 0.9, 0.88, 0.86];
    const order = runOrder(4);
    const sides = { A: [] as FrameTrace[], B: [] as FrameTrace[] };
    order.forEach((side, k) => sides[side].push(run(50 * slowing[k] * (side === "B" ? 1.06 : 1), 40 + k)));
    const by = (rounds: boolean) => compare(sides.A, sides.B, { targetFps: 60, rounds });
    expect(by(true).decision).toBe("better");
    expect(by(false).decision).toBe("undecided");
    expect(by(true).notes.map(words).join()).toMatch(/Analysed by rounds/);
  });
  it("readings are compared with what they can support, and it says so", () => {
    const readings = (fps: number): IntervalTrace => ({
      form: "interval",
      durations: new Float64Array(60).fill(1000),
      rates: Float64Array.from({ length: 60 }, (_, i) => fps + (i % 3)),
      channels: [],
      marks: [],
    });
    const made = compare([readings(40), readings(40)], [readings(50), readings(50)], { targetFps: 60 });
    expect(made).toMatchObject({
      decision: "better",
      worstTimeLow: null,
      hitchesPerMinute: null,
      fullSpeedTime: { difference: 0 },
    });
    expect(made.notes.map(words).join()).toMatch(/readings, not frames/);
  });
  it("refuses empty sides and uneven rounds, and can be cancelled", () => {
    expect(() => compare([], arm(50), { targetFps: 60 })).toThrow(RangeError);
    expect(() => compare(arm(50, 50), arm(50), { targetFps: 60, rounds: true })).toThrow(RangeError);
    expect(() =>
      compare(arm(50), arm(50), {
        targetFps: 60,
        onProgress: () => {
          throw new Error("cancelled");
        },
      }),
    ).toThrow("cancelled");
  });
  it("on known truths is honest (a small part of `npm run bench -- honesty`)", () => {
    const usual = {
      repeats: 60,
      runsPerSide: 4,
      spread: 0.02,
      drift: 0,
      rounds: false,
      framesPerRun: 600,
      resamples: 100,
      seed: 100,
    };
    const same = honesty({ ...usual, ratio: 1 });
    expect(same.covered).toBeGreaterThan(0.85);
    expect(same.better + same.worse).toBeLessThan(0.15);
    expect(honesty({ ...usual, ratio: 1.1 }).better).toBeGreaterThan(0.95);
  });
});

describe("deciding", () => {
  it("needs the interval clear of 0 and the estimate at the margin", () => {
    expect(decide({ estimate: 0.03, low: 0.01, high: 0.05 }, 0.02)).toBe("better");
    expect(decide({ estimate: 0.015, low: 0.005, high: 0.025 }, 0.02)).toBe("undecided");
    expect(decide({ estimate: -0.03, low: -0.05, high: -0.01 }, 0.02)).toBe("worse");
    expect(decide({ estimate: 0.005, low: -0.01, high: 0.015 }, 0.02)).toBe("no difference");
  });
  it("asks for fewer further runs the clearer the difference, and none beyond reason", () => {
    const more = (estimate: number) => furtherRuns(estimate, 0.02, 0.0004, 3, 64);
    expect(more(0.03)!).toBeLessThan(more(0.022)!);
    expect(more(0.0199)).toBeNull();
  });
  it("takes turns: A B, B A, A B", () => expect(runOrder(3).join("")).toBe("ABBAAB"));
  it("corrects many looks as Holm (1979): worked by hand", () =>
    expect(holm([0.01, 0.04, 0.03]).map((p) => Number(p.toFixed(4)))).toEqual([0.03, 0.06, 0.06]));
});

describe("the noise floor", () => {
  it("pools repeats about their own means", () => {
    const made = noiseFloor([[100, 102], [50, 51, 49.5], [30]])!;
    expect(made.freedom).toBe(3);
    expect(made.sd).toBeCloseTo(
      Math.sqrt(
        (2 * (Math.log(102 / 100) / 2) ** 2 +
          [50, 51, 49.5].map(Math.log).reduce((sum, x, _, all) => sum + (x - mean(all)) ** 2, 0)) /
          3,
      ),
      12,
    );
    expect(noiseFloor([[60]])).toBeNull();
  });
  it("is borrowed whole without repeats, and given up where the runs show far more", () => {
    expect(reckonedSpread(0, 0, assumedNoise)).toMatchObject({
      variance: expect.closeTo(0.0004, 12),
      borrowed: true,
    });
    const wild = reckonedSpread(6 * 0.1 ** 2, 6, assumedNoise);
    expect([wild.variance, wild.freedom]).toEqual([expect.closeTo(0.01, 9), 6]);
  });
});

describe("runs whose engine reports its speed", () => {
  const crawling = (percent: number, seed: number): FrameTrace => ({
    ...run(60, seed),
    channels: [
      {
        role: "speed",
        times: Float64Array.from({ length: 60 }, (_, i) => 1000 * (i + 1)),
        values: new Float64Array(60).fill(percent),
      },
    ],
  });
  it("are compared by the report, for their frames tell nothing: 71 % against 100 % is +41 %", () => {
    const arms = comparable([crawling(71, 1), crawling(71.5, 2)], [crawling(100, 3), crawling(99.5, 4)], 60);
    expect(arms.by).toBe("engine speed");
    expect(compare(arms.a, arms.b, { targetFps: 60 }).averageFps.ratio).toBeCloseTo(1.4, 1);
    expect(compare([crawling(71, 1)], [crawling(100, 3)], { targetFps: 60 }).averageFps.ratio).toBeCloseTo(
      1,
      1,
    );
  });
  it("by their frames where one run has no report", () =>
    expect(comparable([crawling(71, 1)], [run(60, 2)], 60).by).toBe("frames"));
});
