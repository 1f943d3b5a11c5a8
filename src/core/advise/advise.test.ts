import type { Diagnosis } from "@/core/diagnose";
import { plainSetting, type RigSpec } from "@/core/kit";
import { seeded } from "@/core/stats";
import type { FrameTrace, IntervalTrace } from "@/core/trace";
import {
  adviseComparison,
  isAgainst,
  usualGrade,
  usualLight,
  type ArmEvidence,
  type PairEffect,
} from "@/core/trial";
import { lendingDesk } from "@/core/verdict";
import { effectWords, said, words, type Said } from "@/core/words";
import {
  allFastest,
  believe,
  decideRate,
  designSizes,
  foldedOver,
  isMixed,
  type Design,
  leversFor,
  limiterRate,
  limiterValueFor,
  openingFor,
  overdriveByScene,
  screeningDesign,
  screeningEffects,
  suggest,
  type LeverSetting,
  type SuggestInput,
} from ".";

/** Matches a sentence by its words. */
const saying = (pattern: RegExp) => ({
  asymmetricMatch: (sentence: Said) => pattern.test(words(sentence)),
});

describe("screening designs (Plackett & Burman, Biometrika 33, 1946)", () => {
  it("the 12-run design is the published generator, shifted, with a last row of −", () => {
    const rows = screeningDesign(11).map((row) => row.map((sign) => (sign > 0 ? "+" : "-")).join(""));
    expect(rows[0]).toBe("++-+++---+-");
    expect(rows[1]).toBe("-++-+++---+");
    expect(rows[11]).toBe("-----------");
  });
  it.each(designSizes.map((size) => [size]))(
    "the columns of the %d-run design are orthogonal and balanced",
    (size) => {
      const design = screeningDesign(size - 1);
      expect(design).toHaveLength(size);
      for (let a = 0; a < size - 1; a++) {
        expect(design.reduce((sum, row) => sum + row[a], 0)).toBe(0);
        for (let b = a + 1; b < size - 1; b++)
          expect(design.reduce((sum, row) => sum + row[a] * row[b], 0)).toBe(0);
      }
    },
  );
  it("is the smallest that fits, and refuses what none does", () => {
    expect(screeningDesign(7)).toHaveLength(8);
    expect(screeningDesign(8)).toHaveLength(12);
    expect(() => screeningDesign(1)).toThrow(RangeError);
    expect(() => screeningDesign(24)).toThrow(RangeError);
  });
  it("finds known main effects, and leaves the others inside the noise", () => {
    const design = screeningDesign(7);
    let found = 0,
      wrong = 0;
    for (let seed = 0; seed < 100; seed++) {
      const random = seeded(seed);
      const effects = screeningEffects(
        design,
        design.map((row) => Math.log(40) + 0.06 * row[1] - 0.05 * row[4] + 0.01 * random.normal()),
        { sd: 0.01, freedom: 20 },
      );
      if (effects[1].matters && effects[1].logGain > 0 && effects[4].matters && effects[4].logGain < 0) found++;
      wrong += effects.filter(({ factor, matters }) => matters && factor !== 1 && factor !== 4).length;
      expect(effects[1].logGain).toBeCloseTo(0.12, 1);
    }
    expect(found).toBe(100);
    expect(wrong / 500).toBeLessThan(0.1);
  });
  it("folded over, two switches that act on one another name no innocent one, and a steady drift none either", () => {
    const plain = screeningDesign(7);
    const counted = (design: Design) => {
      let innocent = 0;
      for (let seed = 0; seed < 200; seed++) {
        const random = seeded(4000 + seed);
        const rates = design.map(
          (row, i) =>
            (row[0] > 0 ? 0.1 : 0) +
            (row[1] > 0 ? 0.07 : 0) +
            (row[0] > 0 && row[1] > 0 ? 0.1 : 0) -
            (0.05 * i) / design.length +
            0.04 * random.normal(),
        );
        const named = screeningEffects(design, rates).filter(({ matters, factor }) => matters && factor > 1);
        if (named.length > 0) innocent++;
      }
      return innocent / 200;
    };
    expect(counted(foldedOver(plain))).toBeLessThanOrEqual(0.1);
    expect(counted(plain)).toBeLessThanOrEqual(0.1);
    const rates = foldedOver(plain).map((_, i) => (i < 8 ? 1 : null));
    expect(isMixed(foldedOver(plain), rates)).toBe(true);
    expect(
      isMixed(
        foldedOver(plain),
        foldedOver(plain).map((_, i) => i),
      ),
    ).toBe(false);
  });
  it("works with rows missing, down to half", () => {
    const design = screeningDesign(3);
    const rates = design.map((row, i) => (i < 5 ? Math.log(40) + 0.1 * row[0] : null));
    expect(screeningEffects(design, rates)[0].logGain).toBeCloseTo(0.2, 6);
    expect(() =>
      screeningEffects(
        design,
        rates.map((rate, i) => (i < 3 ? rate : null)),
      ),
    ).toThrow(RangeError);
  });
});

