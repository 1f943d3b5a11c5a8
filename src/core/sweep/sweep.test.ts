import { simulate, type SimDevice, type SimWorkload } from "@/core/simulator";
import { seeded } from "@/core/stats";
import type { Channel, FrameTrace } from "@/core/trace";
import {
  audioQueueDelayMs,
  burstAndSustained,
  chooseSchool,
  coolDownMinutes,
  crashRate,
  fitHeat,
  ladder,
  memoryGrowth,
  minutesWith,
  powerSweep,
  runtimeHours,
  secondsToLimit,
  throttling,
  type LadderRun,
} from ".";

const channel = (role: Channel["role"], times: number[], values: number[]): Channel => ({
  role,
  times: Float64Array.from(times),
  values: Float64Array.from(values),
});
const seconds = (n: number, step = 1) =>
  Array.from({ length: Math.round(n / step) }, (_, i) => 1000 * step * (i + 1));

describe("power", () => {
  const level = (mode: string, watts: number, ...rates: number[]) => ({
    mode,
    nominalWatts: watts,
    runs: rates.map((fps) => ({ fps, low: fps * 0.8, watts })),
  });
  it("35 fps at 15 W, 42 at 20 W, 25 at 30 W: the sweet spot is 20 W, and more power made it slower (common practice)", () => {
    const made = powerSweep(
      [level("low", 15, 35, 35.2), level("middle", 20, 42, 42.1), level("high", 30, 25, 25.1)],
      60,
    );
    expect(made.rows[made.sweetSpot!].mode).toBe("middle");
    expect(made.slowerWithMore[0]).toMatchObject({
      mode: "high",
      sentence: {
        code: "power.slower",
        figures: {
          mode: expect.any(String),
          fps: expect.any(Number),
          than: expect.any(String),
          thanFps: expect.any(Number),
        },
      },
    });
    expect(made.rows.map(({ onFront }) => onFront)).toEqual([true, true, false]);
    expect(made.rows[1].fpsPerWatt).toBeCloseTo(42.05 / 20, 4);
  });
  it("the least watts that hold the target, where any do", () => {
    const made = powerSweep([level("low", 8, 50), level("middle", 14, 60), level("high", 28, 60)], 60);
    expect(made.rows[made.sweetSpot!].mode).toBe("middle");
    expect(made.slowerWithMore).toEqual([]);
  });
  it("modes that can't be told apart aren't called slower", () =>
    expect(powerSweep([level("low", 15, 40), level("high", 30, 39.5)], 60).slowerWithMore).toEqual([]));
  it("30 W for about 90 minutes are about 45 Wh (common practice)", () => {
    expect(runtimeHours(45, 30, 1)).toBeCloseTo(1.5, 9);
    expect(runtimeHours(48, 14, 0.9, 2)).toBeCloseTo(2.7, 9);
    expect([runtimeHours(null, 30), runtimeHours(48, null)]).toEqual([null, null]);
  });
});

