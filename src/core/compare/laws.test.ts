import fc from "fast-check";
import { seeded } from "@/core/stats";
import type { FrameTrace } from "@/core/trace";
import { compare, decide, effectiveFps, furtherRuns, holm, noiseFloor, pooledSpread } from ".";
import { fitRuns } from "./fitRuns";
import { believedSpreads } from "./spreads";

const run = (fps: number, seed: number): FrameTrace => {
  const random = seeded(seed);
  const frameTimes = Float64Array.from({ length: 400 }, () => (1000 / fps) * Math.exp(0.08 * random.normal()));
  return { form: "frames", frameTimes, channels: [], marks: [] };
};

const rates = fc.array(fc.double({ min: 20, max: 90, noNaN: true }), { minLength: 1, maxLength: 3 });
const quick = { targetFps: 60, resamples: 40 };

describe("laws of a comparison", () => {
  it("the estimate lies inside its interval, and exchanging the sides inverts it", () => {
    fc.assert(
      fc.property(rates, rates, (a, b) => {
        const [armA, armB] = [a, b].map((arm, side) => arm.map((fps, k) => run(fps, 10 * side + k)));
        const there = compare(armA, armB, quick).averageFps;
        const back = compare(armB, armA, quick).averageFps;
        expect(there.low).toBeLessThanOrEqual(there.ratio + 1e-9);
        expect(there.high).toBeGreaterThanOrEqual(there.ratio - 1e-9);
        expect(there.ratio * back.ratio).toBeCloseTo(1, 9);
      }),
      { numRuns: 15 },
    );
  });

  it("twice as fast on both sides is the same ratio", () => {
    const [a, b] = [
      [run(40, 1), run(41, 2)],
      [run(44, 3), run(45, 4)],
    ];
    const faster = (arm: FrameTrace[]) =>
      arm.map((trace) => ({ ...trace, frameTimes: trace.frameTimes.map((ms) => ms / 2) }));
    const one = compare(a, b, quick).averageFps.ratio;
    const other = compare(faster(a), faster(b), { ...quick, targetFps: 120 }).averageFps.ratio;
    expect(other).toBeCloseTo(one, 9);
  });

  it("more runs alike never widen the interval by much", () => {
    const arm = (fps: number, count: number) => Array.from({ length: count }, (_, k) => run(fps, 100 + k));
    const width = (count: number) => {
      const { low, high } = compare(arm(40, count), arm(42, count), quick).averageFps;
      return high - low;
    };
    expect(width(8)).toBeLessThan(width(2));
  });
});

describe("laws of deciding", () => {
  const effects = fc
    .tuple(
      fc.double({ min: -0.3, max: 0.3, noNaN: true }),
      fc.double({ min: 0, max: 0.2, noNaN: true }),
      fc.double({ min: 0, max: 0.2, noNaN: true }),
    )
    .map(([estimate, down, up]) => ({ estimate, low: estimate - down, high: estimate + up }));

  it("the mirror image decides the mirror", () => {
    const mirror = {
      better: "worse",
      worse: "better",
      "no difference": "no difference",
      undecided: "undecided",
    } as const;
    fc.assert(
      fc.property(effects, ({ estimate, low, high }) => {
        const there = decide({ estimate, low, high }, 0.02);
        const back = decide({ estimate: -estimate, low: -high, high: -low }, 0.02);
        expect(back).toBe(mirror[there]);
      }),
    );
  });

  it("nothing is called better or worse while 0 is possible", () => {
    fc.assert(
      fc.property(effects, (effect) => {
        if (effect.low <= 0 && effect.high >= 0)
          expect(["no difference", "undecided"]).toContain(decide(effect, 0.02));
      }),
    );
  });

  it("a noisier rig is settled by as many further runs at most as often", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.003, max: 0.02, noNaN: true }), (sd) => {
        const asked = (own: number) =>
          furtherRuns({
            fit: fitRuns(
              [
                [-own, 0, own],
                [0.06 - own, 0.06, 0.06 + own],
              ],
              [],
              believedSpreads({ sd: own, freedom: 20 }),
            ),
            counts: [3, 3],
            a: 0,
            b: 1,
            margin: 0.02,
            seed: 3,
          });
        const quiet = asked(sd),
          noisy = asked(2 * sd);
        expect(noisy.more).toBeGreaterThanOrEqual(quiet.more);
      }),
      { numRuns: 25 },
    );
  });
});

describe("laws of many looks", () => {
  const values = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 10 });

  it("correction never makes a finding stronger, and keeps the order", () => {
    fc.assert(
      fc.property(values, (p) => {
        const corrected = holm(p);
        p.forEach((plain, i) => {
          expect(corrected[i]).toBeGreaterThanOrEqual(plain - 1e-12);
          expect(corrected[i]).toBeLessThanOrEqual(1);
          p.forEach((other, j) => {
            if (plain < other) expect(corrected[i]).toBeLessThanOrEqual(corrected[j] + 1e-12);
          });
        });
      }),
    );
  });

  it("one look needs none", () => {
    fc.assert(fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (p) => expect(holm([p])).toEqual([p])));
  });
});

describe("laws of noise", () => {
  const groups = fc.array(
    fc.array(fc.double({ min: 10, max: 100, noNaN: true }), { minLength: 1, maxLength: 5 }),
    { minLength: 1, maxLength: 5 },
  );

  it("a rig twice as fast is as noisy", () => {
    fc.assert(
      fc.property(groups, (list) => {
        const one = noiseFloor(list);
        const other = noiseFloor(list.map((group) => group.map((fps) => 2 * fps)));
        expect(other === null).toBe(one === null);
        if (one && other) {
          expect(other.sd).toBeCloseTo(one.sd, 9);
          expect(other.freedom).toBe(one.freedom);
        }
      }),
    );
  });

  it("groups of one run say nothing", () => {
    fc.assert(
      fc.property(groups, (list) => {
        const alone = [...list, [50]];
        expect(noiseFloor(alone)).toEqual(noiseFloor(list));
      }),
    );
  });

  it("a pooled spread lies between the floor and what the runs show, always", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.01, noNaN: true }),
        fc.integer({ min: 1, max: 12 }),
        (squares, freedom) => {
          const floor = { sd: 0.02, freedom: 30 };
          const made = pooledSpread(squares, freedom, floor);
          const [own, given] = [squares / freedom, floor.sd ** 2];
          expect(made.variance).toBeGreaterThanOrEqual(Math.min(own, given) - 1e-12);
          expect(made.variance).toBeLessThanOrEqual(Math.max(own, given) + 1e-12);
        },
      ),
    );
  });
});

it("an engine's own report decides over the counter, in proportion", () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 150, noNaN: true }),
      fc.double({ min: 20, max: 120, noNaN: true }),
      (percent, native) => {
        expect(effectiveFps({ reportedSpeedPercent: percent, averageFps: 60 }, native)).toBeCloseTo(
          (native * percent) / 100,
          9,
        );
      },
    ),
  );
});