describe("the rate to lock", () => {
  const wandering = (mean: number, spread: number, seconds = 120): FrameTrace => {
    const random = seeded(3);
    let state = 0;
    return {
      form: "frames",
      frameTimes: Float64Array.from({ length: mean * seconds }, () => {
        state = 0.999 * state + Math.sqrt(1 - 0.999 ** 2) * random.normal();
        return 1000 / (mean + spread * Math.max(-1.9, Math.min(1.9, state)));
      }),
      channels: [],
      marks: [],
    };
  };
  it("42 to 50 free in a rate-free 60 title: lock at 30 (common practice)", () => {
    const made = decideRate(wandering(46, 2), { nativeFps: 60, tied: false, refreshHz: 60 });
    expect(made.candidates[made.recommended]).toMatchObject({ capFps: 30, even: true, refreshes: 2 });
    expect(words(made.sentence)).toMatch(/^Lock at 30 fps: 100 % of windows/);
  });
  it("a tied title is never capped below its own rate: slow motion", () => {
    const made = decideRate(wandering(46, 2), { nativeFps: 60, tied: true, refreshHz: 60 });
    expect(made.candidates[made.recommended].capFps).toBe(60);
    expect(made.candidates.filter(({ slowMotion }) => slowMotion).map(({ capFps }) => capFps)).toEqual([
      30, 20, 15,
    ]);
    expect(words(made.sentence)).toMatch(/slow motion/);
  });
  it("its own rate where that holds", () =>
    expect(words(decideRate(wandering(75, 1), { nativeFps: 60, tied: false, refreshHz: 60 }).sentence)).toMatch(
      /^Lock at its own 60 fps/,
    ));
  it("prefers an even cadence: 40 on 120 Hz is 3 refreshes, on 60 Hz none", () => {
    const on = (refreshHz: number) => {
      const made = decideRate(wandering(46, 2), { nativeFps: 60, tied: false, refreshHz });
      return made.candidates[made.recommended].capFps;
    };
    expect([on(120), on(60)]).toEqual([40, 30]);
  });
  it("shows patches with their side effects, and never recommends one by itself", () => {
    const made = decideRate(wandering(46, 2), {
      nativeFps: 30,
      tied: true,
      refreshHz: 60,
      patches: [{ name: "sixty", fps: 60, sideEffects: "crowds move twice as fast" }],
    });
    expect(made.candidates[0]).toMatchObject({
      capFps: 60,
      slowMotion: false,
      patch: { sideEffects: "crowds move twice as fast" },
    });
    expect(made.candidates[made.recommended]).toMatchObject({ capFps: 30, patch: null });
  });
  it("a limiter that counts double: 120 gives 60, 240 gives 120 (common practice)", () => {
    expect([
      limiterRate(120, true),
      limiterRate(240, true),
      limiterValueFor(60, true),
      limiterValueFor(60, false),
    ]).toEqual([60, 120, 120, 60]);
    expect(
      decideRate(wandering(46, 2), {
        nativeFps: 60,
        tied: false,
        refreshHz: 60,
        limiterCountsDouble: true,
      }).candidates.find(({ capFps }) => capFps === 30)!.limiterValue,
    ).toBe(60);
  });
  it("says when nothing holds, and works on readings of a counter", () => {
    const readings: IntervalTrace = {
      form: "interval",
      durations: new Float64Array(30).fill(1000),
      rates: Float64Array.from({ length: 30 }, (_, i) => 10 + (i % 5)),
      channels: [],
      marks: [],
    };
    expect(words(decideRate(readings, { nativeFps: 60, tied: false, refreshHz: 60 }).sentence)).toMatch(
      /leave it free/,
    );
  });
  it("an overdriven clock: lifts what was slow, speeds up what was fine", () => {
    const made = overdriveByScene(
      [
        { label: "hall", averageFps: 45 },
        { label: "field", averageFps: 60 },
        { label: "cave", averageFps: 60 },
      ],
      [
        { label: "hall", averageFps: 55 },
        { label: "field", averageFps: 70 },
        { label: "cave", averageFps: 60.2 },
      ],
      60,
    );
    expect(made.map(({ effect }) => effect)).toEqual(["lifted", "sped up", "no change"]);
  });
});