describe("heat", () => {
  const warming = (start: number, settled: number, tau: number, n: number, noise = 0, seed = 1) => {
    const random = seeded(seed);
    return seconds(n).map(
      (ms) => settled - (settled - start) * Math.exp(-ms / 1000 / tau) + noise * random.normal(),
    );
  };
  it("a first-order step is 63.2121 % of the way at τ and 95.0213 % at 3τ (textbook)", () => {
    const fit = fitHeat(seconds(400), warming(40, 80, 100, 400))!;
    expect(fit.settledC).toBeCloseTo(80, 2);
    expect(fit.settleSeconds).toBeCloseTo(100, 0);
    expect(100 * (1 - Math.exp(-1))).toBeCloseTo(63.2121, 4);
    expect(secondsToLimit(fit, 40 + 0.632121 * 40)!).toBeCloseTo(100, 0);
    expect(secondsToLimit(fit, 40 + 0.950213 * 40)!).toBeCloseTo(300, 0);
  });
  it("never reaches a limit above where it settles, and is there at once when it starts there", () => {
    expect(secondsToLimit({ startC: 40, settledC: 80, settleSeconds: 100 }, 85)).toBeNull();
    expect(secondsToLimit({ startC: 90, settledC: 95, settleSeconds: 100 }, 85)).toBe(0);
  });
  it("its interval holds the true asymptote in at least 90 % of 200 noisy warmings", () => {
    let held = 0;
    for (let seed = 0; seed < 200; seed++) {
      const random = seeded(9000 + seed);
      const [start, settled, tau] = [
        35 + 10 * random.uniform(),
        60 + 30 * random.uniform(),
        60 + 120 * random.uniform(),
      ];
      const { settledInterval } = fitHeat(seconds(420), warming(start, settled, tau, 420, 0.4, seed))!;
      if (settledInterval.low <= settled && settled <= settledInterval.high) held++;
    }
    expect(held / 200).toBeGreaterThanOrEqual(0.9);
  });
  it("a run too short to settle has a wide interval and says how far it went", () => {
    const short = fitHeat(seconds(60), warming(40, 80, 150, 60, 0.3))!,
      long = fitHeat(seconds(600), warming(40, 80, 150, 600, 0.3))!;
    expect(short.settledInterval.high - short.settledInterval.low).toBeGreaterThan(
      5 * (long.settledInterval.high - long.settledInterval.low),
    );
    expect(short.reached).toBeLessThan(0.6);
    expect(fitHeat([1000, 2000], [40, 41])).toBeNull();
  });
  it("cooling from 80 to within 2 of 40 takes τ·ln 20", () => {
    expect(coolDownMinutes(40, 80, 100)).toBeCloseTo((100 * Math.log(20)) / 60, 9);
    expect(coolDownMinutes(40, 41, 100)).toBe(0);
  });
  it("throttling: a clock under 95 % of its early median, busy, within 3 °C of the limit", () => {
    const times = seconds(600);
    const hot = times.map((ms) => (ms > 300_000 ? 93 : 80)),
      clocks = times.map((ms) => (ms > 300_000 ? 2600 : 3000)),
      busy = times.map(() => 96);
    const found = throttling(
      [
        channel("cpuClock", times, clocks),
        channel("cpuBusiest", times, busy),
        channel("temperature", times, hot),
      ],
      95,
    );
    expect(found).toMatchObject([{ half: "processor", deepest: expect.closeTo(2600 / 3000, 6) }]);
    expect(found[0].startMs).toBeCloseTo(300_000, -4);
    expect(
      throttling(
        [
          channel("cpuClock", times, clocks),
          channel(
            "cpuBusiest",
            times,
            times.map(() => 40),
          ),
          channel("temperature", times, hot),
        ],
        95,
      ),
    ).toEqual([]);
    expect(
      throttling(
        [
          channel("cpuClock", times, clocks),
          channel("cpuBusiest", times, busy),
          channel(
            "temperature",
            times,
            times.map(() => 80),
          ),
        ],
        95,
      ),
    ).toEqual([]);
    expect(throttling([], null)).toEqual([]);
  });
  it("burst is the first minute, sustained the last third", () => {
    const trace: FrameTrace = {
      form: "frames",
      frameTimes: Float64Array.from([...new Array(3600).fill(1000 / 60), ...new Array(7200).fill(1000 / 40)]),
      channels: [],
      marks: [],
    };
    const made = burstAndSustained(trace)!;
    expect(made.burst).toBeCloseTo(60, 1);
    expect(made.sustained).toBeCloseTo(40, 1);
    expect(burstAndSustained({ ...trace, frameTimes: new Float64Array(600).fill(16) })).toBeNull();
  });
});

