import fc from "fast-check";
import { seeded } from "@/core/stats";
import type { FrameTrace } from "@/core/trace";
import { decideRate, replay } from ".";

const even = (ms: number, n = 600) => new Float64Array(n).fill(ms);

describe("frames behind a cap", () => {
  it("work shorter than the cap is shown on it, by either way of working (arithmetic)", () => {
    for (const working of ["one ahead", "strict"] as const)
      expect([...replay(even(10, 5), 60, 60, working)].map((ms) => Number(ms.toFixed(3)))).toEqual(
        new Array(5).fill(16.667),
      );
  });
  it("a frame of 20 ms costs a strict engine a refresh; one that works ahead has a frame in hand", () => {
    const work = even(10, 60);
    work[30] = 20;
    const longest = (working: "one ahead" | "strict") => Math.max(...replay(work, 60, 60, working));
    expect(longest("strict")).toBeCloseTo(2000 / 60, 6);
    expect(longest("one ahead")).toBeCloseTo(1000 / 60, 6);
  });
  it("a limit that isn't a whole number of refreshes is kept by the limiter's own clock", () =>
    expect(replay(even(10, 3), 45, 60, "strict")[2]).toBeCloseTo(1000 / 45, 9));
  it("no frame is shorter than the cap allows, and none is shown before it is done", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 1, max: 60, noNaN: true }), { minLength: 1, maxLength: 60 }),
        fc.constantFrom(20, 30, 60),
        (work, cap) => {
          const shown = replay(Float64Array.from(work), cap, 60, "strict");
          shown.forEach((ms, i) => {
            expect(ms).toBeGreaterThanOrEqual(1000 / cap - 1e-9);
            expect(ms).toBeGreaterThanOrEqual((work[i] ?? 0) - 0.02 * (1000 / 60) - 1e-9);
          });
        },
      ),
    );
  });
});

describe("the rate to lock, replayed", () => {
  const trace = (frameTimes: Float64Array): FrameTrace => ({
    form: "frames",
    frameTimes,
    channels: [],
    marks: [],
  });
  it("a title that averages 80 free but stalls every third second isn't told to lock where it can't hold", () => {
    const random = seeded(4);
    const work = Float64Array.from(
      { length: 4800 },
      (_, i) => (i % 240 === 0 ? 90 : 12) * Math.exp(0.04 * random.normal()),
    );
    const made = decideRate(trace(work), { nativeFps: 60, tied: false, refreshHz: 60 });
    const sixty = made.candidates.find(({ capFps }) => capFps === 60);
    expect(sixty?.held).toBeLessThan(0.9);
    expect(made.candidates[made.recommended]?.capFps).not.toBe(60);
  });
  it("a quiet title is, with the chance and where a fresh run should lie", () => {
    const made = decideRate(trace(even(11, 4000)), { nativeFps: 60, tied: false, refreshHz: 60 });
    expect(made.candidates[made.recommended]).toMatchObject({ capFps: 60, held: 1, heldStrict: 1, chance: 1 });
  });
  it("one within a hair of its cap isn't: a fresh run that is 2 % slower wouldn't hold it", () => {
    const made = decideRate(trace(even(16.5, 4000)), { nativeFps: 60, tied: false, refreshHz: 60 });
    const sixty = made.candidates.find(({ capFps }) => capFps === 60);
    expect(sixty).toMatchObject({ held: 1 });
    expect(sixty?.chance).toBeLessThan(0.9);
    expect(made.candidates[made.recommended]?.capFps).toBe(30);
  });
});