const free = { picture: 0, feel: 0, heat: 0, risk: 0 };
const setting = plainSetting;
const scale = setting("scale", {
  purpose: "scale",
  type: "number",
  min: 1,
  max: 8,
  step: 1,
  default: 2,
  fastest: 1,
  relieves: ["graphics"],
  costs: { ...free, picture: 2 },
});
const light = setting("light", { relieves: ["processor"], restart: true });
const odd = setting("odd", { fastest: null, relieves: ["sync"] });
const spec: Pick<RigSpec, "powerModes" | "clockOptions" | "cooling"> = {
  powerModes: [
    { name: "Low", watts: 8, use: "any" },
    { name: "High", watts: 20, use: "any" },
    { name: "Dock", watts: 30, use: "docked" },
  ],
  clockOptions: ["quiet", "forced"],
  cooling: { kind: "none", coolerToHand: true },
};
const base: LeverSetting = {
  catalogue: [scale, light, odd],
  settings: { scale: 3, light: false, odd: false },
  rules: { mayChange: { clocks: true, powerMode: true, picture: true }, requires: lendingDesk.requires },
  spec,
  conditions: { powerMode: "Low", clocks: "quiet", cooler: false, docked: false, pluggedIn: false },
};
const keysOf = (changes: Partial<LeverSetting>) =>
  leversFor({ ...base, ...changes }).map(({ key, to, towards }) => `${key} ${String(to)} ${towards}`);

describe("levers", () => {
  it("are single steps both ways, conditions, and switches that only a test tells", () => {
    expect(keysOf({})).toEqual([
      "scale 2 speed",
      "scale 4 picture",
      "light true speed",
      "odd true speed",
      "power mode High speed",
      "clocks forced speed",
      "cooler true speed",
    ]);
  });
  it("never what the house rules forbid", () => {
    const rules = {
      ...base.rules,
      mayChange: { clocks: false, powerMode: false, picture: false },
      requires: { ...lendingDesk.requires, cooler: false },
    };
    expect(keysOf({ rules })).toEqual(["scale 4 picture", "light true speed", "odd true speed"]);
  });
  it("stop at the ends, and at what the display still shows", () => {
    expect(keysOf({ settings: { scale: 1, light: true, odd: false } })).not.toContain("scale 0 speed");
    expect(keysOf({ usefulScale: 3 })).not.toContain("scale 4 picture");
  });
  it("move linked settings together", () => {
    const [x, y] = [
      setting("x", { ...scale, key: "x", linked: ["y"] }),
      setting("y", { ...scale, key: "y", linked: ["x"] }),
    ];
    const levers = leversFor({ ...base, catalogue: [x, y], settings: { x: 3, y: 3 } }).filter(
      ({ kind }) => kind === "setting",
    );
    expect(levers.map(({ settings }) => settings)).toEqual([
      { x: 2, y: 2 },
      { x: 4, y: 4 },
    ]);
  });
  it("all fastest is where descending starts", () => {
    expect(allFastest(base.catalogue, base.settings, base.rules)).toEqual({
      scale: 1,
      light: true,
      odd: false,
    });
    expect(
      allFastest(base.catalogue, base.settings, {
        ...base.rules,
        mayChange: { ...base.rules.mayChange, picture: false },
      }),
    ).toEqual({ scale: 3, light: true, odd: false });
  });
});

