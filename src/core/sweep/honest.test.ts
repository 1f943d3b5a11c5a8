import { readFileSync } from "node:fs";
import { summarise } from "@/core/metrics";
import { seeded } from "@/core/stats";
import { readLog } from "@/core/trace";
import { readingOf } from "@/testing/readingOf";
import { words } from "@/core/words";
import {
  fitHeat,
  fitScaleLaw,
  heatAt,
  isPaced,
  limitOutlook,
  memoryGrowth,
  powerSweep,
  secondsToLimit,
  type ScaleLevel,
} from ".";

const native = 320 * 240;
const level = (scale: number, ms: number, more: Partial<ScaleLevel> = {}): ScaleLevel => ({
  scale,
  pixels: native * scale ** 2,
  mediansMs: [ms],
  p99sMs: [ms * 1.15],
  meansMs: [ms],
  ...more,
});

describe("the resolution law never contradicts its own runs", () => {
  const measured = [1, 2, 3, 4, 5, 6, 8].map((scale): ScaleLevel => {
    const { trace } = readingOf(readLog(readFileSync(`samples/scale-${scale}-uncapped.csv`, "utf8")));
    const made = summarise(trace, { nativeFps: 60, tied: false, targetFps: 60, refreshHz: 60 });
    return level(scale, made.medianFrameTimeMs ?? NaN, {
      p99sMs: [made.p99FrameTimeMs ?? NaN],
      meansMs: [1000 / made.averageFps],
      paced: isPaced(made),
    });
  });
  it.each([[5], [8], [10], [15], [20], [25], [30], [40], [50], [60], [90]])(
    "on the measured sweep, for %d fps: the run at the scale it names holds",
    (targetFps) => {
      const { largestScale } = fitScaleLaw(measured, { targetFps, nativePixels: native });
      const own = measured.find(({ scale }) => scale === largestScale);
      if (!own) return;
      const limit = 1000 / (0.99 * targetFps);
      expect(own.mediansMs[0]).toBeLessThanOrEqual(limit);
      expect(own.meansMs?.[0]).toBeLessThanOrEqual(limit);
    },
  );
  it("heavy tails: a median that holds isn't enough where the average doesn't", () => {
    const levels = [1, 2, 3].map((scale) =>
      level(scale, 6 + 3 * scale, { meansMs: [scale === 3 ? 18 : 7 + 3 * scale] }),
    );
    expect(fitScaleLaw(levels, { targetFps: 60 }).largestScale).toBe(2);
  });
  it("where none holds, the figure that keeps the smallest from it is said", () => {
    const said = (more: Partial<ScaleLevel>) =>
      fitScaleLaw([level(1, 15.4, more), level(2, 25), level(3, 45)], { targetFps: 60 }).failing;
    expect(said({})).toBeNull();
    expect(said({ meansMs: [18] })).toMatchObject({ scale: 1, what: "average", ms: expect.closeTo(18, 9) });
    expect(said({ p99sMs: [40] })).toMatchObject({ what: "99th percentile", ms: expect.closeTo(40, 9) });
  });
  it("paced by the display: only measured levels count, and it asks for a free run", () => {
    const levels = [
      [1, 16.7],
      [2, 16.7],
      [4, 33.4],
    ].map(([scale = 1, ms = 0]) => level(scale, ms, { paced: true }));
    const law = fitScaleLaw(levels, { targetFps: 60 });
    expect([law.largestScale, law.largestScaleInterval]).toEqual([2, [2, 3]]);
    expect(law.predicted.map(({ scale }) => scale)).toEqual([1, 2, 4]);
    expect(law.notes.map(words).join()).toMatch(/rate let free/);
  });
  it("one sloped level only: one more is needed, and nothing is named that wasn't measured", () => {
    const law = fitScaleLaw([level(1, 12), level(2, 12.02), level(3, 11.98), level(4, 12.01), level(6, 30)], {
      targetFps: 60,
    });
    expect(law.largestScale).toBe(4);
    expect(law.notes.map(words).join()).toMatch(/One more level/);
  });
});

