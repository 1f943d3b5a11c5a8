import fc from "fast-check";
import { seeded } from "@/core/stats";
import {
  ChangeMeter,
  captureInterval,
  captureResult,
  cellCount,
  cellsIn,
  cellsOf,
  judgedCapture,
  counterDigits,
  picturesFrom,
  plausible,
  regionOfTiles,
  classify,
  type Observed,
  type RawReading,
} from ".";

const wide = 160;

/** A made scene: a plane of brightness for the picture that is shown. */
type Scene = (picture: number, x: number, y: number) => number;
const moving: Scene = (picture, x, y) =>
  120 + 60 * Math.sin((x + 3 * picture) / 5) + 40 * Math.sin((y - 2 * picture) / 7);
const still: Scene = (picture, x, y) => {
  const [cx, cy] = [80 + 50 * Math.cos(picture / 9), 45 + 30 * Math.sin(picture / 9)];
  return Math.abs(x - cx) < 2 && Math.abs(y - cy) < 2 ? 200 : 40 + ((x * 7 + y * 13) % 30);
};

interface Made {
  shown: number[];
  noise?: number;
  /** Steps of brightness a captured frame. */
  drift?: number;
  /** A counter that changes twice a second at the top left. */
  counter?: boolean;
  seed?: number;
}

/** What is told of a made capture at 60 a second, and the truth of every picture but the first. */
function made(scene: Scene, { shown, noise = 0.2, drift = 0, counter = false, seed = 1 }: Made) {
  const random = seeded(seed);
  const meter = new ChangeMeter(new Uint8Array(cellCount));
  const cells = new Float32Array(cellCount);
  const truth: boolean[] = [];
  let captured = 0;
  // Noise is drawn once and read from another place for every captured frame.
  const grain = Float32Array.from({ length: 3 * cellCount }, () => noise * random.normal());
  const base = new Float32Array(cellCount);
  shown.forEach((frames, picture) => {
    for (let at = 0; at < cellCount; at++) base[at] = scene(picture, at % wide, Math.floor(at / wide));
    for (let k = 0; k < frames; k++, captured++) {
      truth.push(k === 0);
      const reading = Math.floor(captured / 30);
      const from = random.whole(2 * cellCount);
      for (let at = 0; at < cellCount; at++) cells[at] = base[at]! + drift * captured + grain[from + at]!;
      if (counter)
        for (let y = 6; y < 12; y++)
          for (let x = 8; x < 16; x++)
            cells[y * wide + x] = ((reading * 89 + x * 31 + y * 17) % 255) + grain[from + y]!;
      meter.add(cells, captured / 60);
    }
  });
  const changes = meter.end();
  const told = classify(changes);
  const wrong = told.kinds.filter((kind, k) => (kind === "new") !== truth[k + 1]).length;
  const times = Float64Array.from({ length: captured }, (_, k) => k / 60);
  return { told, wrong, captured, meter, changes, times, stamps: { times, lastSeconds: 1 / 60, faults: 0 } };
}

/** What was seen of a made capture, to be made a run of. */
const seen = (
  { changes, stamps }: Pick<ReturnType<typeof made>, "changes" | "stamps">,
  raw: RawReading[] | null,
  yardstick = { nativeFps: 60, targetFps: 60, tied: true },
): Observed => ({ changes, stamps, raw, foundCounter: null, yardstick });

const uneven = (n: number, seed = 3) => {
  const random = seeded(seed);
  return Array.from({ length: n }, () => 1 + random.whole(3));
};

