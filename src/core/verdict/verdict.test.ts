import { summarise, type Yardstick } from "@/core/metrics";
import type { Channel } from "@/core/trace";
import { houseRulesSchema, judge, lendingDesk, asFarAsItGoes, targetOf, yardstickOf } from ".";
import { reasonWords, words } from "@/core/words";

const sixty: Yardstick = { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 };
const run = (frameTimes: number[], yardstick = sixty, channels: Channel[] = []) =>
  summarise({ form: "frames", frameTimes: Float64Array.from(frameTimes), channels, marks: [] }, yardstick);
const even = (fps: number, seconds: number) => new Array<number>(Math.round(fps * seconds)).fill(1000 / fps);
const withSpike = (ms: number, every: number) =>
  even(60, 60).map((frame, i) => (i % every === every - 1 ? ms : frame));

describe("the five lights, method 4", () => {
  it("Steady: all its rules are given with their figures", () => {
    const verdict = judge(run(even(60, 20)));
    expect(verdict.grade).toBe("steady");
    expect(verdict.reasons.map(({ rule, met }) => [rule, met])).toEqual([
      ["speedPercent", true],
      ["fullSpeedTimePercent", true],
      ["hitchesPerMinute", true],
      ["freezes", true],
    ]);
  });
  it("Flickers: full speed on average, hitches seen", () => {
    const verdict = judge(run(withSpike(60, 1200)));
    expect(verdict.grade).toBe("flickers");
    expect(verdict.reasons).toMatchObject([
      { rule: "fullSpeedTimePercent", limit: 99, met: false },
      { rule: "hitchesPerMinute", limit: 1, met: false },
    ]);
  });
  it("a single freeze is no Steady", () =>
    expect(judge(run([...even(60, 100), 260, ...even(60, 100)])).grade).toBe("flickers"));
  it("Dims: 51 of 60 is 85 % speed, a slow-motion picture", () =>
    expect(judge(run(even(51, 20)))).toMatchObject({
      grade: "dims",
      reasons: [
        { rule: "speedPercent", value: expect.closeTo(85, 6), limit: 97 },
        { rule: "fullSpeedTimePercent", value: 0 },
      ],
    }));
  it("40 of 50 is 80 % and still Dims; below is Gutters", () => {
    const fifty = { nativeFps: 50, tied: true, targetFps: 50, refreshHz: 50 };
    expect(judge(run(even(40, 20), fifty)).grade).toBe("dims");
    expect(judge(run(even(39.9, 20), fifty))).toMatchObject({
      grade: "gutters",
      reasons: [{ rule: "speedPercent", limit: 80 }],
    });
  });
  it("13 shown of a title built for 13 plays perfectly", () =>
    expect(judge(run(even(13, 30), { ...sixty, nativeFps: 13, targetFps: 13 })).grade).toBe("steady"));
});

describe("rate and speed are two things", () => {
  it("goes by the engine's report where the counter shows 60 while the title crawls", () => {
    const verdict = judge(
      run(even(60, 20), sixty, [{ role: "speed", times: Float64Array.of(0), values: Float64Array.of(71) }]),
    );
    expect(verdict).toMatchObject({
      grade: "gutters",
      reasons: [{ rule: "reportedSpeedPercent", value: 71, limit: 80 }],
    });
    expect(verdict.remarks.map(words).join()).toMatch(/counter disagrees/);
  });
  it("holds a title free of its rate against the rate chosen", () => {
    const free = { nativeFps: 60, tied: false, targetFps: 30, refreshHz: 60 };
    expect(judge(run(even(30, 20), free)).grade).toBe("steady");
    expect(judge(run(even(20, 20), free))).toMatchObject({
      grade: "gutters",
      reasons: [{ rule: "percentOfTarget" }],
    });
  });
  it("says when a tied title runs too fast: 36 of 20 is 180 %", () =>
    expect(
      judge(run(even(36, 20), { ...sixty, nativeFps: 20, targetFps: 20 }))
        .remarks.map(words)
        .join(),
    ).toMatch(/180 % of its own speed: too fast/));
});