describe("the simulated bench shows it from its physics", () => {
  const device: SimDevice = {
    refreshHz: 60,
    processorSpeed: 1,
    graphicsSpeed: 1,
    processorMhz: 3000,
    graphicsMhz: 1000,
    processorMaxWatts: 10,
    graphicsMaxWatts: 12,
    idleWatts: 2,
    budgetWatts: 40,
    processorFirstWatts: 15,
    spin: 0.3,
    coreShare: 0.4,
    governor: { floor: 1, sees: 1 },
    roomC: 21,
    degreesPerWatt: 3,
    settleSeconds: 60,
    limitC: 95,
    startC: 40,
    memoryMb: 8000,
  };
  const work: SimWorkload & { scale: number } = {
    nativeFps: 60,
    capFps: null,
    processorMs: 6,
    graphicsMs: 20,
    graphicsMsPerMegapixel: 0,
    waitMs: 0,
    megapixels: 0.1,
    scenes: [{ label: "a", seconds: 30, processor: 1, graphics: 1, newShaders: 0 }],
    passes: 10,
    compileMs: 0,
    storageMs: 0,
    memoryStartMb: 2000,
    memoryMbPerMinute: 200,
    repeatsFrames: false,
    unevenPacing: false,
    strictSync: false,
    scale: 1,
  };
  const of = (trace: FrameTrace, role: Channel["role"]) => trace.channels.find((each) => each.role === role)!;
  it("heat settles where watts say, and the fit finds its time constant", () => {
    const { trace } = simulate(device, work, 3, false);
    const fit = fitHeat(of(trace, "temperature").times, of(trace, "temperature").values)!;
    const watts = of(trace, "watts").values.at(-1)!;
    expect(fit.settledC).toBeCloseTo(21 + 3 * watts, 0);
    expect(fit.settleSeconds).toBeCloseTo(60, -1);
  });
  it("memory grows as it was told to, and dies at the wall", () => {
    const { trace, crashed } = simulate({ ...device, memoryMb: 2700 }, work, 3, false);
    const { times, values } = of(trace, "memory");
    expect(crashed).toBe(true);
    expect(memoryGrowth(times, values, 2700)!).toMatchObject({
      grows: true,
      mbPerMinute: expect.closeTo(200, 0),
      minutesToLimit: expect.closeTo(3.5, 1),
    });
  });
  it("throttles near its limit, and sustains less than it bursts", () => {
    const { trace } = simulate({ ...device, limitC: 60, settleSeconds: 90 }, work, 3, false);
    expect(throttling(trace.channels, 60).length).toBeGreaterThan(0);
    const { burst, sustained } = burstAndSustained(trace)!;
    expect(sustained).toBeLessThan(burst * 0.95);
  });
});

describe("crashes (Garwood 1936)", () => {
  it("one seen in one hour: 0.03 to 5.57 an hour", () => {
    const made = crashRate(1, 1);
    expect(made.low).toBeCloseTo(0.0253, 4);
    expect(made.high).toBeCloseTo(5.5716, 4);
  });
  it("none in t hours rules out more than 2.996/t (rule of three, Hanley & Lippman-Hand 1983)", () => {
    expect(crashRate(0, 2).ruledOutAbove).toBeCloseTo(2.9957 / 2, 4);
    expect(() => crashRate(0, 0)).toThrow(RangeError);
  });
  it("a sound queue of 64 frames of 32 samples at 32 kHz is 64 ms, of 16 frames 16 (arithmetic)", () => {
    expect(audioQueueDelayMs(64, 32, 32_000)).toBe(64);
    expect(audioQueueDelayMs(16, 32, 32_000)).toBe(16);
  });
});

describe("the clock ladder", () => {
  const plan = { steps: ["stock", "+100", "+200", "+300"], soakMinutes: 10, limitC: 95 };
  const soak = (step: number, changes: Partial<LadderRun> = {}): LadderRun => ({
    step,
    minutes: 10,
    crashed: false,
    artefacts: false,
    hottestC: 80,
    throttled: false,
    ...changes,
  });
  it("climbs a step at a time", () => {
    expect(ladder(plan, []).next).toMatchObject({ kind: "soak", step: 0, minutes: 10 });
    expect(ladder(plan, [soak(0)]).next).toMatchObject({ kind: "soak", step: 1 });
  });
  it.each<[string, Partial<LadderRun>, string]>([
    ["a crash", { crashed: true }, "crashed"],
    ["a broken picture", { artefacts: true }, "artefacts"],
    ["the limit", { hottestC: 95 }, "limit"],
    ["throttling", { throttled: true }, "throttled"],
  ])("backs off after %s, and confirms at twice the soak", (_name, trouble, why) => {
    const state = ladder(plan, [soak(0), soak(1), soak(2, trouble)]);
    expect(state).toMatchObject({
      lastClean: 1,
      failed: { step: 2, fault: { why } },
      next: { kind: "confirm", step: 1, minutes: 10 },
    });
  });
  it("is done when confirmed, and says what the soak rules out: 2.996 an hour over 20 minutes is 9.0", () => {
    const state = ladder(plan, [soak(0), soak(1), soak(2, { crashed: true }), soak(1)]);
    expect(state.next).toMatchObject({ kind: "done", step: 1 });
    expect(state.ruledOutPerHour).toBeCloseTo(2.9957 * 3, 3);
  });
  it("counts a soak taken up again days later", () => {
    expect(ladder(plan, [soak(0), soak(1, { minutes: 4 })]).next).toMatchObject({
      kind: "soak",
      step: 1,
      minutes: 6,
    });
    expect(ladder(plan, [soak(0), soak(1, { minutes: 4 }), soak(1, { minutes: 6 })]).next).toMatchObject({
      step: 2,
    });
  });
  it("says when even the bottom isn't clean", () =>
    expect(ladder(plan, [soak(0, { crashed: true })]).next).toMatchObject({ kind: "done", step: null }));
  it("refuses a plan without steps", () =>
    expect(() => ladder({ ...plan, steps: [] }, [])).toThrow(RangeError));
});