describe("repeats and new pictures of made captures", () => {
  it.each([
    ["a moving scene", moving, { shown: uneven(110) }],
    ["each picture doubled", moving, { shown: new Array<number>(90).fill(2) }],
    ["a moving scene with a counter", moving, { shown: uneven(110), counter: true }],
    ["a still scene with a small moving thing", still, { shown: uneven(110) }],
    ["the same with a counter that isn't masked", still, { shown: uneven(180), counter: true }],
    ["noise", moving, { shown: uneven(110), noise: 3 }],
    ["a brightness that drifts", still, { shown: uneven(110), drift: 0.05 }],
  ] as [string, Scene, Made][])("%s: at most 0.5 %% wrong", (_, scene, of) => {
    const { wrong, captured } = made(scene, of);
    expect(wrong / captured).toBeLessThanOrEqual(0.005);
  });
  it("a counter found by itself is left out, and nothing else", () => {
    const { meter } = made(still, { shown: uneven(180), counter: true });
    const found = regionOfTiles(meter.counterTiles, { x: 0, y: 0, w: 640, h: 360 })!;
    // It stands at 32 … 64 by 24 … 48 of 640 by 360.
    expect(found.x).toBeLessThanOrEqual(32);
    expect(found.x + found.w).toBeGreaterThanOrEqual(64);
    expect(found.w * found.h).toBeLessThan(0.05 * 640 * 360);
  });
  it("a scene cut is one new picture; a fade of a picture with contrast is new as long as it lasts", () => {
    const cut: Scene = (picture, x, y) => (picture < 60 ? moving(picture, x, y) : still(picture, x, y));
    expect(made(cut, { shown: new Array<number>(60).fill(2).concat(3) }).wrong).toBeLessThanOrEqual(1);
    // A fade of a picture with contrast; a slow one of a dull picture is like a drift, and is left alone as
    // such.
    const fade: Scene = (picture, x, y) => moving(0, x, y) * Math.min(1, picture / 20);
    const { told } = made(fade, { shown: new Array<number>(20).fill(2) });
    expect(told.kinds.filter((kind) => kind === "new").length).toBeGreaterThanOrEqual(19);
  });
  it("every picture new is a ceiling; no picture new is a still stretch", () => {
    const all = made(moving, { shown: new Array<number>(300).fill(1) });
    expect(picturesFrom(all.stamps, all.told)).toMatchObject({ ceiling: true, frames: 300 });
    const none = made(still, { shown: [300] });
    const pictures = picturesFrom(none.stamps, none.told);
    expect(pictures).toMatchObject({ ceiling: false, frames: 0 });
    expect(pictures.stillMs).toBeCloseTo(5000, 0);
  });
  it("a capture in which nothing moves has no rate, and says so", () => {
    const none = made(still, { shown: [300] });
    expect(() => captureResult(seen(none, null))).toThrow(
      "nothing moves in its 5.0 s: a still picture, a menu or a pause has no rate",
    );
  });
  it("the average and its interval, by the truth it was made from", () => {
    const { told, stamps, captured } = made(moving, { shown: uneven(160) });
    const { averageFps, averageFpsInterval, durationMs } = picturesFrom(stamps, told);
    const true_ = (160 * 60) / captured;
    expect(Math.abs(averageFps / true_ - 1)).toBeLessThan(0.003);
    expect(averageFpsInterval[0]).toBeLessThanOrEqual(true_);
    expect(averageFpsInterval[1]).toBeGreaterThanOrEqual(true_);
    expect(durationMs).toBeCloseTo((1000 * captured) / 60, 3);
  });
});

describe("time stamps", () => {
  it("the capture's interval, from whole milliseconds and with pictures left out", () => {
    expect(
      1 / captureInterval(Float64Array.from({ length: 600 }, (_, k) => Math.round((1000 * k) / 60) / 1000)),
    ).toBeCloseTo(60, 1);
    const gaps = [1, 2, 1, 1, 3, 2, 1, 2, 1, 4];
    let at = 0;
    expect(1 / captureInterval(Float64Array.from(gaps.flatMap((n) => [(at += n) / 59.94])))).toBeCloseTo(
      59.94,
      2,
    );
  });
  it("a varying rate: what isn't there is a repeat", () => {
    const times = Float64Array.of(0, 1 / 60, 3 / 60, 4 / 60, 7 / 60, 8 / 60);
    const pictures = picturesFrom(
      { times, lastSeconds: 1 / 60, faults: 0 },
      { kinds: new Array<"new">(5).fill("new"), unsure: new Uint8Array(5) },
    );
    expect([...pictures.frameTimes].map((ms) => Math.round((ms * 60) / 1000))).toEqual([1, 2, 1, 3, 1, 1]);
    expect(pictures).toMatchObject({ varies: true, lostFrames: 0, ceiling: false });
  });
  it("an even rate with one gap lost it: counted as unsure, and the interval wider", () => {
    const stamps = Array.from({ length: 121 }, (_, k) => k / 60).filter((_, k) => k !== 50);
    const kinds = new Array<"new">(119).fill("new");
    const pictures = picturesFrom(
      { times: Float64Array.from(stamps), lastSeconds: 1 / 60, faults: 0 },
      { kinds, unsure: new Uint8Array(119) },
    );
    expect(pictures).toMatchObject({ varies: false, lostFrames: 1, unsureFrames: 1, frames: 120 });
    expect(pictures.averageFpsInterval[1]).toBeGreaterThan(60);
  });
});