describe("pacing", () => {
  it("frames of 16 and 50 ms by turns are no Steady, though the average holds", () => {
    const thirty = { nativeFps: 30, tied: true, targetFps: 30, refreshHz: 60 };
    const verdict = judge(
      run(
        Array.from({ length: 900 }, (_, i) => (i % 2 ? 50 : 16)),
        thirty,
      ),
    );
    expect(verdict).toMatchObject({ grade: "flickers", reasons: [{ rule: "alternation", limit: -0.5 }] });
    expect(reasonWords(verdict.reasons[0])).toMatch(/take turns/);
  });
  it("the jitter of a display that holds one cadence is not taken for it", () =>
    expect(judge(run(even(60, 20).map((ms, i) => ms + (i % 2 ? 0.2 : -0.2)))).grade).toBe("steady"));
});

describe("faults outweigh speed", () => {
  const steady = run(even(60, 20));
  it.each([
    ["blocking", "dark"],
    ["severe", "gutters"],
    ["visible", "flickers"],
    ["slight", "steady"],
  ] as const)("a %s fault makes it %s", (fault, grade) =>
    expect(judge(steady, lendingDesk, { faults: [fault] }).grade).toBe(grade),
  );
  it("a crash is Dark, and the reason says so", () =>
    expect(judge(steady, lendingDesk, { crashed: true })).toMatchObject({
      grade: "dark",
      reasons: [{ rule: "crash", value: 1, limit: 0 }],
    }));
  it("a fault never brightens", () =>
    expect(judge(run(even(20, 20)), lendingDesk, { faults: ["visible"] }).grade).toBe("gutters"));
});

describe("readings", () => {
  it("are judged by what they show; what they can't show is said, not invented", () => {
    const verdict = judge(
      summarise(
        {
          form: "interval",
          durations: new Float64Array(30).fill(1000),
          rates: new Float64Array(30).fill(60),
          channels: [],
          marks: [],
        },
        sixty,
      ),
    );
    expect(verdict).toMatchObject({ grade: "steady", partial: true });
    expect(verdict.reasons.find(({ rule }) => rule === "hitchesPerMinute")).toMatchObject({ value: null });
    expect(verdict.reasons.map(reasonWords).join()).toMatch(/can't be told/);
  });
});

describe("house rules are data", () => {
  it("both sets pass their own schema", () => {
    expect(houseRulesSchema.parse(lendingDesk)).toEqual(lendingDesk);
    expect(houseRulesSchema.parse(asFarAsItGoes).mayChange.clocks).toBe(true);
  });
  it("other thresholds judge otherwise", () =>
    expect(judge(run(even(51, 20)), { ...lendingDesk, dims: { speedPercent: 90 } }).grade).toBe("gutters"));
  it("a figure just short of its limit never reads as the limit", () =>
    expect(reasonWords({ rule: "speedPercent", value: 98.97, limit: 99, met: false })).toBe(
      "Speed 98.97 %; at least 99 % is wanted",
    ));
});

describe("what a run is measured against", () => {
  const job = { nativeFps: 60, tied: false, targetFps: null, rules: { freeTargetFps: 30 } };
  it("the job's own target, else the house rules' for a free title, else the title's", () => {
    expect(targetOf({ ...job, targetFps: 45 })).toBe(45);
    expect(targetOf(job)).toBe(30);
    expect(targetOf({ ...job, tied: true })).toBe(60);
    expect(targetOf({ ...job, rules: { freeTargetFps: null } })).toBe(60);
  });
  it("the refresh of the display in use, the first where none is named", () => {
    const display = { connection: "built in" as const, width: 1280, height: 800, diagonalInch: 7 };
    const displays = [
      { ...display, name: "panel", refreshHz: [60, 40] },
      { ...display, name: "television", refreshHz: [50] },
    ];
    expect(yardstickOf(job, { displays }, "television")).toEqual({
      nativeFps: 60,
      tied: false,
      targetFps: 30,
      refreshHz: 50,
    });
    expect([
      yardstickOf(job, { displays }, null).refreshHz,
      yardstickOf(job, { displays }, "gone").refreshHz,
    ]).toEqual([60, 60]);
  });
});
