import fc from "fast-check";
import { readFileSync } from "node:fs";
import { seeded, standardDeviation } from "@/core/stats";
import { readLog, type FrameTrace } from "@/core/trace";
import { readingOf } from "@/testing/readingOf";
import {
  averageFps,
  averageRate,
  freezeCount,
  fullSpeed,
  fullSpeedOfReadings,
  hitches,
  isCold,
  lows,
  pacing,
  passesOf,
  speedPercent,
  summarise,
  readTyped,
  regularSpikes,
  tallyFigures,
  tallyTrace,
  total,
  warmUp,
  type Yardstick,
} from ".";

const even = (fps: number, seconds: number) => new Float64Array(Math.round(fps * seconds)).fill(1000 / fps);
const turns = (n: number) => Float64Array.from({ length: n }, (_, i) => (i % 2 ? 50 : 16));
const sixty: Yardstick = { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 };
const frames = (frameTimes: Float64Array): FrameTrace => ({
  form: "frames",
  frameTimes,
  channels: [],
  marks: [],
});
const logs = fc
  .array(fc.double({ min: 0.5, max: 400, noNaN: true }), { minLength: 3, maxLength: 300 })
  .map((list) => Float64Array.from(list));

// An independent calculation in another language, beside the measured logs (samples/README.md).
const table = readFileSync("samples/README.md", "utf8")
  .split("\n")
  .filter((line) => /^\| [a-z0-9-]+\.csv/.test(line))
  .map((line) => {
    const [file, ...figures] = line
      .split("|")
      .slice(1, -1)
      .map((cell) => cell.trim());
    const [count, seconds, fps, median, p99, percentile, worstMean, worstTime] = figures.map(Number);
    return { file, count, seconds, fps, median, p99, percentile, worstMean, worstTime };
  });

describe("measured logs against an independent calculation", () => {
  it("has the whole table", () => expect(table).toHaveLength(12));
  it.each(table)("$file: $fps fps", (row) => {
    const made = summarise(readingOf(readLog(readFileSync(`samples/${row.file}`, "utf8"))).trace, sixty);
    expect(made.frames).toBe(row.count);
    expect(made.durationMs / 1000).toBeCloseTo(row.seconds, 2);
    expect(made.averageFps).toBeCloseTo(row.fps, 4);
    expect(made.medianFrameTimeMs).toBeCloseTo(row.median, 4);
    expect(made.p99FrameTimeMs).toBeCloseTo(row.p99, 4);
    expect(made.lows!.percentile.one).toBeCloseTo(row.percentile, 4);
    expect(made.lows!.worstMean.one).toBeCloseTo(row.worstMean, 4);
    expect(made.lows!.worstTime.one).toBeCloseTo(row.worstTime, 4);
  });
});

describe("rate and speed (common practice)", () => {
  it("51 shown of 60 is 85 % speed", () => expect(speedPercent(51, 60)).toBe(85));
  it("36 shown of a title built for 20 is 180 %", () => expect(speedPercent(36, 20)).toBe(180));
  it("40 of 50 is 80 %", () => expect(speedPercent(40, 50)).toBe(80));
  it("frames of 16 and 50 ms by turns average 30.3", () => expect(averageFps(turns(600))).toBeCloseTo(30.3, 2));
  it("isn't the mean of instantaneous rates, which overstates", () => {
    const frameTimes = turns(600);
    const overstated = frameTimes.reduce((sum, ms) => sum + 1000 / ms, 0) / frameTimes.length;
    expect(overstated).toBeGreaterThan(averageFps(frameTimes) + 10);
  });
  it("of readings is weighted by time", () =>
    expect(averageRate(Float64Array.of(1000, 3000), Float64Array.of(60, 20))).toBe(30));
  it("NTSC field rate, ITU-R BT.1700: 60/1.001 Hz is 59.9401", () =>
    expect(averageFps(new Float64Array(600).fill((1000 * 1.001) / 60))).toBeCloseTo(59.9401, 4));
});

