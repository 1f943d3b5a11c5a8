import { Matrix, SingularValueDecomposition } from "ml-matrix";
import { readFileSync } from "node:fs";
import { summarise } from "@/core/metrics";
import { readLog } from "@/core/trace";
import { seeded } from "@/core/stats";
import {
  fitScaleLaw,
  fitSweep,
  nextScale,
  usualFrameMs,
  type ScaleLevel,
  type SweepContext,
  type SweepRun,
} from ".";

const native = 320 * 240;
const level = (scale: number, ...mediansMs: number[]): ScaleLevel => ({
  scale,
  pixels: native * scale ** 2,
  mediansMs,
  p99sMs: mediansMs.map((ms) => ms * 1.2),
});
const scales = [1, 2, 3, 4, 5, 6, 8];

function measured(scale: number) {
  const read = readLog(readFileSync(`samples/scale-${scale}-uncapped.csv`, "utf8"));
  if (!read.ok) throw new Error(read.problem.message);
  return summarise(read.reading.trace, { nativeFps: 60, tied: false, targetFps: 60, refreshHz: 60 });
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
    expect(law.notes.join()).toMatch(/isn't the limit/);
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
    expect(fitScaleLaw([level(1, 9), level(3, 20)], { targetFps: 60 }).notes.join()).toMatch(/third/);
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

const context: SweepContext = {
  targetFps: 60,
  nativeFps: 60,
  limitC: 95,
  memoryMb: 7600,
  memoryGb: 8,
  batteryWh: 48,
  nativePixels: native,
  offeredScales: [1, 2, 3, 4, 5],
  usefulScale: 3,
  noise: { sd: 0.01, freedom: 20 },
  soakMinutes: 10,
  elsewhereWatts: 0,
};
const summary = measured(1);
const run = (
  arm: number,
  changes: Partial<SweepRun["summary"]> = {},
  more: Partial<SweepRun> = {},
): SweepRun => ({
  arm,
  number: arm + 1,
  summary: { ...summary, ...changes },
  crashed: false,
  artefacts: false,
  trace: null,
  ...more,
});
const arms = (...levels: (number | null)[]) => levels.map((value, k) => ({ name: `arm ${k}`, level: value }));

describe("sweeps with little to go on say what is missing and give what they can", () => {
  it("one level repeated", () => {
    const fit = fitSweep("resolution", arms(2, 3), [run(0), run(0)], context);
    expect(fit).toMatchObject({ kind: "resolution", law: null, arm: null, levels: [{ scale: 2, runs: 2 }] });
    expect(fit.missing.join()).toMatch(/only ×2/);
  });
  it("reversed order changes nothing", () => {
    const levels = [
      [1, 9],
      [2, 12],
      [3, 20],
    ] as const;
    const make = (order: readonly (readonly [number, number])[]) =>
      fitSweep(
        "resolution",
        arms(...order.map(([scale]) => scale)),
        order.map(([, ms], k) => run(k, { medianFrameTimeMs: ms, p99FrameTimeMs: ms })),
        context,
      );
    expect(make([...levels].reverse()).sentence).toBe(make(levels).sentence);
  });
  it("display-paced runs are fitted by their means, and it says so", () => {
    const paced = {
      ...summary,
      pacing: { cadence: 1, cadenceShare: 0.6, cadenceErrorRms: 0.02, lag1: 0 },
      medianFrameTimeMs: 16.7,
      averageFps: 45,
    };
    expect(usualFrameMs(paced)).toBeCloseTo(1000 / 45, 9);
    expect(fitSweep("resolution", arms(1, 2), [run(0, paced), run(1, paced)], context).missing.join()).toMatch(
      /Lift the cap/,
    );
  });
  it("watts missing, no battery", () => {
    const fit = fitSweep(
      "power",
      [
        { name: "Low", level: null },
        { name: "High", level: null },
      ],
      [run(0, { channels: {}, averageFps: 40 }), run(1, { channels: {}, averageFps: 62 })],
      { ...context, batteryWh: null },
    );
    expect(fit.missing.join()).toMatch(/Watts are missing.*battery size/);
    expect(fit).toMatchObject({ kind: "power", arm: 1, hours: [null, null] });
  });
  it("no temperature, no limit, no memory readings", () => {
    expect(fitSweep("heat", arms(null), [run(0)], { ...context, limitC: null }).missing.join()).toMatch(
      /no temperature limit.*logged no temperature/,
    );
    expect(fitSweep("memory", arms(null), [run(0)], { ...context, memoryMb: null }).missing.join()).toMatch(
      /memory isn't written down.*logged no memory/,
    );
    expect(
      fitSweep("clocks", arms(1, 2), [run(0, { durationMs: 600_000, channels: {} })], context),
    ).toMatchObject({
      kind: "clocks",
      state: { lastClean: 0, next: { kind: "soak", step: 1 } },
      missing: [expect.stringMatching(/Temperature wasn't logged/)],
    });
  });
  it("nothing at all", () => {
    for (const kind of ["resolution", "power", "heat", "clocks", "memory"] as const)
      expect(fitSweep(kind, arms(1, 2), [], context).sentence).not.toBe("");
  });
  it("past the screen isn't kept, even where it holds", () => {
    const fit = fitSweep(
      "resolution",
      arms(1, 2, 3, 4),
      [3, 4, 6, 9].map((ms, k) => run(k, { medianFrameTimeMs: ms, p99FrameTimeMs: ms })),
      context,
    );
    expect(fit.arm).toBe(2);
    expect(fit.sentence).toMatch(/past ×3 is past the screen/);
  });
});
