import { summarise, tallyTrace, type Yardstick } from "@/core/metrics";
import type { Trace } from "@/core/trace";
import { judge } from "@/core/verdict";
import { placesWords } from "@/core/words";
import { comparePlaces, placesHeld, placesOf } from ".";

const yardstick: Yardstick = { nativeFps: 60, targetFps: 60, tied: true, refreshHz: 60 };
/** A tally that steps through places, three looks each. */
const toured = (rates: Record<string, number>, against = yardstick) => {
  const read = Object.entries(rates).flatMap(([scene, fps]) => [0, 1, 2].map(() => ({ scene, fps })));
  const summary = summarise(tallyTrace(read.map((each, at) => ({ ...each, second: 5 * at }))), against);
  return { summary, verdict: judge(summary) };
};

describe("a run place by place", () => {
  it("has rate, light, worst and readings of every place, and says how many hold", () => {
    const { summary, verdict } = toured({ a: 60, b: 59, c: 41, d: 60, e: 52, f: 60, g: 60 });
    expect(
      placesOf(summary, verdict).map(({ label, grade, averageFps, worstFps, readings }) => [
        label,
        grade,
        averageFps,
        worstFps,
        readings,
      ]),
    ).toEqual([
      ["a", "steady", 60, 60, 3],
      ["b", "steady", 59, 59, 3],
      ["c", "gutters", 41, 41, 3],
      ["d", "steady", 60, 60, 3],
      ["e", "dims", 52, 52, 3],
      ["f", "steady", 60, 60, 3],
      ["g", "steady", 60, 60, 3],
    ]);
    const held = placesHeld(verdict)!;
    expect(held).toMatchObject({ hold: 5, of: 7 });
    // Wilson (1927) for 5 of 7: 35.9 to 91.8 %, as published tables give it.
    expect(placesWords(held)).toBe("5 of 7 places hold (95 %: 36 to 92 %)");
  });
  it("a place may have a rate of its own: a menu at 60, a match at 30", () => {
    const { summary, verdict } = toured({ menu: 60, match: 30 }, { ...yardstick, sceneFps: { match: 30 } });
    expect(placesOf(summary, verdict).map(({ grade, targetFps }) => [grade, targetFps])).toEqual([
      ["steady", 60],
      ["steady", 30],
    ]);
    expect(placesHeld(toured({ menu: 60, match: 30 }).verdict)).toMatchObject({ hold: 1, of: 2 });
  });
  it("visits of one place count together; a run of one place, or none, has no table", () => {
    const trace: Trace = {
      form: "frames",
      frameTimes: Float64Array.from({ length: 3600 }, (_, i) => (i >= 1200 && i < 2400 ? 25 : 1000 / 60)),
      channels: [],
      marks: [
        { label: "hall", startMs: 0, endMs: 20_000 },
        { label: "gate", startMs: 20_000, endMs: 50_000 },
        { label: "hall", startMs: 50_000, endMs: 70_000 },
      ],
    };
    const summary = summarise(trace, yardstick);
    expect(placesOf(summary, judge(summary))).toMatchObject([
      { label: "hall", visits: 2, grade: "steady", readings: null, seconds: expect.closeTo(40, 0) },
      {
        label: "gate",
        visits: 1,
        grade: "gutters",
        averageFps: expect.closeTo(40, 1),
        worstFps: expect.closeTo(40, 0),
      },
    ]);
    expect(placesHeld(judge(summarise({ ...trace, marks: trace.marks.slice(0, 1) }, yardstick)))).toBeNull();
    expect(placesHeld(judge(summarise({ ...trace, marks: [] }, yardstick)))).toBeNull();
  });
  it("a trial compares place by place", () => {
    const runs = [
      { arm: 0, ...toured({ a: 40, b: 60 }) },
      { arm: 1, ...toured({ a: 60, b: 60 }) },
      { arm: 1, ...toured({ a: 56, c: 60 }) },
    ];
    const [a, b, c] = comparePlaces(2, runs);
    expect(a).toMatchObject({
      label: "a",
      arms: [
        { averageFps: expect.closeTo(40, 9), grade: "gutters", runs: 1 },
        { averageFps: expect.closeTo(Math.sqrt(60 * 56), 9), worstFps: 56, runs: 2, grade: "dims" },
      ],
    });
    // Student's t at 1 degree of freedom, 12.706 (table in NIST/SEMATECH e-Handbook 1.3.6.7.2): ln 60, ln 56.
    const half = (12.706 * Math.log(60 / 56)) / 2;
    expect(a!.arms[1]!.interval!.low).toBeCloseTo(Math.sqrt(60 * 56) / Math.exp(half), 1);
    expect(a!.arms[1]!.interval!.high).toBeCloseTo(Math.sqrt(60 * 56) * Math.exp(half), 1);
    // Of one run that of its readings: whole numbers, each known to half a frame.
    expect(a!.arms[0]!.interval).toEqual({ low: expect.closeTo(39.5, 9), high: expect.closeTo(40.5, 9) });
    expect(b!.arms[1]).toMatchObject({ runs: 1 });
    expect(c).toMatchObject({ label: "c", arms: [null, { runs: 1 }] });
  });
  it("two runs that read the same are no surer than their whole numbers", () => {
    const same = [0, 0].map((arm) => ({ arm, ...toured({ a: 44, b: 60 }) }));
    const [a] = comparePlaces(1, same);
    expect(a!.arms[0]).toMatchObject({
      runs: 2,
      interval: { low: expect.closeTo(43.5, 9), high: expect.closeTo(44.5, 9) },
    });
  });
});