describe("laws", () => {
  it("scaling all frame times by k divides fps by k and multiplies percentiles by k", () => {
    fc.assert(
      fc.property(logs, fc.double({ min: 0.2, max: 5, noNaN: true }), (frameTimes, k) => {
        const scaled = frameTimes.map((ms) => ms * k);
        expect(averageFps(scaled)).toBeCloseTo(averageFps(frameTimes) / k, 6);
        expect(summarise(frames(scaled), sixty).p99FrameTimeMs!).toBeCloseTo(
          summarise(frames(frameTimes), sixty).p99FrameTimeMs! * k,
          6,
        );
      }),
    );
  });
  it("order changes no percentile and no low", () => {
    fc.assert(
      fc.property(logs, (frameTimes) => {
        const a = summarise(frames(frameTimes), sixty),
          b = summarise(frames(frameTimes.slice().reverse()), sixty);
        expect(b.p99FrameTimeMs).toBe(a.p99FrameTimeMs);
        expect(b.lows!.worstTime.one).toBeCloseTo(a.lows!.worstTime.one, 9);
        expect(b.lows!.percentile).toEqual(a.lows!.percentile);
      }),
    );
  });
  it("a log twice over has the averages of one", () => {
    fc.assert(
      fc.property(logs, (frameTimes) => {
        const twice = Float64Array.from([...frameTimes, ...frameTimes]);
        expect(averageFps(twice)).toBeCloseTo(averageFps(frameTimes), 8);
      }),
    );
  });
  it("no low exceeds the average, and a tenth is no higher than one per cent", () => {
    fc.assert(
      fc.property(logs, (frameTimes) => {
        const low = lows(frameTimes.slice().sort(), total(frameTimes));
        for (const pair of [low.worstMean, low.worstTime]) {
          expect(pair.one).toBeLessThanOrEqual(averageFps(frameTimes) + 1e-9);
          expect(pair.tenth).toBeLessThanOrEqual(pair.one + 1e-9);
        }
      }),
    );
  });
  it("running medians by sliding agree with sorting every neighbourhood", () => {
    fc.assert(
      fc.property(logs, (frameTimes) => {
        const slow = [...frameTimes].flatMap((ms, i) => {
          const around = [...frameTimes.slice(Math.max(0, i - 30), i + 31)].sort((a, b) => a - b);
          const half = around.length >> 1;
          const median = around.length % 2 ? around[half] : (around[half - 1] + around[half]) / 2;
          return ms > 2.5 * median && ms > median + 8 ? [{ index: i, lost: ms - median }] : [];
        });
        expect(hitches(frameTimes).map(({ index, lostMs }) => ({ index, lost: lostMs }))).toEqual(slow);
      }),
    );
  });
});

describe("worst-time low, by hand", () => {
  it("walks from the longest frame until they fill the share of time", () => {
    // 99 frames of 10 ms and one of 20: 1 % of 1,010 ms is 10.1 ms, which the 20 ms frame fills.
    const sorted = Float64Array.from([...new Array(99).fill(10), 20]);
    expect(lows(sorted, 1010).worstTime.one).toBe(50);
    // 1 % of 100 frames is one frame; 0.1 % is still one.
    expect(lows(sorted, 1010).worstMean).toEqual({ one: 50, tenth: 50 });
  });
});