const foundCause = (cause: Diagnosis["causes"][number]["cause"]): Diagnosis["causes"][number] => ({
  cause,
  weight: 4,
  chance: 0.9,
  evidence: [{ cause, weight: 4, sign: said("sign.clockNotWork") }],
});
const diagnosis = (cause: Diagnosis["causes"][number]["cause"]): Diagnosis => ({
  causes: [foundCause(cause)],
  likely: [foundCause(cause)],
  segments: [],
  sentence: said("diagnosis.notEnough"),
  settle: null,
  pixelShare: null,
});
const input = (changes: Partial<SuggestInput> = {}): SuggestInput => ({
  levers: leversFor({
    ...base,
    rules: { ...base.rules, mayChange: { clocks: false, powerMode: false, picture: true } },
  }),
  diagnosis: diagnosis("graphics"),
  aim: "speed",
  speedPercent: 75,
  steady: false,
  history: [],
  sceneMinutes: 1,
  ...changes,
});

describe("what to try next", () => {
  it("follows the diagnosis", () => {
    expect(suggest(input())[0].lever.key).toBe("scale");
    expect(suggest(input({ diagnosis: diagnosis("processor") }))[0].lever.key).toBe("light");
    expect(suggest(input({ diagnosis: diagnosis("governor"), levers: leversFor(base) }))[0].lever.key).toBe(
      "clocks",
    );
  });
  it("gives three with gain, chance, minutes and one sentence with figures", () => {
    const made = suggest(input({ levers: leversFor(base) }));
    expect(made).toHaveLength(3);
    for (const { sentence, belief, minutes } of made) {
      expect(words(sentence)).toMatch(/\d+ %/);
      expect(belief.chance).toBeGreaterThan(0);
      expect(minutes).toBeGreaterThan(0);
    }
  });
  it("learns from the rig's own trials: what failed there sinks, what helped rises", () => {
    const tried = (helped: boolean, logGain: number) =>
      Array.from({ length: 5 }, () => ({
        key: "scale",
        from: 3,
        to: 2,
        relieves: ["graphics" as const],
        helped,
        logGain,
        elsewhere: true,
      }));
    const chance = (history: SuggestInput["history"]) =>
      suggest(input({ history })).find(({ lever }) => lever.key === "scale" && lever.towards === "speed")!
        .belief;
    expect(chance(tried(false, 0)).chance).toBeLessThan(0.4);
    expect(chance(tried(true, 0.3)).chance).toBeGreaterThan(0.85);
    expect(words(suggest(input({ history: tried(true, 0.3) }))[0].sentence)).toMatch(/helped in 5 of 5 trials/);
  });
  it("beta-binomial: four trials' worth of prior at a half, then 3 of 4, is 5/8 (arithmetic)", () => {
    const history = [true, true, true, false].map((helped) => ({
      key: "a",
      from: false,
      to: true,
      relieves: [],
      helped,
      logGain: helped ? 0.2 : 0,
    }));
    const made = believe(
      { key: "a", from: false, to: true, relieves: [] },
      { chance: 0.5, logGain: 0.1 },
      history,
    );
    expect(made.chance).toBeCloseTo(5 / 8, 12);
    expect(made.logGain).toBeCloseTo((2 * 0.1 + 3 * 0.2) / 5, 12);
    expect([made.tried, made.helped]).toEqual([4, 3]);
  });
  it("an undecided trial with a gain is no failure", () => {
    const lever = { key: "a", from: false, to: true, relieves: [] };
    const after = (logGain: number) =>
      believe(lever, { chance: 0.5, logGain: 0.1 }, [{ ...lever, helped: false, logGain }]).chance;
    expect(after(0.05)).toBeGreaterThan(after(0));
  });
  it("the way back from what helped isn't believed", () => {
    const history = [{ key: "clocks", from: "quiet", to: "forced", relieves: [], helped: true, logGain: 0.8 }];
    expect(
      believe(
        { key: "clocks", from: "forced", to: "quiet", relieves: [] },
        { chance: 0.5, logGain: 0.1 },
        history,
      ).chance,
    ).toBeCloseTo(0.4, 12);
  });
  it("once steady it gives picture back, or spends fewer watts, or leaves it be", () => {
    const levers = leversFor({ ...base, conditions: { ...base.conditions, powerMode: "High" } });
    expect(suggest(input({ levers, steady: true, aim: "picture", diagnosis: null }))[0].lever).toMatchObject({
      key: "scale",
      to: 4,
    });
    expect(suggest(input({ levers, steady: true, aim: "battery", diagnosis: null }))[0].lever).toMatchObject({
      key: "power mode",
      to: "Low",
    });
    expect(suggest(input({ levers, steady: true, diagnosis: null }))).toEqual([]);
  });
  it("puts cautions beside whatever raises clocks, watts or heat", () => {
    for (const { lever, cautions } of suggest(input({ levers: leversFor(base) }), 20))
      expect(cautions.length > 0).toBe(lever.heats);
  });
  it("offers descending first below half speed, and what a job's own strategy says", () => {
    expect(openingFor("climb", 42, 0)).toMatchObject({ strategy: "descend" });
    expect(openingFor("climb", 75, 0)).toBeNull();
    expect(openingFor("screen", 75, 0)).toMatchObject({ strategy: "screen" });
    expect(openingFor("descend", 75, 1)).toBeNull();
  });
});

