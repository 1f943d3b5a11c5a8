import { words } from "@/core/words";
import { Matrix, SingularValueDecomposition } from "ml-matrix";
import { readFileSync } from "node:fs";
import { summarise } from "@/core/metrics";
import { readLog } from "@/core/trace";
import { readingOf } from "@/testing/readingOf";
import { seeded } from "@/core/stats";
import { fitScaleLaw, nextScale, type ScaleLevel } from ".";

const native = 320 * 240;
const level = (scale: number, ...mediansMs: number[]): ScaleLevel => ({
  scale,
  pixels: native * scale ** 2,
  mediansMs,
  p99sMs: mediansMs.map((ms) => ms * 1.2),
});
const scales = [1, 2, 3, 4, 5, 6, 8];

function measured(scale: number) {
  const { trace } = readingOf(readLog(readFileSync(`samples/scale-${scale}-uncapped.csv`, "utf8")));
  return summarise(trace, { nativeFps: 60, tied: false, targetFps: 60, refreshHz: 60 });
}

describe("the resolution law", () => {
  it("finds the flat part, the slope and the largest scale of an exact law (arithmetic)", () => {
    const exact = (scale: number) => Math.max(8, 2 + (30 * native * scale ** 2) / 1e6);
    const law = fitScaleLaw(
      scales.map((scale) => level(scale, exact(scale))),
      { targetFps: 60 },
    );
    expect(law.floorMs).toBeCloseTo(8, 6);
    expect(law.interceptMs).toBeCloseTo(2, 6);
    expect(law.msPerMegapixel).toBeCloseTo(30, 6);
    // 2 + 30·p ≤ 1000/59.4 → p ≤ 0.4945 → s ≤ 2.54.
    expect(law.largestScale).toBe(2);
    expect(law.predicted.find(({ scale }) => scale === 3)!.holds).toBe(false);
  });
  it("says when resolution isn't the limit", () => {
    const law = fitScaleLaw(
      scales.map((scale, k) => level(scale, 20 + 0.1 * (k % 2))),
      { targetFps: 60 },
    );
    expect(law.limitedByPixels).toBe(false);
    expect(law.largestScale).toBeNull();
    expect(law.notes.map(words).join()).toMatch(/isn't the limit/);
    expect(
      fitScaleLaw(
        scales.map((scale) => level(scale, 12)),
        { targetFps: 60 },
      ).largestScale,
    ).toBe(8);
  });
  it("doesn't mind the order of levels, and pools repeats of one", () => {
    const levels = [level(1, 9), level(2, 12), level(3, 20), level(4, 31)];
    expect(fitScaleLaw([...levels].reverse(), { targetFps: 60 })).toEqual(
      fitScaleLaw(levels, { targetFps: 60 }),
    );
    expect(
      fitScaleLaw([level(1, 9), level(1, 9), ...levels.slice(1)], { targetFps: 60 }).msPerMegapixel,
    ).toBeCloseTo(fitScaleLaw([level(1, 9, 9), ...levels.slice(1)], { targetFps: 60 }).msPerMegapixel, 9);
  });
  it("needs two scales, and says with two that a third would settle it", () => {
    expect(() => fitScaleLaw([level(2, 10), level(2, 11)], { targetFps: 60 })).toThrow(RangeError);
    expect(
      fitScaleLaw([level(1, 9), level(3, 20)], { targetFps: 60 })
        .notes.map(words)
        .join(),
    ).toMatch(/third/);
  });

  describe("on the measured sweep", () => {
    const summaries = new Map(scales.map((scale) => [scale, measured(scale)]));
    const levels = scales.map((scale) => level(scale, summaries.get(scale)!.medianFrameTimeMs!));
    it("agrees with an independent weighted least squares (singular values, ml-matrix)", () => {
      const law = fitScaleLaw(levels, { targetFps: 60 });
      expect(law.floorSeen).toBe(false);
      const solve = (weights: number[]) => {
        const rows = levels.map(({ pixels }, i) => [
          Math.sqrt(weights[i]),
          (Math.sqrt(weights[i]) * pixels) / 1e6,
        ]);
        const right = levels.map(({ mediansMs }, i) => [Math.sqrt(weights[i]) * mediansMs[0]]);
        const [a, b] = new SingularValueDecomposition(new Matrix(rows)).solve(new Matrix(right)).to1DArray();
        return { a, b };
      };
      // The same two passes: weights from the readings, then from the first line.
      const first = solve(levels.map(({ mediansMs }) => 1 / mediansMs[0] ** 2));
      const second = solve(
        levels.map(
          ({ pixels, mediansMs }) => 1 / Math.max(mediansMs[0] / 4, first.a + (first.b * pixels) / 1e6) ** 2,
        ),
      );
      expect(law.interceptMs).toBeCloseTo(second.a, 6);
      expect(law.msPerMegapixel).toBeCloseTo(second.b, 6);
    });
    it("predicts a level left out within the stated interval, for at least 5 of 7", () => {
      const held = scales.filter((scale) => {
        const law = fitScaleLaw(
          levels.filter((each) => each.scale !== scale),
          { targetFps: 60, nativePixels: native },
        );
        const { low, high } = law.predicted.find((each) => each.scale === scale)!;
        const median = summaries.get(scale)!.medianFrameTimeMs!;
        return median >= low && median <= high;
      });
      expect(held.length).toBeGreaterThanOrEqual(5);
    });
    it("is limited by pixels, and only native holds 60", () => {
      const law = fitScaleLaw(levels, { targetFps: 60 });
      expect([law.limitedByPixels, law.largestScale]).toEqual([true, 1]);
      expect(law.msPerMegapixelInterval[0]).toBeGreaterThan(0);
    });
  });

  it("recovers known slopes within its intervals in at least 90 % of 200 noisy sweeps", () => {
    let slope = 0,
      largest = 0;
    for (let seed = 0; seed < 200; seed++) {
      const random = seeded(4000 + seed);
      const [a, b, floor] = [1 + 2 * random.uniform(), 20 + 20 * random.uniform(), 6 + 3 * random.uniform()];
      const truth = (scale: number) => Math.max(floor, a + (b * native * scale ** 2) / 1e6);
      const law = fitScaleLaw(
        [1, 2, 3, 4, 5].map((scale) =>
          level(scale, ...[0, 1].map(() => truth(scale) * Math.exp(0.02 * random.normal()))),
        ),
        { targetFps: 60, resamples: 200, seed },
      );
      if (law.msPerMegapixelInterval[0] <= b && b <= law.msPerMegapixelInterval[1]) slope++;
      const truly = [1, 2, 3, 4, 5, 6, 7].filter((scale) => truth(scale) <= 1000 / 59.4).at(-1)!;
      if (
        law.largestScaleInterval &&
        law.largestScaleInterval[0] <= truly &&
        truly <= law.largestScaleInterval[1]
      )
        largest++;
    }
    expect(slope / 200).toBeGreaterThanOrEqual(0.9);
    expect(largest / 200).toBeGreaterThanOrEqual(0.9);
  });
  it("proposes the level that would settle it after three, and none when it is settled", () => {
    const exact = (scale: number) => 3 + (30 * native * scale ** 2) / 1e6;
    const law = fitScaleLaw(
      [1, 3, 5].map((scale) => level(scale, exact(scale) * (1 + 0.03 * (scale % 3)))),
      { targetFps: 60 },
    );
    expect(nextScale(law, [1, 3, 5], [1, 2, 3, 4, 5], 60)).toMatchObject({ scale: 2 });
    expect(nextScale(law, [1, 3], [1, 2, 3], 60)).toBeNull();
    const settled = fitScaleLaw(
      [1, 2, 3, 4, 5].map((scale) => level(scale, exact(scale))),
      { targetFps: 60 },
    );
    expect(nextScale(settled, [1, 2, 3, 4, 5], [1, 2, 3, 4, 5], 60)).toBeNull();
  });
});

describe("the law against its own runs", () => {
  const level = (scale: number, ms: number, more: Partial<ScaleLevel> = {}): ScaleLevel => ({
    scale,
    pixels: 100_000 * scale ** 2,
    mediansMs: [ms, ms * 1.002],
    p99sMs: [ms * 1.1, ms * 1.1],
    ...more,
  });
  const levels = [level(1, 6), level(2, 8), level(3, 11.3), level(4, 16)];
  it("names no scale whose own run is judged slow, and none above it", () => {
    expect(fitScaleLaw(levels, { targetFps: 60 }).largestScale).toBe(4);
    const slow = [...levels.slice(0, 2), level(3, 11.3, { slow: true }), level(4, 16)];
    expect(fitScaleLaw(slow.slice(0, 3), { targetFps: 60 }).largestScale).toBe(2);
  });
  it("says which scale was passed over for its slowest moments", () => {
    const hitching = [...levels.slice(0, 3), level(4, 16, { p99sMs: [40, 40] })];
    const { largestScale, notes } = fitScaleLaw(hitching, { targetFps: 60 });
    expect(largestScale).toBe(3);
    expect(notes).toContainEqual(
      expect.objectContaining({
        code: "resolution.passedOver",
        figures: expect.objectContaining({ scale: 4 }),
      }),
    );
  });
  it("doesn't ask for a free rate where it was let free", () => {
    const paced = levels.map((each) => ({ ...each, paced: true }));
    const codes = (letFree: boolean) =>
      fitScaleLaw(paced, { targetFps: 60, letFree }).notes.map(({ code }) => code);
    expect(codes(false)).toContain("resolution.pacedOnly");
    expect(codes(true)).toContain("resolution.pacedFree");
  });
});