describe("full-speed time", () => {
  it("is all of an even run, to the last window", () =>
    expect(fullSpeed(even(60, 10), 60)).toMatchObject({
      share: 1,
      dips: { count: 0, longestMs: 0, deepestFps: null },
    }));
  it("takes 59.5 fps for 60 within 1 %, and 59 not", () => {
    expect(fullSpeed(even(59.5, 10), 60).share).toBe(1);
    expect(fullSpeed(even(59, 10), 60).share).toBe(0);
  });
  it("can't be told of less than a window", () =>
    expect(fullSpeed(even(60, 0.9), 60)).toMatchObject({ share: null, dips: null }));
  it("counts a sag of two seconds as one dip, seen from a second before", () => {
    const sag = Float64Array.from([...even(60, 5), ...even(40, 2), ...even(60, 5)]);
    const { share, dips, stretches } = fullSpeed(sag, 60);
    expect(dips!.count).toBe(1);
    expect(dips!.deepestFps).toBeCloseTo(40, 6);
    // Windows touch the sag from just under a second before it until it ends.
    expect(dips!.longestMs).toBeGreaterThan(2900);
    expect(dips!.longestMs).toBeLessThan(3000);
    expect(share).toBeCloseTo(1 - dips!.longestMs / 11_000, 2);
    expect(stretches[0].startMs).toBeGreaterThan(4000);
  });
  it("judges readings as they stand, weighted by their time", () => {
    expect(
      fullSpeedOfReadings(Float64Array.of(1000, 1000, 2000), Float64Array.of(60, 60, 30), 60),
    ).toMatchObject({ share: 0.5, dips: { count: 1, longestMs: 2000, deepestFps: 30 } });
  });
});

describe("hitches and freezes", () => {
  it("a spike of 16 ms over a 33 ms frame every second isn't 2.5 times its neighbours, so no hitch by the default rules", () => {
    expect(hitches(Float64Array.from({ length: 600 }, (_, i) => (i % 30 === 29 ? 49.3 : 33.3)))).toHaveLength(
      0,
    );
  });
  it("and is 60 a minute at an average near 30 where the house rule is a factor of 1.4 (common practice)", () => {
    // 29 frames and one 16 ms longer make a second.
    const usual = (1000 - 16) / 30;
    const frameTimes = Float64Array.from({ length: 1800 }, (_, i) => (i % 30 === 29 ? usual + 16 : usual));
    const found = hitches(frameTimes, {
      tolerance: 0.01,
      windowMs: 1000,
      hitchFactor: 1.4,
      hitchExtraMs: 8,
      hitchNeighbours: 61,
      freezeMs: 250,
    });
    expect((60_000 * found.length) / total(frameTimes)).toBeCloseTo(60, 6);
    expect(averageFps(frameTimes)).toBeCloseTo(30, 6);
  });
  it("tells when and how much was lost", () => {
    const frameTimes = even(60, 4);
    frameTimes[120] = 116.67;
    expect(hitches(frameTimes)).toEqual([
      { index: 120, startMs: expect.closeTo(2000, 6), frameMs: 116.67, lostMs: expect.closeTo(100, 1) },
    ]);
  });
  it("a frame of a quarter second is a freeze", () =>
    expect(freezeCount(Float64Array.of(16, 249.9, 250, 900))).toBe(2));
});

describe("pacing", () => {
  it("frames of 16 and 50 ms by turns: average 30.3, pacing broken (common practice)", () => {
    const { cadenceShare, lag1 } = pacing(turns(600), 60);
    expect(cadenceShare).toBe(0.5);
    expect(lag1!).toBeLessThan(-0.95);
  });
  it("an even 30 on a 60 Hz display lies wholly on two refreshes", () =>
    expect(pacing(even(30, 10), 60)).toMatchObject({
      cadenceShare: 1,
      cadence: 2,
      cadenceErrorRms: expect.closeTo(0, 9),
      lag1: null,
    }));
  it("25 fps on 60 Hz can't be even: it errs by 0.4 of a refresh", () =>
    expect(pacing(even(25, 10), 60).cadenceErrorRms).toBeCloseTo(0.4, 9));
});