describe("advice on a comparison", () => {
  const pair = (a: number, b: number, ratio: number, decision: PairEffect["decision"]): PairEffect => ({
    a,
    b,
    by: "frames",
    ratio,
    low: ratio * 0.98,
    high: ratio * 1.02,
    p: 0.01,
    decision,
    worstTimeLow: null,
    fullSpeedTime: null,
    hitchesPerMinute: null,
    moreRunsPerSide: 2,
    chanceSettled: 0.93,
    steps: [
      { more: 1, chance: 0.41 },
      { more: 2, chance: 0.93 },
    ],
  });
  const arm = (name: string, more: Partial<ArmEvidence> = {}): ArmEvidence => ({
    name,
    runs: 3,
    grades: ["dims", "dims", "dims"],
    faulted: false,
    crashes: 0,
    hours: 0.1,
    ...more,
  });
  const two = (effect: PairEffect, b: Partial<ArmEvidence> = {}, a: Partial<ArmEvidence> = {}) =>
    adviseComparison({ pairs: [effect], best: [0, 1] }, [arm("before", a), arm("after", b)]);
  it("keeps what is better, puts back what is worse, no different or not settled", () => {
    expect(two(pair(0, 1, 1.1, "better"))).toMatchObject({ choice: "keep", arm: 1 });
    expect(two(pair(0, 1, 0.9, "worse")).choice).toBe("put back");
    expect(words(two(pair(0, 1, 1.001, "no difference")).sentence)).toMatch(/fewer overrides/);
    expect(words(two(pair(0, 1, 1.02, "undecided")).sentence)).toMatch(
      /1 more run a side settles it in 4 of 10 cases and 2 in 9; until then put it back/,
    );
    // Where eight a side would not, the choice is the tuner's, and needs no reason.
    const open = { ...pair(0, 1, 1.005, "undecided"), steps: [{ more: 8, chance: 0.31 }] };
    const advised = two(open);
    expect(words(advised.sentence)).toMatch(
      /^Whichever: after changes the rate by between −1\.5 % and \+2\.5 %, and 8 more runs a side settle it in 3 of 10/,
    );
    expect(isAgainst({ choice: "keep", arm: 1 }, advised)).toBe(false);
    expect(isAgainst({ choice: "keep", arm: 1 }, two(pair(0, 1, 0.9, "worse")))).toBe(true);
  });
  it("a fault outweighs speed, and its end outweighs none", () => {
    expect(two(pair(0, 1, 1.3, "better"), { faulted: true })).toMatchObject({
      choice: "put back",
      sentence: saying(/faults outweigh/),
    });
    expect(two(pair(0, 1, 1, "undecided"), {}, { faulted: true })).toMatchObject({ choice: "keep", arm: 1 });
  });
  it("the same rate with a brighter light in every run is kept for the light", () => {
    expect(two(pair(0, 1, 1, "no difference"), { grades: ["steady", "steady", "steady"] })).toMatchObject({
      choice: "keep",
      sentence: saying(/Dims → Steady/),
    });
    expect(two(pair(0, 1, 1, "no difference"), { grades: ["steady", "dims", "steady"] }).choice).toBe(
      "put back",
    );
  });
  it("of three, the one that beats, with ties named as ties", () => {
    const arms = [arm("one"), arm("two"), arm("three")];
    expect(
      adviseComparison(
        {
          pairs: [pair(0, 1, 1.3, "better"), pair(0, 2, 1.29, "better"), pair(1, 2, 0.99, "undecided")],
          best: [1, 2],
        },
        arms,
      ),
    ).toMatchObject({ arm: 1, sentence: saying(/three ties with it/) });
    expect(
      adviseComparison(
        {
          pairs: [pair(0, 1, 1.01, "undecided"), pair(0, 2, 0.9, "worse"), pair(1, 2, 0.9, "worse")],
          best: [1, 0],
        },
        arms,
      ),
    ).toMatchObject({ arm: null, sentence: saying(/tie inside the noise/) });
    expect(
      adviseComparison(
        {
          pairs: [pair(0, 1, 1.3, "better"), pair(0, 2, 1.01, "undecided"), pair(1, 2, 0.8, "worse")],
          best: [1],
        },
        [arms[0], arm("two", { faulted: true }), arms[2]],
      ),
    ).toMatchObject({ arm: null, sentence: saying(/held down by faults/) });
  });
  it("names both lights that an arm's readings leave open", () => {
    const open = { grade: "dims" as const, between: ["gutters", "dims"] as ["gutters", "dims"] };
    expect(usualLight([])).toEqual({ grade: null });
    expect(usualLight([open, { grade: "dims" }])).toEqual(open);
    expect(usualLight([open, { grade: "steady" }, { grade: "steady" }])).toEqual({ grade: "steady" });
    const change = { pair: { ratio: 1.2, low: 1.1, high: 1.3 }, arm: "B" };
    expect(words(said("compare.better", { ...change, lights: [open.between, "steady"] }))).toMatch(
      /, Dims or Gutters → Steady\.$/,
    );
  });
  it("words and lights", () => {
    expect(effectWords({ ratio: 1.05, low: 0.98, high: 1.12 })).toBe("+5.0 % (95 %: −2.0 % to +12.0 %)");
    expect([
      usualGrade([]),
      usualGrade(["steady"]),
      usualGrade(["steady", "dims", "dims"]),
      usualGrade(["steady", "dims"]),
    ]).toEqual([null, "steady", "dims", "dims"]);
  });
});

