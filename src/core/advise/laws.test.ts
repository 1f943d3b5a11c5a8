import fc from "fast-check";
import { usualGrade } from "@/core/trial";
import { armOrder, stillToRun } from "@/core/compare";
import type { FrameTrace } from "@/core/trace";
import {
  believe,
  decideRate,
  limiterRate,
  limiterValueFor,
  screeningDesign,
  screeningEffects,
  withSetting,
  type Tried,
} from ".";
import { grades } from "@/core/verdict";
import { inForce, overrides, type Standing } from "@/core/profile";

const traces = fc
  .array(fc.double({ min: 8, max: 60, noNaN: true }), { minLength: 150, maxLength: 300 })
  .map((frameTimes): FrameTrace => ({
    form: "frames",
    frameTimes: Float64Array.from(frameTimes),
    channels: [],
    marks: [],
  }));

describe("laws of the rate decision", () => {
  it("a lower cap is held at least as often", () => {
    fc.assert(
      fc.property(traces, (trace) => {
        const { candidates } = decideRate(trace, { nativeFps: 60, tied: false, refreshHz: 60 });
        const capped = candidates.filter(({ capFps }) => capFps !== null);
        for (let i = 1; i < capped.length; i++) {
          expect(capped[i].capFps!).toBeLessThan(capped[i - 1].capFps!);
          expect(capped[i].held).toBeGreaterThanOrEqual(capped[i - 1].held - 1e-12);
        }
      }),
      { numRuns: 60 },
    );
  });

  it("a tied title is never told to run below its own rate", () => {
    fc.assert(
      fc.property(traces, fc.constantFrom(20, 30, 50, 60), (trace, nativeFps) => {
        const { candidates, recommended } = decideRate(trace, { nativeFps, tied: true, refreshHz: 60 });
        expect(candidates[recommended].slowMotion).toBe(false);
        expect(candidates[recommended].capFps).toBeGreaterThanOrEqual(nativeFps * 0.99);
      }),
      { numRuns: 60 },
    );
  });

  it("what is recommended is held by 99 % of windows, or nothing is", () => {
    fc.assert(
      fc.property(traces, (trace) => {
        const { candidates, recommended } = decideRate(trace, { nativeFps: 60, tied: false, refreshHz: 60 });
        const chosen = candidates[recommended];
        if (chosen.capFps === null) {
          expect(candidates.some(({ capFps, held }) => capFps !== null && held >= 0.99)).toBe(false);
        } else {
          expect(chosen.held).toBeGreaterThanOrEqual(0.99);
        }
      }),
      { numRuns: 60 },
    );
  });

  it("writing a limiter and reading it gives the rate back", () => {
    fc.assert(
      fc.property(fc.double({ min: 10, max: 240, noNaN: true }), fc.boolean(), (fps, double) => {
        expect(limiterRate(limiterValueFor(fps, double), double)).toBeCloseTo(fps, 9);
      }),
    );
  });
});

describe("laws of learning", () => {
  const trial = fc.record({
    helped: fc.boolean(),
    logGain: fc.double({ min: -0.2, max: 0.6, noNaN: true }),
  });
  const history = fc
    .array(trial, { maxLength: 12 })
    .map((list) =>
      list.map(({ helped, logGain }): Tried => ({ key: "a", from: 1, to: 2, relieves: [], helped, logGain })),
    );
  const lever = { key: "a", from: 1, to: 2, relieves: [] };
  const prior = { chance: 0.4, logGain: 0.1 };

  it("a chance stays a chance, inside its own interval", () => {
    fc.assert(
      fc.property(history, (list) => {
        const { chance, chanceLow, chanceHigh } = believe(lever, prior, list);
        expect(chance).toBeGreaterThan(0);
        expect(chance).toBeLessThan(1);
        expect(chanceLow).toBeLessThanOrEqual(chance);
        expect(chanceHigh).toBeGreaterThanOrEqual(chance);
      }),
    );
  });

  it("one more that helped raises it, one more that didn't lowers it", () => {
    fc.assert(
      fc.property(history, (list) => {
        const after = (helped: boolean) =>
          believe(lever, prior, [...list, { key: "a", from: 1, to: 2, relieves: [], helped, logGain: 0.1 }])
            .chance;
        const now = believe(lever, prior, list).chance;
        expect(after(true)).toBeGreaterThan(now);
        expect(after(false)).toBeLessThan(now);
      }),
    );
  });

  it("the order of trials teaches nothing", () => {
    fc.assert(
      fc.property(history, (list) => {
        const there = believe(lever, prior, list);
        const back = believe(lever, prior, [...list].reverse());
        expect(back.chance).toBeCloseTo(there.chance, 12);
        expect(back.logGain).toBeCloseTo(there.logGain, 12);
      }),
    );
  });

  it("trials of something else entirely teach nothing", () => {
    fc.assert(
      fc.property(history, (list) => {
        const other = list.map((each) => ({ ...each, key: "b" }));
        expect(believe(lever, prior, other)).toEqual(believe(lever, prior, []));
      }),
    );
  });
});