describe("warm-up", () => {
  const visit = (spikes: number) =>
    Float64Array.from({ length: 300 }, (_, i) => (i % 60 === 30 && i / 60 < spikes ? 216.67 : 16.67));
  const rooms = (...spikes: number[]): FrameTrace => {
    const visits = spikes.map(visit);
    let at = 0;
    const marks = visits.map((times) => ({ label: "hall", startMs: at, endMs: (at += total(times)) }));
    return {
      form: "frames",
      frameTimes: Float64Array.from(visits.flatMap((times) => [...times])),
      channels: [],
      marks,
    };
  };
  it("a first visit that loses three times the later ones is cold", () => {
    const [hall] = warmUp(rooms(5, 1, 0));
    expect(hall).toMatchObject({ label: "hall", coldCache: true });
    expect(hall.passes.map(({ hitches: count }) => count)).toEqual([5, 1, 0]);
  });
  it("an even loss is no cold cache, and one visit says nothing", () => {
    expect(warmUp(rooms(2, 2, 2))[0].coldCache).toBe(false);
    expect(warmUp(rooms(5))).toEqual([]);
    expect(isCold([20, 0])).toBe(false);
  });
  it("cuts visits apart as traces", () =>
    expect(passesOf(rooms(1, 0)).map(({ pass, trace }) => [pass, trace.frameTimes.length])).toEqual([
      [1, 300],
      [2, 300],
    ]));
  it("finds every room of the measured first visits revisited once", () => {
    const visits = warmUp(readingOf(readLog(readFileSync("samples/areas-first-visit.csv", "utf8"))).trace);
    expect(visits).toHaveLength(10);
    // The log's last frame is back in the first room; no room is seen once only.
    expect(visits.every(({ passes }) => passes.length >= 2)).toBe(true);
  });
});

describe("summary", () => {
  it("keeps counter and engine apart and says when they disagree by more than 3 points", () => {
    const channels = [
      { role: "speed" as const, times: Float64Array.of(0, 5000), values: Float64Array.of(71, 71) },
    ];
    expect(summarise({ ...frames(even(60, 10)), channels }, sixty)).toMatchObject({
      speedPercent: expect.closeTo(100, 6),
      reportedSpeedPercent: expect.closeTo(71, 9),
      counterDisagrees: true,
    });
  });
  it("a title free of its rate has speed 100 unless reported", () =>
    expect(summarise(frames(even(40, 5)), { ...sixty, tied: false, targetFps: 30 }).speedPercent).toBe(100));
  it("readings give no hitches, pacing or frame percentiles", () => {
    const made = summarise(
      {
        form: "interval",
        durations: new Float64Array(30).fill(1000),
        rates: new Float64Array(30).fill(58),
        channels: [],
        marks: [],
      },
      sixty,
    );
    expect(made).toMatchObject({
      form: "interval",
      averageFps: 58,
      hitches: null,
      pacing: null,
      lows: null,
      p99FrameTimeMs: null,
      freezes: null,
    });
    expect(made.fullSpeedTimePercent).toBe(0);
  });
  it("refuses a trace without frames", () =>
    expect(() => summarise(frames(new Float64Array()), sixty)).toThrow(RangeError));
});

/** Readings five seconds apart. */
const read = (rates: number[]) => ({
  rates: Float64Array.from(rates),
  durations: new Float64Array(rates.length).fill(5000),
});
const tally = (rates: number[], target = 60) => tallyFigures(read(rates), target);
const widthOf = (rates: number[]) => {
  const { interval } = tally(rates);
  return interval ? interval.high - interval.low : Infinity;
};