describe("heat that hasn't bent", () => {
  const minutes = (n: number, at: (seconds: number) => number, every = 2) => {
    const times = Array.from({ length: (60 * n) / every }, (_, i) => 1000 * every * (i + 1));
    return [times, times.map((ms) => at(ms / 1000))] as const;
  };
  const noisy = (seed: number) => {
    const random = seeded(seed);
    return () => 0.2 * random.normal();
  };
  it("two minutes of a five-minute time constant: the limit is open, with the minutes to run", () => {
    const noise = noisy(1);
    const fit = fitHeat(...minutes(2, (s) => 80 - 40 * Math.exp(-s / 300) + noise()))!;
    expect(limitOutlook(fit, 90, 120)).toMatchObject({ state: "open", runMinutes: expect.any(Number) });
    expect(fit.settledInterval.high).toBeGreaterThan(80);
  });
  it("readings without noise leave room for what a thermometer can't tell, and none under where it stands already", () => {
    const ran = 12;
    const fit = fitHeat(...minutes(ran, (s) => 61 - 28 * Math.exp(-s / 240)))!;
    const { low, high } = fit.settledInterval;
    expect(high - low).toBeGreaterThan(0.2);
    expect(low).toBeGreaterThan(61 - 28 * Math.exp((-60 * ran) / 240) - 0.5);
    expect(low).toBeLessThan(61);
    expect(high).toBeGreaterThan(61);
  });
  it("twenty minutes of it: never, and the limit under it at its time", () => {
    const noise = noisy(2);
    const fit = fitHeat(...minutes(20, (s) => 80 - 40 * Math.exp(-s / 200) + noise()))!;
    expect(limitOutlook(fit, 95, 1200)).toEqual({ state: "never" });
    // −200 · ln(10/40) = 277 s.
    expect(limitOutlook(fit, 70, 1200)).toMatchObject({ state: "reached", seconds: expect.closeTo(277, -1) });
  });
  it("a chip and what it sits in are two parts, and the limit is found on their sum", () => {
    const at = (s: number) => 35 + 15 * (1 - Math.exp(-s / 20)) + 30 * (1 - Math.exp(-s / 400));
    const noise = noisy(3);
    const fit = fitHeat(...minutes(25, (s) => at(s) + 0.3 * noise()))!;
    expect(fit.parts).toBeDefined();
    expect(fit.settledC).toBeCloseTo(80, -0.5);
    const seconds = secondsToLimit(fit, 70)!;
    expect(at(seconds)).toBeCloseTo(70, -0.5);
    expect(heatAt(fit, seconds)).toBeCloseTo(70, 3);
  });
});

describe("heat under a load that varies", () => {
  // First order: C·T' = P(t) − (T − Troom)/R, whose answer to P = P0(1 + m·sin ωt) from rest is worked out by
  // hand: rise·(1 − e^(−t/τ)) + rise·m·(sin(ωt − φ) + e^(−t/τ)·sin φ)/√(1 + (ωτ)²), tan φ = ωτ (handbook of
  // linear systems).
  const made = (tau: number, ran: number, noise: () => number, every = 2) => {
    const [room, rise, part, omega] = [30, 40, 0.5, 1 / (0.7 * tau)];
    const size = Math.hypot(1, omega * tau),
      phase = Math.atan(omega * tau);
    const seconds = Array.from({ length: Math.floor(ran / every) }, (_, i) => every * (i + 1));
    const times = seconds.map((s) => 1000 * s);
    const celsius = seconds.map((s) => {
      const left = Math.exp(-s / tau);
      return (
        room +
        rise * (1 - left) +
        (rise * part * (Math.sin(omega * s - phase) + left * Math.sin(phase))) / size +
        noise()
      );
    });
    const watts = seconds.map((s) => 12 * (1 + part * Math.sin(omega * s)));
    const turned = omega * seconds[seconds.length - 1]!;
    const truth = room + rise * (1 + (part * (1 - Math.cos(turned))) / turned);
    return {
      truth,
      fit: fitHeat(times, celsius, { times: Float64Array.from(times), values: Float64Array.from(watts) })!,
    };
  };
  it("the time constant and where it settles under the mean load come out of exact readings", () => {
    const { fit, truth } = made(150, 450, () => 0);
    expect(fit.settleSeconds).toBeCloseTo(150, -0.5);
    expect(Math.abs(fit.settledC - truth)).toBeLessThan(0.5);
    expect(fit.residualC).toBeLessThan(0.05);
  });
  it("without the watts the same readings leave more over", () => {
    const { fit } = made(150, 450, () => 0);
    const times = Array.from({ length: 225 }, (_, i) => 2000 * (i + 1));
    const blind = fitHeat(
      times,
      times.map((ms) => 30 + 40 * (1 - Math.exp(-ms / 150_000)) + 6 * Math.sin(ms / 105_000)),
    )!;
    expect(blind.residualC).toBeGreaterThan(10 * fit.residualC);
  });
  it.each([0.5, 1, 2, 4])(
    "the interval holds the truth after %s time constants, in at least nine of ten",
    (reach) => {
      let held = 0;
      for (let seed = 0; seed < 40; seed++) {
        const tau = 60 + 5 * seed;
        const { fit, truth } = made(tau, reach * tau, noisyBy(seed), (reach * tau) / 110);
        if (fit.settledInterval.low <= truth && truth <= fit.settledInterval.high) held++;
      }
      expect(held).toBeGreaterThanOrEqual(36);
    },
  );
  const noisyBy = (seed: number) => {
    const random = seeded(8000 + seed);
    let state = 0;
    return () => (state = 0.6 * state + 0.24 * random.normal());
  };
});