describe("levers beside the settings", () => {
  const spec = {
    powerModes: [],
    clockOptions: [],
    cooling: { kind: "fan", coolerToHand: true },
    batteryWh: 40,
    displays: [1, 2].map((n) => ({
      name: `Display ${n}`,
      connection: "cable" as const,
      width: null,
      height: null,
      refreshHz: [60],
      diagonalInch: null,
    })),
    driver: { version: "24.1", date: null },
    setUps: [{ name: "Card", system: { version: "", date: null }, driver: { version: "25.0", date: null } }],
  };
  const kinds = (conditions: object, requires: object = {}) =>
    leversFor({
      catalogue: [],
      settings: {},
      rules: {
        mayChange: { clocks: true, powerMode: true, picture: true },
        requires: { pluggedIn: null, docked: null, cooler: null, ...requires },
      },
      spec,
      conditions: {
        ...{ powerMode: null, clocks: null, cooler: false, docked: false, pluggedIn: false, setUp: null },
        ...conditions,
      },
    }).map(({ kind, conditions: changed }) => [kind, changed]);
  it("mains, dock, cooler and another driver are offered where they are to hand", () =>
    expect(kinds({})).toEqual([
      ["cooler", { cooler: true }],
      ["mains", { pluggedIn: true }],
      ["dock", { docked: true }],
      ["set-up", { setUp: "Card" }],
    ]));
  it("not where they are in use, or house rules say otherwise", () => {
    expect(kinds({ cooler: true, docked: true, pluggedIn: true, setUp: "Card" })).toEqual([]);
    expect(kinds({}, { pluggedIn: false, docked: false, cooler: false }).map(([kind]) => kind)).toEqual([
      "set-up",
    ]);
    // Nobody said what it runs on: nothing is made of that.
    expect(kinds({ pluggedIn: null }).map(([kind]) => kind)).not.toContain("mains");
  });
});