describe("hand tally", () => {
  it("gives the mean's t interval (textbook: 10 readings, 9 degrees of freedom), and half a unit to each side", () => {
    const made = tally([58, 60, 55, 60, 59, 60, 52, 60, 60, 56]);
    expect(made.mean).toBe(58);
    // SD 2.789, half-width 2.262157 · 2.789 / √10 = 1.995; lag-1 is negative, so all ten count.
    expect(made.effective).toBe(10);
    expect(made.interval).toMatchObject({ low: expect.closeTo(55.505, 2), high: expect.closeTo(60.495, 2) });
    expect(made.atTarget.share).toBe(0.6);
    // With decimals only their last digit's half is hidden.
    const finer = tally([58.1, 59.9, 55, 60.2, 59, 60.1, 51.9, 60, 60, 55.8]);
    expect(finer.interval!.high - finer.interval!.low).toBeLessThan(2 * 2.2);
  });
  it("counts readings of one long dip for fewer, and says how much further apart to read", () => {
    const made = tally([60, 60, 60, 60, 60, 30, 30, 30, 30, 30]);
    expect(made.effective).toBeLessThan(4);
    expect(made.furtherApart).toBeGreaterThanOrEqual(2);
    expect(tally([58, 60, 55, 60, 59, 60, 52, 60, 60, 56]).furtherApart).toBe(1);
  });
  it("says nothing of the spread from one reading", () => expect(tally([60]).interval).toBeNull());
  it("ten looks at 60 leave open what a counter hides, and no more", () =>
    expect(tally(new Array<number>(10).fill(60)).interval).toEqual({ low: 59.5, high: 60.5 }));
  it("a tighter set of readings never has a wider interval than a looser one", () => {
    const random = seeded(7);
    for (let k = 0; k < 400; k++) {
      const n = 2 + Math.floor(6 * random.uniform());
      const around = (spread: number) =>
        Array.from({ length: n }, () => Math.round(50 + spread * random.normal()));
      const [a, b] = [around(1), around(6)];
      const [tight, loose] = standardDeviation(a) <= standardDeviation(b) ? [a, b] : [b, a];
      expect(widthOf(tight)).toBeLessThanOrEqual(widthOf(loose) + 1e-9);
    }
    expect(widthOf([60, 60, 59, 59])).toBeLessThan(widthOf([60, 55, 60, 55]));
    expect(widthOf([60, 60, 60, 60])).toBeLessThan(widthOf([60, 57, 60, 57]));
  });
  it("the average on the pad is the kept run's, however the looks fell", () => {
    const yardstick = { nativeFps: 60, tied: true, refreshHz: 60, targetFps: 60 };
    const look = fc.record({
      fps: fc.integer({ min: 5, max: 75 }),
      second: fc.integer({ min: 0, max: 9 }),
      scene: fc.constantFrom("", "the ford", "the hill"),
    });
    fc.assert(
      fc.property(fc.array(look, { minLength: 1, maxLength: 20 }), (looks) => {
        let second = 0;
        const trace = tallyTrace(looks.map((each) => ({ ...each, second: (second += each.second) })));
        expect(tallyFigures(trace, 60).mean).toBe(summarise(trace, yardstick).averageFps);
      }),
    );
  });

  it("ten readings typed in two and a half seconds are two or three looks", () => {
    const typed = tallyTrace(
      Array.from({ length: 10 }, (_, at) => ({ fps: 57 + (at % 4), second: (2.5 * at) / 9, scene: "" })),
    );
    const { effective, readings } = tallyFigures(typed, 60);
    expect(readings).toBe(10);
    expect([2, 3]).toContain(effective);
  });
  it("another scene is another look, however fast the hand", () => {
    const typed = tallyTrace(
      ["a", "b", "c"].flatMap((scene, at) =>
        [0, 1, 2].map((k) => ({ fps: 60, second: 10 * at + 5 * k, scene })),
      ),
    );
    expect(tallyFigures(typed, 60).effective).toBe(9);
  });
  it("every look counts alike, whatever the pauses between", () => {
    const typed = tallyTrace([
      { fps: 60, second: 0, scene: "a" },
      { fps: 40, second: 3, scene: "a" },
      { fps: 50, second: 30, scene: "b" },
    ]);
    expect(tallyFigures(typed, 60).mean).toBe(50);
    expect(typed.marks.map(({ label }) => label)).toEqual(["a", "b"]);
  });
  it("a display that cuts off is known by what it shows at a cap", () => {
    expect(tally([59, 59, 59, 59, 59, 59], 59.94).interval).toEqual({ low: 59, high: 60 });
    expect(tally([60, 60, 60, 60, 60, 60], 59.94).interval).toEqual({ low: 59.5, high: 60.5 });
  });
});