describe("force clocks, or let the device manage", () => {
  it("of those that hold the target, the most fps per watt", () =>
    expect(
      chooseSchool(
        [
          { name: "managed", sustainedFps: 60, hottestC: 60, watts: 6 },
          { name: "forced", sustainedFps: 61, hottestC: 75, watts: 10 },
        ],
        60,
        85,
      ).name,
    ).toBe("managed"));
  it("where one alone holds it, that one", () =>
    expect(
      chooseSchool(
        [
          { name: "managed", sustainedFps: 28, hottestC: 50, watts: 3 },
          { name: "forced", sustainedFps: 60, hottestC: 70, watts: 10 },
        ],
        60,
        85,
      ).name,
    ).toBe("forced"));
  it("not the one past the limit, if another stays under", () =>
    expect(
      chooseSchool(
        [
          { name: "managed", sustainedFps: 40, hottestC: 70, watts: null },
          { name: "forced", sustainedFps: 55, hottestC: 90, watts: null },
        ],
        60,
        85,
      ).name,
    ).toBe("managed"));
});

describe("memory", () => {
  it("the slope's interval holds the truth in at least 90 % of 200, a tenth of the readings wild", () => {
    let held = 0;
    for (let seed = 0; seed < 200; seed++) {
      const random = seeded(300 + seed);
      const slope = 20 + 200 * random.uniform();
      const times = seconds(600, 2),
        values = times.map(
          (ms) =>
            2000 +
            (slope * ms) / 60_000 +
            15 * random.normal() +
            (random.uniform() < 0.1 ? 300 * random.uniform() : 0),
        );
      const { low, high } = memoryGrowth(times, values, 8000)!;
      if (low <= slope && slope <= high) held++;
    }
    expect(held / 200).toBeGreaterThanOrEqual(0.9);
  });
  const readings = (minutes: number, at: (minute: number) => number) => {
    const random = seeded(11);
    const times = seconds(60 * minutes);
    return memoryGrowth(
      times,
      times.map((ms) => 2500 + at(ms / 60_000) + 5 * random.normal()),
      8000,
    )!;
  };
  it("a cache that fills isn't growth: too early to tell until its bend, then levelled off", () => {
    const cache = (minute: number) => 600 * (1 - Math.exp(-minute / 3));
    expect(readings(3, cache)).toMatchObject({ grows: false, minutesToLimit: null, early: {} });
    expect(readings(25, cache)).toMatchObject({ grows: false, levelled: {} });
    expect(readings(25, cache).early).toBeUndefined();
  });
  it("what goes on beside a cache that fills is growth, by its own slope", () => {
    const made = readings(25, (minute) => 400 * (1 - Math.exp(-minute)) + 50 * minute);
    expect(made.grows).toBe(true);
    expect(made.low).toBeLessThan(50.5);
    expect(made.high).toBeGreaterThan(49.5);
    // 2500 + 400 + 50 t reaches 8000 after 102 minutes (arithmetic).
    expect(made.minutesToLimit).toBeGreaterThan(95);
    expect(made.minutesToLimit).toBeLessThan(109);
  });
  it("level memory doesn't grow, and has no wall", () => {
    const random = seeded(5);
    const made = memoryGrowth(
      seconds(300),
      seconds(300).map(() => 3000 + 5 * random.normal()),
      8000,
    )!;
    expect([made.grows, made.minutesToLimit]).toEqual([false, null]);
  });
  it("8 GB are too few where 12 GB are enough for an hour", () => {
    const growth = { mbPerMinute: 120, startMb: 3000, grows: true };
    expect(minutesWith(growth, 8 * 1024)).toBeCloseTo(43.3, 1);
    expect(minutesWith(growth, 12 * 1024)).toBeCloseTo(77.4, 1);
    expect(minutesWith({ ...growth, grows: false }, 8192)).toBeNull();
  });
});