describe("memory", () => {
  const readings = (at: (i: number) => number) => {
    const times = Array.from({ length: 600 }, (_, i) => 1000 * (i + 1));
    return memoryGrowth(
      times,
      times.map((_, i) => at(i)),
      8000,
    )!;
  };
  it("that rises once and stays doesn't grow, and the step is said", () => {
    const random = seeded(5);
    const made = readings((i) => 3000 + (i > 300 ? 400 : 0) + 10 * random.normal());
    expect(made.grows).toBe(false);
    expect(made.step).toMatchObject({ megabytes: expect.closeTo(400, -1), minutes: expect.closeTo(5, 0) });
    const { mbPerMinute, low, high, step } = made;
    expect(words({ code: "memory.steady", figures: { mbPerMinute, low, high, step } })).toMatch(
      /rose once, by (39|40)\d MB/,
    );
  });
  it("flat readings that follow one another aren't taken for growth more often than one in ten", () => {
    let grew = 0;
    for (let seed = 0; seed < 100; seed++) {
      const random = seeded(seed);
      let state = 0;
      if (readings(() => 3000 + 20 * (state = 0.95 * state + 0.31 * random.normal())).grows) grew++;
    }
    expect(grew).toBeLessThanOrEqual(10);
  });
  it("that grows does, through the same noise", () => {
    let grew = 0,
      held = 0;
    for (let seed = 0; seed < 40; seed++) {
      const random = seeded(seed);
      let state = 0;
      const made = readings((i) => 3000 + i / 2 + 20 * (state = 0.9 * state + 0.44 * random.normal()));
      if (made.grows) grew++;
      if (made.low <= 30 && made.high >= 30) held++;
    }
    expect(grew).toBeGreaterThanOrEqual(30);
    expect(held).toBeGreaterThanOrEqual(35);
  });
});

it("a mode whose runs dim doesn't hold, whatever its average; one that flickers does, and it is said", () => {
  const mode = (name: string, watts: number, light: "steady" | "flickers" | "dims") => ({
    mode: name,
    nominalWatts: watts,
    runs: [{ fps: 60, low: null, watts, light }],
  });
  const dims = powerSweep([mode("Low", 8, "dims"), mode("High", 20, "steady")], 60);
  expect(words(dims.reason)).toMatch(/^High holds 60 fps \(60\.0\)/);
  const flickers = powerSweep([mode("Low", 8, "flickers"), mode("High", 20, "steady")], 60);
  expect(words(flickers.reason)).toMatch(/^Low holds 60 fps on average, with visible dips or hitches/);
});

it("equal power modes: the least watts win, and none is said to be slower", () => {
  let least = 0,
    slower = 0;
  for (let seed = 0; seed < 100; seed++) {
    const random = seeded(seed);
    const runs = () =>
      [0, 1].map(() => ({ fps: 45 * Math.exp(0.02 * random.normal()), low: null, watts: null }));
    const made = powerSweep(
      [10, 15, 20, 25].map((watts) => ({ mode: `${watts} W`, nominalWatts: watts, runs: runs() })),
      60,
    );
    if (made.sweetSpot === 0) least++;
    if (made.slowerWithMore.length > 0) slower++;
  }
  expect(least).toBeGreaterThanOrEqual(85);
  expect(slower).toBeLessThanOrEqual(8);
});