describe("what is typed off a screen", () => {
  const typed = (text: string, kind: "rate" | "speed" | "frame time" = "rate", native = 60) => {
    const found = readTyped(text, kind, native);
    return found.ok ? found.readings : found.part;
  };
  it.each([
    ["60", "rate", [{ kind: "rate", value: 60, fps: 60 }]],
    ["85 %", "rate", [{ kind: "speed", value: 85, fps: 51 }]],
    ["85%", "rate", [{ kind: "speed", value: 85, fps: 51 }]],
    ["40 ms", "rate", [{ kind: "frame time", value: 40, fps: 25 }]],
    ["59,94", "rate", [{ kind: "rate", value: 59.94, fps: 59.94 }]],
    ["85", "speed", [{ kind: "speed", value: 85, fps: 51 }]],
    ["20", "frame time", [{ kind: "frame time", value: 20, fps: 50 }]],
    ["30 fps", "speed", [{ kind: "rate", value: 30, fps: 30 }]],
  ] as const)("%s, a bare number being a %s", (text, kind, expected) =>
    expect(typed(text, kind)).toEqual(expected),
  );
  it("several in a row, with commas or without", () => {
    expect(typed("59 60 60 59")).toHaveLength(4);
    expect(typed("59, 60, 60; 59")).toHaveLength(4);
  });
  it("what was read beside it, in one line", () =>
    expect(typed("24 gpu 97 cpu 88 15 W 71 C gpu 800 MHz vram 3 GB battery 64 core 91 ram 3100 MB")).toEqual([
      {
        kind: "rate",
        value: 24,
        fps: 24,
        channels: {
          gpu: 97,
          cpu: 88,
          watts: 15,
          temperature: 71,
          gpuClock: 800,
          videoMemory: 3072,
          battery: 64,
          cpuBusiest: 91,
          memory: 3100,
        },
      },
    ]));
  it.each(["sixty", "60 gpux 5", "gpu 97", "0 ms", "60 800 MHz", "1e5", "1001", "60 -5"])(
    "%s is refused",
    (text) => expect(typeof typed(text)).toBe("string"),
  );
});

describe("spikes that come back", () => {
  /** Frames of 60 fps with jitter, and one longer at given moments. */
  const spiked = (extraMs: number, every: (random: ReturnType<typeof seeded>) => number, seed = 3) => {
    const random = seeded(seed);
    const times: number[] = [];
    let at = 0,
      next = 700;
    while (at < 60_000) {
      const isSpike = at >= next;
      if (isSpike) next = at + every(random);
      const ms = 16.67 + 0.15 * random.normal() + (isSpike ? extraMs : 0);
      times.push(ms);
      at += ms;
    }
    return Float64Array.from(times);
  };
  it.each([
    [16, 1000],
    [4, 1000],
    [60, 5000],
    [8, 480],
  ])("%d ms every %d ms is found by its period and size", (extraMs, periodMs) => {
    const found = regularSpikes(spiked(extraMs, () => periodMs));
    expect(found!.periodMs / periodMs).toBeCloseTo(1, 1);
    expect(found!.extraMs / extraMs).toBeCloseTo(1, 0);
  });
  it("none in even frames, in spikes at random moments, or in frames that take turns", () => {
    expect(regularSpikes(spiked(0, () => 1000))).toBeNull();
    for (let seed = 0; seed < 40; seed++)
      expect(regularSpikes(spiked(16, (random) => -1000 * Math.log(1 - random.uniform()), seed))).toBeNull();
    expect(regularSpikes(turns(3000))).toBeNull();
  });
});