describe("a counter's readings", () => {
  it.each([
    ["60", 60],
    ["60 FPS", 60],
    ["60FPS", 60],
    ["FPS: 59.9", 59.9],
    ["fps 144", 144],
    ["0", null],
    ["--", null],
    ["6O", null],
    ["60 FPS 16.7 ms", null],
    ["12345", null],
  ])("“%s” is %p", (text, value) => expect(counterDigits(text)).toBe(value));
  const raw = (values: (number | string)[]) =>
    values.map((value, k) => ({ atMs: 500 * k, text: String(value), confidence: 95 }));
  it("a jump that the pictures don't show is dropped, one that they show is kept", () => {
    const values = [60, 60, 60, 6, 60, 60, 60];
    expect(plausible(raw(values), () => [58, 61]).readings.map(({ fps }) => fps)).toEqual([
      60, 60, 60, 60, 60, 60,
    ]);
    expect(plausible(raw(values), () => [5, 61]).readings).toHaveLength(7);
  });
  it("what is no number, or hardly read, is dropped and counted", () => {
    const made_ = plausible([...raw([60, "--", 60]), { atMs: 1500, text: "60", confidence: 12 }], () => null);
    expect([made_.readings.length, made_.dropped.length, made_.averageFps]).toEqual([2, 2, 60]);
  });
});

describe("together", () => {
  const { changes, stamps } = made(moving, { shown: new Array<number>(320).fill(2) });
  const says = (fps: number) =>
    Array.from({ length: 18 }, (_, k) => ({ atMs: 1000 + 500 * k, text: String(fps), confidence: 95 }));
  it("a counter that says 60 while the pictures show 30 disagrees, measured; an honest one doesn't", () => {
    const lying = captureResult(seen({ changes, stamps }, says(60)));
    expect(lying).toMatchObject({ counterDisagrees: true, openBecause: null });
    expect(lying.verdict.remarks.map(({ code }) => code)).toContain("capture.counter");
    expect(captureResult(seen({ changes, stamps }, says(30))).counterDisagrees).toBe(false);
    expect(captureResult(seen({ changes, stamps }, null))).toMatchObject({
      counter: null,
      counterDisagrees: null,
    });
  });
  it("a capture at its ceiling says at least so much, and gives no light above it", () => {
    const all = made(moving, { shown: new Array<number>(620).fill(1) });
    const capped = captureResult(seen(all, null, { nativeFps: 120, targetFps: 120, tied: true }));
    expect(capped).toMatchObject({ ceiling: true, openBecause: "ceiling" });
    expect(capped.verdict.grade).toBeNull();
    expect(captureResult(seen(all, null))).toMatchObject({
      openBecause: null,
      verdict: { grade: "steady" },
    });
  });
  it("over two in a hundred unsure, no light; no percentile finer than the capture", () => {
    const { summary, verdict, ...result } = captureResult(seen({ changes, stamps }, null));
    const facts = { ...result, counter: null };
    expect(judgedCapture(summary, verdict, { ...facts, unsureFrames: 30 }, 60)).toMatchObject({
      openBecause: "unsure",
      verdict: { grade: null },
    });
    // 33 ms is two captured pictures: known; 17 ms isn't.
    expect(summary.p99FrameTimeMs).toBeCloseTo(33.3, 1);
    const fine = judgedCapture(
      { ...summary, medianFrameTimeMs: 16.7, p99FrameTimeMs: 16.7 },
      verdict,
      facts,
      60,
    ).summary;
    expect([fine.medianFrameTimeMs, fine.p99FrameTimeMs, fine.lows]).toEqual([null, null, null]);
  });
});

describe("cells", () => {
  it("hold the mean of what they cover, whatever the size, stride and offset", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 160, max: 700 }),
        fc.integer({ min: 90, max: 400 }),
        fc.integer({ min: 0, max: 255 }),
        fc.nat(20),
        (width, height, light, spare) => {
          const stride = width + spare;
          const bytes = new Uint8Array(spare + stride * height).fill(255 - light);
          for (let y = 0; y < height; y++) bytes.fill(light, spare + y * stride, spare + y * stride + width);
          const cells = new Float32Array(cellCount);
          cellsOf({ bytes, offset: spare, stride, width, height }, null, cells);
          expect(cells.every((cell) => cell === light)).toBe(true);
        },
      ),
      { numRuns: 30 },
    ));
  it("of regions are those that they touch", () => {
    const area = { x: 0, y: 0, w: 640, h: 360 };
    expect(cellsIn([{ x: 0, y: 0, w: 4, h: 4 }], area).reduce((sum, one) => sum + one, 0)).toBe(1);
    expect(cellsIn([{ x: 2, y: 2, w: 4, h: 4 }], area).reduce((sum, one) => sum + one, 0)).toBe(4);
    expect(cellsIn([{ x: 900, y: 0, w: 4, h: 4 }], area).some((one) => one === 1)).toBe(false);
  });
});
