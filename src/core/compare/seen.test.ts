import { seeded } from "@/core/stats";
import { durationOf, type FrameTrace, type SeenBy } from "@/core/trace";
import { compare, givenNoise } from ".";
import { fitAll, measureArms } from "./fitArms";

/**
 * A run of a minute at a rate, as a video of 60 pictures a second shows it: every time a whole number of its
 * pictures.
 */
function captured(fps: number, seed: number, seenBy?: SeenBy): FrameTrace {
  const random = seeded(seed);
  const picture = 1000 / 60;
  const times: number[] = [];
  for (let at = 0, shown = 0; at < 60_000; shown++) {
    const next = Math.max(shown + 1, ((shown + 1) * 60) / fps + 0.3 * random.normal());
    const lasts = Math.max(1, Math.round(next - at / picture)) * picture;
    times.push(lasts);
    at += lasts;
  }
  return { form: "frames", frameTimes: Float64Array.from(times), channels: [], marks: [], seenBy };
}
const sight = (fps: number, percent: number, ceiling = false): SeenBy => ({
  captureFps: 60,
  averageFpsInterval: [fps * (1 - percent / 100), fps * (1 + percent / 100)],
  ceiling,
});
const options = { targetFps: 30, noise: givenNoise(0.003) };
const averageOf = (trace: FrameTrace) => (1000 * trace.frameTimes.length) / durationOf(trace);
const side = (fps: number, from: number, percent: number | null, ceiling = false) =>
  [0, 1, 2, 3].map((k) => {
    const run = captured(fps, from + k);
    return percent === null ? run : { ...run, seenBy: sight(averageOf(run), percent, ceiling) };
  });

describe("runs from videos, compared", () => {
  it("what a video leaves open is no chance: a difference inside it isn't called, and the interval is wider by both sides'", () => {
    // The second side's video took one unsure picture in a hundred for new: the same rate looks 1 % higher, in
    // every repeat.
    const free = compare(side(30, 1, null), side(30.3, 11, null), { ...options, marginPercent: 0.5 });
    const seen = compare(side(30, 1, 0.6), side(30.3, 11, 0.6), { ...options, marginPercent: 0.5 });
    expect(free.decision).toBe("better");
    expect(seen.decision).toBe("undecided");
    expect(seen.averageFps.low).toBeLessThan(1);
    const width = ({ averageFps: { low, high } }: typeof free) => Math.log(high) - Math.log(low);
    expect(width(seen) - width(free)).toBeCloseTo(2 * (-Math.log(0.994) - Math.log(0.994)), 3);
    expect(seen.notes.map(({ code }) => code)).toContain("compare.seen");
    // No number of repeats is promised to settle what repeats can't.
    expect(seen.chanceSettled).toBeLessThan(0.5);
  });
  it("a difference far outside it is called as ever", () =>
    expect(compare(side(30, 1, 0.6), side(33, 11, 0.6), options).decision).toBe("better"));
  it("no low is compared that is finer than two captured pictures; a slower one carries a picture either way", () => {
    const slow = measureArms([side(20, 1, 0.2), side(21, 11, 0.2)], null, options);
    // The worst of 20 fps last four or five pictures of 60: one either way is a fifth to a quarter of that.
    for (const { bound } of slow.arms.flat()) {
      expect(bound.worstTimeLow).toBeGreaterThan(-Math.log(1 - 1 / 6));
      expect(bound.worstTimeLow).toBeLessThan(-Math.log(1 - 1 / 3.9));
    }
    expect(fitAll(slow).worstTimeLow).not.toBeNull();
    const even: FrameTrace = {
      ...captured(60, 1, sight(60, 0.2)),
      frameTimes: new Float64Array(3600).fill(1000 / 60),
    };
    const { arms } = measureArms([[even], [even]], null, options);
    expect(arms.flat().map(({ values }) => values.worstTimeLow)).toEqual([null, null]);
  });
  it("a side at its video's ceiling can't lose, nor be called equal; the other may lose to it", () => {
    const top = compare(side(30, 1, 0.2, true), side(33, 11, 0.2), options);
    expect(top).toMatchObject({ decision: "undecided", barred: { code: "compare.ceiling" }, chanceSettled: 0 });
    expect(compare(side(30, 1, 0.2), side(33, 11, 0.2, true), options).decision).toBe("better");
    const equal = compare(side(30, 1, 0.1, true), side(30, 11, 0.1, true), { ...options, marginPercent: 5 });
    expect(equal).toMatchObject({ decision: "undecided", barred: { code: "compare.ceiling" } });
  });
});
