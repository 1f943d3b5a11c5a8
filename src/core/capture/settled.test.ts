import { seeded } from "@/core/stats";
import {
  captureResult,
  clockOnScreen,
  keptTrace,
  momentOf,
  runTime,
  speedByClock,
  stillMoments,
  type PictureChange,
  type Observed,
} from ".";

/* A capture of ten seconds at 60 a second in which every second picture is new, as its changes alone; some lie between the kinds. */
const between = new Set([41, 200, 333]);
const random = seeded(7);
const changes: PictureChange[] = Array.from({ length: 599 }, (_, k) => {
  const level = (between.has(k) ? 5 : k % 2 === 1 ? 20 : 0.8) * Math.exp(0.05 * random.normal());
  return { level, broad: level, peaked: 2, smooth: 0.5, key: false };
});
const observed: Observed = {
  changes,
  stamps: { times: Float64Array.from({ length: 600 }, (_, k) => k / 60), lastSeconds: 1 / 60, faults: 0 },
  raw: Array.from({ length: 18 }, (_, k) => ({
    atMs: 1000 + 500 * k,
    text: k === 4 ? "3O" : k === 9 ? "8" : "30",
    confidence: k === 4 ? 20 : 95,
  })),
  foundCounter: null,
  yardstick: { nativeFps: 30, targetFps: 30, tied: true },
};
const none = { pictures: new Map(), readings: new Map() };

describe("what a person settles", () => {
  const before = captureResult(observed);
  it("pictures between the kinds are unsure, each with the one before it", () => {
    expect(before.unsure.map(({ place }) => place)).toEqual([42, 201, 334]);
    expect(before.unsure[0]).toMatchObject({ atMs: 1000 * (42 / 60), beforeMs: 1000 * (41 / 60) });
    expect(before.unsureFrames).toBe(3);
  });
  it("one that was looked at isn't unsure any more, counts as it was seen, and narrows the interval", () => {
    const pictures = new Map([
      [42, "new" as const],
      [201, "repeat" as const],
      [334, "new" as const],
    ]);
    const after = captureResult(observed, { ...none, pictures });
    expect(after.unsure).toEqual([]);
    const width = ({ averageFpsInterval: [low, high] }: typeof before) => high - low;
    expect(width(after)).toBeLessThan(width(before));
    const other = captureResult(observed, { ...none, pictures: new Map([...pictures, [42, "repeat"]]) });
    expect(after.frames - other.frames).toBe(1);
  });
  it("refuses a picture that isn't there", () =>
    expect(() => captureResult(observed, { ...none, pictures: new Map([[600, "new"]]) })).toThrow(RangeError));
  it("a reading that failed is kept as it was typed, and one that is no reading stays dropped", () => {
    expect(before.counter?.dropped.map(({ atMs }) => atMs)).toEqual([3000, 5500]);
    const after = captureResult(observed, {
      ...none,
      readings: new Map([
        [3000, 30],
        [5500, null],
      ]),
    });
    expect(after.counter?.readings).toHaveLength(17);
    expect(after.counter?.readings.find(({ atMs }) => atMs === 3000)).toMatchObject({
      fps: 30,
      confidence: 100,
    });
    expect(after.counter?.dropped).toMatchObject([{ atMs: 5500, byHand: true }]);
  });
  it("a jump that a person saw is kept though the pictures don't show it", () => {
    const after = captureResult(observed, { ...none, readings: new Map([[5500, 8]]) });
    expect(after.counter?.readings.find(({ atMs }) => atMs === 5500)?.fps).toBe(8);
  });
});

describe("moments that are kept as stills", () => {
  const frameTimes = Float64Array.from({ length: 600 }, (_, k) => (k % 100 === 50 ? 200 + k : 33));
  const startsMs = Float64Array.from(frameTimes, (_, k) =>
    frameTimes.slice(0, k).reduce((sum, ms) => sum + ms, 0),
  );
  const marks = Array.from({ length: 9 }, (_, k) => ({
    label: `scene ${k}`,
    startMs: 2000 * k,
    endMs: 2000 * k + 500,
  }));
  it("six marks at most, then the slowest, in the order of time", () => {
    const moments = stillMoments({ frameTimes, startsMs }, marks);
    expect(moments).toHaveLength(12);
    expect(moments.filter(({ why }) => why === "mark")).toHaveLength(6);
    expect(moments.filter(({ why }) => why === "slow").map(({ lastsMs }) => lastsMs)).toEqual([
      250, 350, 450, 550, 650, 750,
    ]);
    const times = moments.map(({ atMs }) => atMs);
    expect(times).toEqual([...times].sort((a, b) => a - b));
  });
  it("an even run has none but its marks", () =>
    expect(
      stillMoments({ frameTimes: new Float64Array(100).fill(16.7), startsMs: new Float64Array(100) }, []),
    ).toEqual([]));
});