describe("laws of screening", () => {
  it("adding the same to every log rate changes no effect", () => {
    const design = screeningDesign(5);
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 3, max: 5, noNaN: true }), { minLength: 8, maxLength: 8 }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (rates, shift) => {
          const one = screeningEffects(design, rates);
          const other = screeningEffects(
            design,
            rates.map((rate) => rate + shift),
          );
          one.forEach(({ logGain }, i) => expect(other[i].logGain).toBeCloseTo(logGain, 9));
        },
      ),
    );
  });

  it("an exact effect is given back whole, and the others are 0", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 23 }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        (factors, effect) => {
          const design = screeningDesign(factors);
          const found = screeningEffects(
            design,
            design.map((row) => 4 + (effect / 2) * row[0]),
          );
          expect(found[0].logGain).toBeCloseTo(effect, 9);
          found.slice(1).forEach(({ logGain }) => expect(logGain).toBeCloseTo(0, 9));
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe("laws of the order of runs", () => {
  const shape = fc.record({ arms: fc.integer({ min: 1, max: 6 }), rounds: fc.integer({ min: 1, max: 8 }) });

  it("every arm is planned as often as any other", () => {
    fc.assert(
      fc.property(shape, ({ arms, rounds }) => {
        const order = armOrder(arms, rounds);
        for (let arm = 0; arm < arms; arm++) expect(order.filter((each) => each === arm)).toHaveLength(rounds);
      }),
    );
  });

  it("running what is left, in its order, leaves nothing", () => {
    fc.assert(
      fc.property(shape, fc.integer({ min: 0, max: 20 }), ({ arms, rounds }, steps) => {
        const done: number[] = [];
        for (let k = 0; k < steps; k++) {
          const [next] = stillToRun(arms, rounds, done);
          if (next === undefined) break;
          done.push(next);
        }
        expect(done).toEqual(armOrder(arms, rounds).slice(0, done.length));
        expect(stillToRun(arms, rounds, [...done, ...stillToRun(arms, rounds, done)])).toEqual([]);
      }),
    );
  });

  it("no arm leads on average: its mean place is the middle, over an even number of rounds", () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 6 }), fc.integer({ min: 1, max: 4 }), (arms, half) => {
        const order = armOrder(arms, 2 * half);
        const middle = (order.length - 1) / 2;
        for (let arm = 0; arm < arms; arm++) {
          const places = order.flatMap((each, place) => (each === arm ? [place] : []));
          expect(places.reduce((a, b) => a + b, 0) / places.length).toBeCloseTo(middle, 9);
        }
      }),
    );
  });
});

describe("laws of what holds", () => {
  const settings = fc.record({
    a: fc.integer({ min: 0, max: 3 }),
    b: fc.boolean(),
    c: fc.constantFrom("x", "y", "z"),
  });
  const decisions = fc.array(fc.tuple(settings, settings, fc.boolean()), { maxLength: 6 }).map((list) =>
    list.map(([before, after, keep], k) => ({
      before: { settings: before, conditions: {}, targetFps: null },
      kept: keep ? { settings: after, conditions: {}, buildId: null } : null,
      number: k + 1,
      keys: [],
      proof: null,
    })),
  );

  it("keys stay the same, and what no decision touched stays as it was", () => {
    fc.assert(
      fc.property(settings, decisions, (base, decided) => {
        const standing: Standing = { settings: base, conditions: {}, buildId: "own", targetFps: null };
        const held = inForce(standing, decided).settings;
        expect(Object.keys(held).sort()).toEqual(Object.keys(base).sort());
        for (const key of Object.keys(base) as (keyof typeof base)[]) {
          const touched = decided.some(
            ({ before, kept }) => kept !== null && kept.settings[key] !== before.settings[key],
          );
          if (!touched) expect(held[key]).toBe(base[key]);
        }
      }),
    );
  });

  it("a decision that puts back is as if it had never been", () => {
    fc.assert(
      fc.property(settings, decisions, (base, decided) => {
        const standing: Standing = { settings: base, conditions: {}, buildId: "own", targetFps: null };
        expect(inForce(standing, decided)).toEqual(
          inForce(
            standing,
            decided.filter(({ kept }) => kept !== null),
          ),
        );
      }),
    );
  });

  it("overrides are what differs from the defaults, no more and no less", () => {
    fc.assert(
      fc.property(settings, settings, decisions, (defaults, base, decided) => {
        const held = inForce({ settings: base, conditions: {}, buildId: "own", targetFps: null }, decided);
        const made = overrides(defaults, held, decided);
        const differing = (Object.keys(defaults) as (keyof typeof defaults)[]).filter(
          (key) => defaults[key] !== held.settings[key],
        );
        expect(made.map(({ key }) => key).sort()).toEqual([...differing].sort());
        for (const { key, to } of made) expect(to).toBe(held.settings[key]);
      }),
    );
  });

  it("linked settings never part", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10 }), (value) => {
        const made = withSetting({ x: 1, y: 1, z: 1 }, { key: "x", linked: ["y"] }, value);
        expect(made).toEqual({ x: value, y: value, z: 1 });
      }),
    );
  });
});

it("the usual light of runs is one that some run has", () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...grades), { minLength: 1, maxLength: 9 }), (list) => {
      expect(list).toContain(usualGrade(list));
    }),
  );
});
