import { summarise } from "@/core/metrics";
import { lightWords, words } from "@/core/words";
import { judge, lendingDesk } from ".";

const sixty = { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 };
const even = (fps: number, frames: number) =>
  summarise(
    { form: "frames", frameTimes: new Float64Array(frames).fill(1000 / fps), channels: [], marks: [] },
    sixty,
  );
const readings = (n: number, fps = 60, apartMs = 1000) =>
  summarise(
    {
      form: "interval",
      durations: new Float64Array(n).fill(apartMs),
      rates: new Float64Array(n).fill(fps),
      channels: [],
      marks: [],
    },
    sixty,
  );

describe("a run too short to judge has figures and no light", () => {
  it.each([[1], [40], [590]])("%d frames at full speed earn nothing, and it says how long to run", (frames) => {
    const summary = even(60, frames);
    expect(summary.averageFps).toBeCloseTo(60, 6);
    const made = judge(summary);
    expect([made.grade, made.reasons]).toEqual([null, []]);
    expect(words(made.remarks[0]!)).toMatch(/too short to judge: run 10 s at least/);
    expect(lightWords(made.grade).name).toBe("No light");
  });
  it("ten seconds are enough", () => expect(judge(even(60, 601)).grade).toBe("steady"));
  it("two looks at full speed are too few to call it so, three are judged; one is enough to see that it is slow", () => {
    expect(judge(readings(2)).grade).toBeNull();
    expect(words(judge(readings(1)).remarks[0]!)).toMatch(/^1 reading is too few to judge: take 3/);
    expect(judge(readings(3)).grade).toBe("steady");
    expect(judge(readings(1, 41)).grade).toBe("gutters");
  });
  it("readings typed within a second are one look", () => expect(judge(readings(5, 60, 150)).grade).toBeNull());
  it("a crash is dark however short, and so is a blocking fault", () => {
    expect(judge(even(60, 40), lendingDesk, { crashed: true }).grade).toBe("dark");
    expect(judge(even(60, 40), lendingDesk, { faults: ["blocking"] }).grade).toBe("dark");
    expect(judge(even(60, 40), lendingDesk, { faults: ["severe"] }).grade).toBeNull();
  });
  it("a rule that can't be judged isn't met: frames without one whole window are no full-speed time", () => {
    const summary = { ...even(60, 900), fullSpeedTimePercent: null };
    const made = judge(summary);
    expect(made.grade).not.toBe("steady");
    expect(made.reasons).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ rule: "fullSpeedTimePercent", value: null, met: false }),
      ]),
    );
  });
});

describe("a cliff is said as one", () => {
  // 99 % of 60 is 59.40: at 59.41 every window counts, at 59.39 none does.
  it("59.41 fps is Steady, and 59.39 is just under it", () => {
    expect(judge(even(59.41, 1200)).grade).toBe("steady");
    const under = judge(even(59.39, 1200));
    expect(under.grade).toBe("dims");
    expect(under.remarks.map(words).join()).toMatch(
      /^Just under: its slowest second runs at 59\.39 fps, and 59\.40/,
    );
  });
  it("a run well under it isn't", () =>
    expect(judge(even(57, 1200)).remarks.map(words).join()).not.toMatch(/Just under/));
});
