import { words } from "@/core/words";
import { mean, quantile, seeded, tQuantile } from "@/core/stats";
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
  noiseFloor,
  pooledSpread,
  mixedWithOrder,
  givenNoise,
  runOrder,
} from ".";
import { contrastOf, fitRuns } from "./fitRuns";
import { anySpreads, believedSpreads } from "./spreads";
import { honesty, type Truth } from "@/testing/honesty";

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
    // The formula follows from the AR(1) autocovariances by arithmetic: Σ|k|R(k) = 2φR(0)/(1 − φ)², ΣR(k) =
    // R(0)(1 + φ)/(1 − φ).
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
  it("many runs without a difference are no difference; few are undecided, with the runs still needed and their chance", () => {
    const many = (seed: number) => Array.from({ length: 24 }, (_, k) => run(60, seed + k, 20));
    expect(compare(many(100), many(500), { targetFps: 60, noise: { sd: 0.005, freedom: 20 } }).decision).toBe(
      "no difference",
    );
    const few = compare(arm(60, 60.6), arm(61.5, 61.9), { targetFps: 60 });
    expect(few.decision).toBe("undecided");
    expect(few.moreRunsPerSide).toBeGreaterThan(0);
    expect(few.chanceSettled).toBeGreaterThan(0);
    expect(few.notes.map(words).join()).toMatch(/hardly known: about 3\.0 % is assumed/);
  });
  it("one look a side on a rig without repeats calls what is large, and says by what; not what is small", () => {
    const look = compare(arm(48), arm(60), { targetFps: 60 });
    expect(look.decision).toBe("better");
    expect(look.notes.map(({ code }) => code)).toContain("compare.oneRun");
    expect(compare(arm(55), arm(60), { targetFps: 60 }).decision).toBe("undecided");
    expect(compare(arm(17), arm(37), { targetFps: 60 }).decision).toBe("better");
    const measured = compare(arm(50), arm(60), { targetFps: 60, noise: { sd: 0.01, freedom: 20 } });
    expect(measured.decision).toBe("better");
    expect([measured.fullSpeedTime, measured.hitchesPerMinute]).toEqual([null, null]);
    expect(measured.notes.map(words).join()).toMatch(/no interval can be given/);
  });
  it("repeats itself for a seed", () =>
    expect(compare(arm(50, 51), arm(52, 53), { targetFps: 60, seed: 9 })).toEqual(
      compare(arm(50, 51), arm(52, 53), { targetFps: 60, seed: 9 }),
    ));
  it("the order of the runs takes out an afternoon's drift that hides the gain without it", () => {
    const slowing = [1, 0.98, 0.96, 0.94, 0.92, 0.9, 0.88, 0.86];
    const order = runOrder(4);
    const sides = { A: [] as FrameTrace[], B: [] as FrameTrace[] },
      places = { a: [] as number[], b: [] as number[] };
    order.forEach((side, k) => {
      sides[side].push(run(50 * (slowing[k] ?? 1) * (side === "B" ? 1.06 : 1), 40 + k));
      places[side === "A" ? "a" : "b"].push(k);
    });
    const noise = givenNoise(0.01);
    const ordered = compare(sides.A, sides.B, { targetFps: 60, noise, places });
    expect(ordered.decision).toBe("better");
    expect(ordered.averageFps.ratio).toBeCloseTo(1.06, 1);
    expect(ordered.notes.map(words).join()).toMatch(/drifted by −1[3-5]\.\d % from the first to the last/);
    expect(compare(sides.A, sides.B, { targetFps: 60 }).decision).toBe("undecided");
    expect(compare(sides.A, sides.B, { targetFps: 60, rounds: true }).notes.map(words).join()).toMatch(
      /Analysed by rounds, each against itself\. Who went first isn't known/,
    );
  });
  it("all of A before all of B is never called, however clear the figures: order and change can't be told apart", () => {
    const places = { a: [0, 1, 2, 3], b: [4, 5, 6, 7] };
    const made = compare(arm(50, 50.2, 49.9, 50.1), arm(57, 57.2, 56.9, 57.1), { targetFps: 60, places });
    expect(made.decision).toBe("undecided");
    expect(made.notes.map(words).join()).toMatch(/can't be told from what the rig did meanwhile/);
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
      fullSpeedTime: { difference: expect.closeTo(0, 9) },
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
  it("what can't be isn't in an interval: a share of time stays in 0…100, and nobody loses hitches that aren't there", () => {
    const dips = (seed: number): FrameTrace => ({
      ...run(60, seed),
      frameTimes: run(60, seed).frameTimes.map((ms, i) => (i % 900 < 3 * (seed % 7) ? 4 * ms : ms)),
    });
    const steady = { ...run(60, 1), frameTimes: new Float64Array(3000).fill(1000 / 60) };
    const made = compare([steady, steady], [dips(3), dips(12)], { targetFps: 60 });
    expect(made.fullSpeedTime?.low).toBeGreaterThanOrEqual(-100);
    expect(made.fullSpeedTime?.high).toBeLessThanOrEqual(100);
    const fewer = compare([dips(3), dips(12)], [steady, steady], { targetFps: 60 });
    const rate = (arm: FrameTrace[]) =>
      mean(
        arm.map(
          (each) =>
            summarise(each, { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 }).hitches?.perMinute ??
            0,
        ),
      );
    const lost = fewer.hitchesPerMinute;
    expect(lost?.low).toBeGreaterThanOrEqual(
      -2 * rate([dips(3), dips(12)]) - (lost ? lost.high - lost.low : 0),
    );
  });
});

describe("on known truths (a small part of `npm run bench -- honesty`)", () => {
  const usual: Truth = {
    repeats: 100,
    shape: "autocorrelated",
    ratio: 1,
    order: "ABBAABBA",
    told: "nothing",
    spread: 0.04,
    drift: 0,
    levelsOff: Infinity,
    noise: null,
    seconds: [10, 10],
    seed: 100,
  };
  it.each<[string, Partial<Truth>]>([
    ["one run a side", { order: "AB" }],
    ["two runs a side", { order: "ABBA" }],
    ["four runs a side", {}],
    ["three arms", { order: "ABCCBAABC" }],
    ["15 % drift, A always first", { order: "ABABABAB", told: "order", drift: 0.15 }],
    ["15 % that levels off", { order: "ABABABAB", told: "order", drift: 0.15, levelsOff: 2 }],
    ["A A A A B B B B", { order: "AAAABBBB", told: "order", drift: 0.15 }],
  ])("equal arms at 4 %% spread, no floor known, are rarely called different: %s", (_, truth) => {
    // 6 of 100 wanted; 13 lie three standard errors above.
    expect(honesty({ ...usual, ...truth }).called).toBeLessThanOrEqual(0.13);
  });
  it("a true 10 % is found, and its interval holds it", () => {
    const made = honesty({ ...usual, spread: 0.02, ratio: 1.1 });
    expect(made.better).toBeGreaterThan(0.9);
    expect(made.covered.averageFps).toBeGreaterThan(0.9);
  });
  it.each<[Truth["shape"]]>([["display-paced"], ["stalls under a cap"], ["counter"], ["heavy tails"]])(
    "intervals of the average hold where frames are %s",
    (shape) =>
      expect(
        honesty({ ...usual, repeats: 60, order: "ABBA", spread: 0.01, seconds: [20, 20], shape }).covered
          .averageFps,
      ).toBeGreaterThan(0.9),
  );
});

describe("runs fitted by arm and order", () => {
  const quiet = believedSpreads({ sd: 0.01, freedom: 10 });
  const places = [
    [0, 3, 4, 7],
    [1, 2, 5, 6],
  ];
  const valuesOf = (driftAt: (at: number) => number) =>
    places.map((own, arm) => own.map((at) => 3 + 0.1 * arm + driftAt(at) + 0.002 * Math.sin(7 * at)));

  it.each([
    ["a steady drift", (at: number) => -0.02 * at],
    ["a rig that warms up", (at: number) => -0.15 * (1 - Math.exp(-at / 1.5))],
    ["a step", (at: number) => (at > 4 ? -0.1 : 0)],
    ["no drift", () => 0],
  ])("finds the effect beside %s", (_name, driftAt) => {
    const { estimate, low, high } = contrastOf(fitRuns(valuesOf(driftAt), [places], quiet), 0, 1);
    expect(Math.abs(estimate - 0.1)).toBeLessThan(0.01);
    expect(low).toBeLessThan(0.1);
    expect(high).toBeGreaterThan(0.1);
  });
  it("names a step, and the run after which it came", () => {
    const [likeliest] = fitRuns(
      valuesOf((at) => (at > 4 ? -0.1 : 0)),
      [places],
      quiet,
    ).explanations;
    expect(likeliest?.drift).toMatchObject({ name: "step", after: 5 });
    expect(likeliest?.drifted).toBeCloseTo(-0.1, 2);
  });
  it("without the order it is Student's two-sample interval, where nothing is believed of the spread", () => {
    // Means 2 and 6, pooled squares 10 on 3 degrees of freedom: 4 ± t₃ √(10/3 · 5/6), by hand.
    const fit = fitRuns(
      [
        [1, 2, 3],
        [4, 6, 8],
      ],
      [],
      anySpreads(1e-4, 7),
    );
    const { estimate, low, high } = contrastOf(fit, 0, 1);
    const half = tQuantile(0.975, 4) * Math.sqrt((10 / 4) * (2 / 3));
    expect(estimate).toBeCloseTo(4, 3);
    expect((high - low) / 2 / half).toBeGreaterThan(0.95);
    expect((high - low) / 2 / half).toBeLessThan(1.05);
  });
  it("a few runs don't borrow the spread of many that agree", () => {
    const tight = [0, 0.01, -0.01, 0.005, -0.005, 0.01, -0.01, 0, 0.003];
    const wide = [0.12, -0.05, 0.08];
    const half = (a: number[], b: number[]) => {
      const { low, high } = contrastOf(fitRuns([a, b], [], believedSpreads(assumedNoise)), 0, 1);
      return (high - low) / 2;
    };
    // Pooled: SD of all about their means 4.4 %, of the difference 2.9 %, two-sided 6.6 %. Welch: 22 %.
    expect(half(tight, wide)).toBeGreaterThan(0.075);
    expect(half(tight, wide)).toBeLessThan(0.23);
  });
  it("throws for an arm without runs", () => expect(() => fitRuns([[1], []], [], quiet)).toThrow(RangeError));
  it("A then B is the order itself, A B B A has nothing of it", () => {
    expect(mixedWithOrder([0], [1])).toBeCloseTo(1, 9);
    expect(mixedWithOrder([0, 3], [1, 2])).toBeCloseTo(0, 9);
    expect(mixedWithOrder([0, 1, 2, 3], [4, 5, 6, 7])).toBeCloseTo(0.762, 3);
  });
});

describe("deciding", () => {
  it("needs the interval clear of 0 and the estimate at the margin", () => {
    expect(decide({ estimate: 0.03, low: 0.01, high: 0.05 }, 0.02)).toBe("better");
    expect(decide({ estimate: 0.015, low: 0.005, high: 0.025 }, 0.02)).toBe("undecided");
    expect(decide({ estimate: -0.03, low: -0.05, high: -0.01 }, 0.02)).toBe("worse");
    expect(decide({ estimate: 0.005, low: -0.01, high: 0.015 }, 0.02)).toBe("no difference");
  });
  it("asks for fewer further runs the clearer the difference, and says the chance where none settles it", () => {
    const more = (effect: number) =>
      furtherRuns({
        fit: fitRuns(
          [
            [-0.03, 0, 0.03],
            [effect + 0.03, effect, effect - 0.03],
          ],
          [],
          believedSpreads({ sd: 0.04, freedom: 20 }),
        ),
        counts: [3, 3],
        a: 0,
        b: 1,
        margin: 0.02,
      });
    expect(more(0.12).chance).toBeGreaterThanOrEqual(0.9);
    expect(more(0.0199)).toMatchObject({ more: 8 });
    expect(more(0.0199).chance).toBeLessThan(0.85);
    expect(more(0.12).more).toBeLessThan(more(0.0199).more);
    // The next steps first, each with its chance; nobody is asked for more than eight.
    expect(more(0.0199).steps.map((step) => step.more)).toEqual([1, 2, 4, 8]);
    const chances = more(0.06).steps.map(({ chance }) => chance);
    expect([...chances].sort((a, b) => a - b)).toEqual(chances);
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
  it("is borrowed whole without repeats, and outweighed by what the runs show", () => {
    expect(pooledSpread(0, 0, assumedNoise)).toMatchObject({
      variance: expect.closeTo(assumedNoise.sd ** 2, 12),
      borrowed: true,
    });
    const wild = pooledSpread(6 * 0.1 ** 2, 6, assumedNoise);
    const { sd, freedom } = assumedNoise;
    expect(wild.variance).toBeCloseTo((0.06 + freedom * sd ** 2) / (6 + freedom), 9);
    expect(wild.freedom).toBeCloseTo(6 + freedom, 9);
  });
  it("keeps a noisy group: repeats of one work that spread by 13.6 % are the rig's own", () => {
    // Twelve runs of the same work, their logs spread by 13.6 %.
    const logs = [-1.6, -1.1, -0.8, -0.5, -0.3, -0.1, 0.1, 0.3, 0.5, 0.8, 1.1, 1.6];
    const centre = Math.sqrt(logs.reduce((sum, z) => sum + z * z, 0) / 11);
    const rates = logs.map((z) => 40 * Math.exp((0.136 * z) / centre));
    expect(noiseFloor([rates])).toMatchObject({ sd: expect.closeTo(0.136, 6), freedom: 11 });
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
    const arms = comparable(
      [
        [crawling(71, 1), crawling(71.5, 2)],
        [crawling(100, 3), crawling(99.5, 4)],
      ],
      60,
    );
    expect(arms.by).toBe("engine speed");
    expect(compare(arms.arms[0] ?? [], arms.arms[1] ?? [], { targetFps: 60 }).averageFps.ratio).toBeCloseTo(
      1.4,
      1,
    );
    expect(compare([crawling(71, 1)], [crawling(100, 3)], { targetFps: 60 }).averageFps.ratio).toBeCloseTo(
      1,
      1,
    );
  });
  it("by their frames where one run has no report", () =>
    expect(comparable([[crawling(71, 1)], [run(60, 2)]], 60).by).toBe("frames"));
});