describe("a capture's run as it is kept", () => {
  // Ten pictures of 100 ms, then four seconds in which nothing moves, then ten more.
  const startsMs = Float64Array.from({ length: 20 }, (_, k) => (k < 10 ? 100 * k : 4000 + 100 * k));
  const frameTimes = new Float64Array(20).fill(100);
  const counter = {
    readings: [
      { atMs: 550, fps: 10, confidence: 95 },
      { atMs: 5250, fps: 11, confidence: 95 },
    ],
    dropped: [],
    averageFps: 10.5,
  };
  it("marks and readings stand in the run's own time, from which the still stretch is left out", () => {
    const marks = [
      { label: "gate", startMs: 450, endMs: 900 },
      { label: "yard", startMs: 2000, endMs: 5500 },
    ];
    const trace = keptTrace({ startsMs, frameTimes, counter }, marks);
    expect(trace.marks).toEqual([
      { label: "gate", startMs: 450, endMs: 900 },
      { label: "yard", startMs: 1000, endMs: 1500 },
    ]);
    expect(trace.channels).toMatchObject([{ role: "rate" }]);
    expect([...trace.channels[0]!.times]).toEqual([550, 1250]);
    expect([...trace.channels[0]!.values]).toEqual([10, 11]);
  });
  it("without a counter there is no channel; before the first picture is the beginning", () => {
    expect(keptTrace({ startsMs, frameTimes, counter: null }, []).channels).toEqual([]);
    expect(runTime({ startsMs: startsMs.map((ms) => ms + 50), frameTimes })(10)).toBe(0);
  });
});

describe("a moment of a capture", () => {
  const frameTimes = new Float64Array(90).fill(1000 / 30).with(60, 500);
  const startsMs = Float64Array.from(frameTimes, (_, k) =>
    frameTimes.slice(0, k).reduce((sum, ms) => sum + ms, 0),
  );
  it("how long its picture stood, and the rate of the second before it", () => {
    expect(momentOf({ startsMs, frameTimes }, 2100)).toMatchObject({ lastsMs: 500 });
    expect(momentOf({ startsMs, frameTimes }, 1500).fps).toBeCloseTo(30, 6);
    // The second before 2,500 ms: fifteen pictures of 30 a second, and the whole one that stood for 500 ms.
    expect(momentOf({ startsMs, frameTimes }, 2500).fps).toBeCloseTo(16, 6);
  });
  it("nothing where nothing is known", () => {
    expect(momentOf({ startsMs, frameTimes }, 500).fps).toBeNull();
    expect(momentOf({ startsMs, frameTimes }, 60_000)).toEqual({ lastsMs: null, fps: null });
  });
});

describe("a clock in the picture (hours, minutes and seconds as common practice writes them)", () => {
  it.each([
    ["1:23", 83, 1],
    ["01:02:03", 3723, 1],
    ["1:23.45", 83.45, 0.01],
    ["1'23\"4", 83.4, 0.1],
    ["83,5", 83.5, 0.1],
    ["299", 299, 1],
  ])("%s", (text, shows, step) => {
    const read = clockOnScreen(text);
    expect(read?.shows).toBeCloseTo(shows, 9);
    expect(read?.step).toBeCloseTo(step, 9);
  });
  it.each(["", "fps", "1:75", "1:2:99", "12:345", "1:61:00", "1.2.3"])("%s is none", (text) =>
    expect(clockOnScreen(text)).toBeNull(),
  );
  it("its seconds over the video's are the speed; its last digit and a picture either way are the interval", () => {
    // 54 of the title's seconds in 60 of the video's: 90 %, by hand.
    const speed = speedByClock({ atMs: 1000, shows: 10, step: 1 }, { atMs: 61_000, shows: 64, step: 1 }, 60);
    expect(speed.speed).toBeCloseTo(0.9, 9);
    expect(speed.low).toBeCloseTo(53 / (60 + 1 / 60), 9);
    expect(speed.high).toBeCloseTo(55 / (60 - 1 / 60), 9);
  });
  it("one that counts down does as well, and either moment may be first", () =>
    expect(
      speedByClock({ atMs: 31_000, shows: 70, step: 0.1 }, { atMs: 1000, shows: 100, step: 0.1 }, 30).speed,
    ).toBeCloseTo(1, 9));
  it("one moment, or a clock that stands, has none", () => {
    const look = { atMs: 1000, shows: 10, step: 1 };
    expect(() => speedByClock(look, look, 60)).toThrow("two moments");
    expect(() => speedByClock(look, { ...look, atMs: 2000 }, 60)).toThrow("the same at both");
  });
});
